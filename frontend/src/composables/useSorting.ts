import Sortable from 'sortablejs'
import { onScopeDispose, watch, type Ref } from 'vue'

/** What was dragged, and where it was put down: lists by their elements, places by their order among what can be dragged. */
export interface Dropped {
  item: HTMLElement
  from: HTMLElement
  to: HTMLElement
  index: number
  toIndex: number
}

export interface Sorting {
  /** Lists of one group exchange their items. */
  group: string
  /** Selects what can be dragged, and by what part of it (its whole, if none is named). */
  draggable: string
  handle?: string
  /** Whether the order within a list is one's own to set. */
  ordered: boolean
}

/** So many milliseconds a finger rests on what has no handle of its own before it is lifted: a swipe scrolls. */
const HELD_MS = 180

/**
 * Dragging by mouse, pen and finger. The order is set in the model and drawn from it: what was moved on the page is put
 * back at once, and `dropped` changes the model.
 */
export function useSorting(list: Ref<HTMLElement | null>, sorting: Sorting, dropped: (move: Dropped) => void): void {
  let sortable: Sortable | null = null
  let after: Element | null = null

  function make(element: HTMLElement): Sortable {
    return Sortable.create(element, {
      group: sorting.group,
      draggable: sorting.draggable,
      handle: sorting.handle,
      sort: sorting.ordered,
      // Browsers' own dragging knows no fingers, and looks different in each.
      forceFallback: true,
      fallbackOnBody: true,
      fallbackTolerance: 4,
      delay: sorting.handle ? 0 : HELD_MS,
      delayOnTouchOnly: true,
      touchStartThreshold: 4,
      ghostClass: 'drag-place',
      dragClass: 'drag-moved',
      onStart: ({ item }) => (after = item.nextElementSibling),
      onEnd({ item, from, to, oldDraggableIndex, newDraggableIndex }) {
        from.insertBefore(item, after)
        if (oldDraggableIndex === undefined || newDraggableIndex === undefined) return
        if (from === to && oldDraggableIndex === newDraggableIndex) return
        dropped({ item, from, to, index: oldDraggableIndex, toIndex: newDraggableIndex })
      },
    })
  }
  const stop = (): void => {
    sortable?.destroy()
    sortable = null
  }
  watch(
    list,
    (element) => {
      stop()
      if (element) sortable = make(element)
    },
    { immediate: true, flush: 'post' },
  )
  onScopeDispose(stop)
}
