// The Bench's own keys. Single letters act only while no field has the focus, and can be turned off.
import { useEventListener } from '@vueuse/core'

import { singleKeys, typingAt } from '@/composables/useHelp'

export type Acts = Record<'a' | 'b' | 'f' | 'p' | 'c' | 'o' | 'v' | 's' | 'undo' | 'redo', () => void>

function actOf(event: KeyboardEvent): keyof Acts | null {
  if (typingAt(event.target) || event.altKey) return null
  const key = event.key.toLowerCase()
  if (event.ctrlKey || event.metaKey) {
    if (key === 'z') return event.shiftKey ? 'redo' : 'undo'
    return key === 'y' ? 'redo' : null
  }
  if (!singleKeys.value) return null
  return (['a', 'b', 'f', 'p', 'c', 'o', 'v', 's'] as const).find((one) => one === key) ?? null
}

/** Listens while the screen is there. */
export function useShortcuts(acts: Acts): void {
  function keys(event: KeyboardEvent): void {
    const act = actOf(event)
    if (act === null) return
    event.preventDefault()
    acts[act]()
  }
  useEventListener('keydown', keys)
}
