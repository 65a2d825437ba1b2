// Blocks and steps of the Bench, dragged by their grips.
import type { Ref } from 'vue'

import type { PathPart } from '@/composables/edits'
import { useSorting } from '@/composables/useSorting'

import type { PlacedBlock } from './bench'
import { moved, type Apply } from './useMoves'

/** Blocks stand one under another, whatever section they are of: they are put where the block stands that was there. */
export function useBlockSorting(
  list: Ref<HTMLElement | null>,
  blocks: () => readonly PlacedBlock[],
  edit: Apply,
): void {
  const sorting = { group: 'blocks', draggable: '.block', handle: '.block-grip', ordered: true }
  useSorting(list, sorting, ({ index, toIndex }) => {
    const from = blocks()[index]
    const onto = blocks()[toIndex]
    if (from && onto) edit([moved(from, onto, toIndex > index)])
  })
}

/** Steps go from list to list: another block's, or another station's. Lists carry their place as data. */
export function useStepSorting(list: Ref<HTMLElement | null>, edit: Apply): void {
  const sorting = { group: 'steps', draggable: '.step', handle: '.grip', ordered: true }
  useSorting(list, sorting, ({ from, to, index, toIndex }) => {
    const source = JSON.parse(from.dataset.list ?? '[]') as PathPart[]
    const target = JSON.parse(to.dataset.list ?? '[]') as PathPart[]
    edit([moved({ list: source, index }, { list: target, index: toIndex }, false)])
  })
}
