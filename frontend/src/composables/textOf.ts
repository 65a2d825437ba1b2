// Text files as they come from other programs: UTF-8, UTF-16 with its mark, or an older Windows encoding.
const MARKS: readonly (readonly [first: number, second: number, encoding: string])[] = [
  [0xff, 0xfe, 'utf-16le'],
  [0xfe, 0xff, 'utf-16be'],
]

/** The text of a file. What is no UTF-8 is read as Windows-1252, in which every byte is a letter. */
export async function textOf(file: Blob): Promise<string> {
  const bytes = new Uint8Array(await file.arrayBuffer())
  const mark = MARKS.find(([first, second]) => bytes[0] === first && bytes[1] === second)
  if (mark) return new TextDecoder(mark[2]).decode(bytes)
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes)
  } catch {
    return new TextDecoder('windows-1252').decode(bytes)
  }
}
