import type { Edit, PlacePart } from '@/composables/edits'

export type Apply = (edits: Edit[]) => void

const same = (a: PlacePart[], b: PlacePart[]): boolean => a.join('/') === b.join('/')

/** Moving an item within its list by keys on its grip. */
export function useMoveKeys(edit: Apply) {
  return (event: KeyboardEvent, list: PlacePart[], index: number, length: number): void => {
    // Blocks stand one under another, movements in a line.
    const by = { ArrowUp: -1, ArrowLeft: -1, ArrowDown: 1, ArrowRight: 1 }[event.key]
    if (by === undefined) return
    event.preventDefault()
    event.stopPropagation()
    const grip = event.currentTarget as HTMLElement
    const to = index + by
    if (to < 0 || to >= length) return
    edit([{ op: 'move', place: list, index, to_index: to }])
    requestAnimationFrame(() => grip.isConnected && grip.focus())
  }
}

/** The edit that puts a dragged item where another stands: before it going up, and after it going down. */
export function moved(
  from: { list: PlacePart[]; index: number },
  onto: { list: PlacePart[]; index: number },
  down: boolean,
): Edit {
  if (same(from.list, onto.list)) return { op: 'move', place: from.list, index: from.index, to_index: onto.index }
  return {
    op: 'move',
    place: from.list,
    index: from.index,
    to_index: onto.index + (down ? 1 : 0),
    to_place: onto.list,
  }
}
