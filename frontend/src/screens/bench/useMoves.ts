import type { Edit, PathPart } from '@/composables/edits'

export type Apply = (edits: Edit[]) => void

const same = (a: PathPart[], b: PathPart[]): boolean => a.join('/') === b.join('/')

/** Moving an item within its list by keys on its grip. */
export function useMoveKeys(edit: Apply) {
  return (event: KeyboardEvent, list: PathPart[], index: number, length: number): void => {
    // Blocks stand one under another, movements in a line.
    const by = { ArrowUp: -1, ArrowLeft: -1, ArrowDown: 1, ArrowRight: 1 }[event.key]
    if (by === undefined) return
    event.preventDefault()
    event.stopPropagation()
    const grip = event.currentTarget as HTMLElement
    const to = index + by
    if (to < 0 || to >= length) return
    edit([{ op: 'move', path: list, index, to_index: to }])
    requestAnimationFrame(() => grip.isConnected && grip.focus())
  }
}

/** The edit that puts a dragged item where another stands: before it going up, and after it going down. */
export function moved(
  from: { list: PathPart[]; index: number },
  onto: { list: PathPart[]; index: number },
  down: boolean,
): Edit {
  if (same(from.list, onto.list)) return { op: 'move', path: from.list, index: from.index, to_index: onto.index }
  return {
    op: 'move',
    path: from.list,
    index: from.index,
    to_index: onto.index + (down ? 1 : 0),
    to_path: onto.list,
  }
}
