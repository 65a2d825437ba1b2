// Help on the screen that one is on: opened by its key or its button, wherever that stands.
import { useLocalStorage } from '@vueuse/core'
import { ref } from 'vue'

/** Single letters act while no field has the focus; whoever speaks to the machine turns that off. */
export const singleKeys = useLocalStorage('fine-tally/single-keys', true, {
  serializer: { read: (kept) => kept !== 'off', write: (on) => (on ? 'on' : 'off') },
})

export const helpShown = ref(false)

/** Whether something is being typed, or a menu or a dialog has the keys. */
export const typingAt = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  target.matches('input, textarea, select, [contenteditable="true"], [role="menuitem"], [role="dialog"] *')

/** The key of help: `?` while nothing is typed. */
export function helpKey(event: KeyboardEvent): void {
  if (event.key !== '?' || event.altKey || event.ctrlKey || event.metaKey || !singleKeys.value) return
  if (typingAt(event.target)) return
  event.preventDefault()
  helpShown.value = !helpShown.value
}
