import { computed, shallowRef } from 'vue'

import type { SessionDoc } from '@/api/types'

import { applyEdits, replacing, type Edit } from './edits'

interface Done {
  undo: Edit[]
  redo: Edit[]
  key: string
  at: number
}

/** Typing into one place within this time is one step of undo. */
const ONE_STEP_MS = 1500
const MAX_STEPS = 500

/** A session document with undo and redo over every edit. */
export function useDocument() {
  const document = shallowRef<SessionDoc | null>(null)
  const past = shallowRef<Done[]>([])
  const future = shallowRef<Done[]>([])

  function load(loaded: SessionDoc): void {
    document.value = loaded
    past.value = []
    future.value = []
  }

  function edit(edits: Edit[], key = ''): void {
    if (document.value === null) return
    const before = document.value
    const { document: made, inverse } = applyEdits(before, edits)
    document.value = made
    const last = past.value.at(-1)
    const now = Date.now()
    if (last && key !== '' && last.key === key && now - last.at < ONE_STEP_MS) {
      past.value = [...past.value.slice(0, -1), { undo: last.undo, redo: edits, key, at: now }]
    } else {
      past.value = [...past.value, { undo: inverse, redo: edits, key, at: now }].slice(-MAX_STEPS)
    }
    future.value = []
  }

  function step(from: typeof past, to: typeof past, which: 'undo' | 'redo'): void {
    const last = from.value.at(-1)
    if (!last || document.value === null) return
    document.value = applyEdits(document.value, last[which]).document
    from.value = from.value.slice(0, -1)
    to.value = [...to.value, { ...last, key: '' }]
  }

  /** Go back to an earlier state as one more step that can be undone. */
  function replace(wanted: SessionDoc, key = ''): void {
    if (document.value === null || wanted === document.value) return
    edit(replacing(document.value, wanted), key)
  }

  return {
    document,
    replace,
    load,
    edit,
    undo: () => step(past, future, 'undo'),
    redo: () => step(future, past, 'redo'),
    canUndo: computed(() => past.value.length > 0),
    canRedo: computed(() => future.value.length > 0),
  }
}
