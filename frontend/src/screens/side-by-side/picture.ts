// A picture on the page as a file of its own: its styles go with it.

const STYLES = [
  'fill',
  'stroke',
  'stroke-width',
  'stroke-dasharray',
  'font-family',
  'font-size',
  'font-weight',
  'text-anchor',
  'paint-order',
  'stroke-linejoin',
]

/** The picture as SVG text that needs no stylesheet, on paper of its own. */
export function svgText(picture: SVGSVGElement): string {
  const copy = picture.cloneNode(true) as SVGSVGElement
  const from = [picture, ...picture.querySelectorAll('*')]
  for (const [index, one] of [copy, ...copy.querySelectorAll('*')].entries()) {
    const source = from[index]
    if (!source) continue
    const style = getComputedStyle(source)
    for (const name of STYLES) one.setAttribute(name, style.getPropertyValue(name))
    for (const name of ['class', 'tabindex', 'role']) one.removeAttribute(name)
  }
  const { width, height } = picture.viewBox.baseVal
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg')
  copy.setAttribute('width', String(width))
  copy.setAttribute('height', String(height))
  const paper = document.createElementNS('http://www.w3.org/2000/svg', 'rect')
  for (const [name, value] of Object.entries({ width, height, fill: '#fffdf8' }))
    paper.setAttribute(name, String(value))
  copy.prepend(paper)
  return new XMLSerializer().serializeToString(copy)
}

/** The same as PNG, two dots for each of its own. */
export async function pngOf(picture: SVGSVGElement): Promise<Blob> {
  const image = new Image()
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(svgText(picture))}`
  await image.decode()
  const { width, height } = picture.viewBox.baseVal
  const canvas = document.createElement('canvas')
  canvas.width = width * 2
  canvas.height = height * 2
  canvas.getContext('2d')?.drawImage(image, 0, 0, canvas.width, canvas.height)
  return await new Promise((done, failed) =>
    canvas.toBlob((blob) => (blob ? done(blob) : failed(new Error('no picture'))), 'image/png'),
  )
}
