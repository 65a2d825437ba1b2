// The Bench's own keys. Single letters act only while no field has the focus, and can be turned off.
import { useEventListener, useLocalStorage } from '@vueuse/core'

export const singleKeys = useLocalStorage('fine-tally/single-keys', true, {
  serializer: { read: (kept) => kept !== 'off', write: (on) => (on ? 'on' : 'off') },
})

export const SHORTCUTS = [
  { keys: 'a', does: 'add a block' },
  { keys: 'b', does: 'blocks or board text' },
  { keys: 'f', does: 'fit to the minutes there are' },
  { keys: 'p', does: 'put it on a day' },
  { keys: 'c', does: 'the card' },
  { keys: 'o', does: 'other formats, side by side' },
  { keys: 'v', does: 'versions' },
  { keys: 's', does: 'to the stave' },
  { keys: '?', does: 'these keys' },
  { keys: 'Ctrl Z', does: 'undo' },
  { keys: 'Ctrl Shift Z', does: 'redo' },
  { keys: '↑ ↓', does: 'in a number: try more or less; Shift for five' },
  { keys: 'Enter / Esc', does: 'keep what was tried / give it back' },
  { keys: 'arrows on ⋮⋮ or a code', does: 'move a block or a movement' },
  { keys: 'Delete on a code', does: 'take the movement out' },
  { keys: '← →', does: 'on the stave: window by window' },
  { keys: '+ − 0', does: 'on the stave: closer, further, all' },
  { keys: 'Shift ← →', does: 'on the stave: along' },
] as const

export type Acts = Record<'a' | 'b' | 'f' | 'p' | 'c' | 'o' | 'v' | 's' | '?' | 'undo' | 'redo', () => void>

function actOf(event: KeyboardEvent): keyof Acts | null {
  const target = event.target instanceof HTMLElement ? event.target : null
  const typing =
    target?.matches('input, textarea, select, [contenteditable="true"], [role="menuitem"], [role="dialog"] *') ?? false
  if (typing || event.altKey) return null
  const key = event.key.toLowerCase()
  if (event.ctrlKey || event.metaKey) {
    if (key === 'z') return event.shiftKey ? 'redo' : 'undo'
    return key === 'y' ? 'redo' : null
  }
  if (!singleKeys.value) return null
  return (['a', 'b', 'f', 'p', 'c', 'o', 'v', 's', '?'] as const).find((one) => one === key) ?? null
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
