import { ref } from 'vue'

import type { Edit, PlacePart } from '@/composables/edits'

/** What is being dragged: an item of a list, by the list's place. Blocks and steps are told apart by `what`. */
const dragged = ref<{ what: string; list: PlacePart[]; index: number } | null>(null)

const same = (a: PlacePart[], b: PlacePart[]): boolean => a.join('/') === b.join('/')

/** Moving an item of a list by keys or by dragging its grip. */
export function useMoves(edit: (edits: Edit[]) => void) {
  function move(list: PlacePart[], index: number, by: number, length: number): boolean {
    const to = index + by
    if (to < 0 || to >= length) return false
    edit([{ op: 'move', place: list, index, to_index: to }])
    return true
  }
  function keys(event: KeyboardEvent, list: PlacePart[], index: number, length: number): void {
    const by = { ArrowUp: -1, ArrowDown: 1 }[event.key]
    if (by === undefined) return
    event.preventDefault()
    event.stopPropagation()
    const grip = event.currentTarget as HTMLElement
    if (move(list, index, by, length)) requestAnimationFrame(() => grip.isConnected && grip.focus())
  }
  function start(event: DragEvent, what: string, list: PlacePart[], index: number): void {
    dragged.value = { what, list, index }
    event.dataTransfer?.setData('text/plain', what)
    event.stopPropagation()
  }
  const over = (event: DragEvent, what: string): void => {
    if (dragged.value?.what === what) event.preventDefault()
  }
  function drop(event: DragEvent, what: string, list: PlacePart[], index: number): void {
    if (dragged.value?.what === what) {
      event.preventDefault()
      event.stopPropagation()
    }
    land(what, list, index)
  }
  /** Put down what is being dragged. */
  function land(what: string, list: PlacePart[], index: number): void {
    const from = dragged.value
    dragged.value = null
    if (from?.what !== what) return
    if (same(from.list, list)) {
      if (from.index !== index) edit([{ op: 'move', place: list, index: from.index, to_index: index }])
    } else edit([{ op: 'move', place: from.list, index: from.index, to_index: index, to_place: list }])
  }
  /** A finger or a pen lifts the grip: browsers drag by mouse alone. It lands on what lies under it in the end. */
  function lift(event: PointerEvent, what: string, list: PlacePart[], index: number): void {
    if (event.pointerType === 'mouse') return
    const grip = event.currentTarget as HTMLElement
    grip.setPointerCapture(event.pointerId)
    dragged.value = { what, list, index }
    grip.onpointercancel = () => (dragged.value = null)
    grip.onpointerup = (end) => {
      grip.onpointerup = grip.onpointercancel = null
      const under = document.elementFromPoint(end.clientX, end.clientY)?.closest<HTMLElement>(`[data-${what}]`)
      const place = under?.dataset[what]
      if (place) land(what, ...(JSON.parse(place) as [PlacePart[], number]))
      dragged.value = null
    }
  }
  return { keys, start, over, drop, lift }
}
