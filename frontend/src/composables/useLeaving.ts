import { useEventListener } from '@vueuse/core'
import { ref } from 'vue'
import { onBeforeRouteLeave } from 'vue-router'

/**
 * Asks before a screen is left with something on it that is kept nowhere. `settle` keeps what can be kept and tells
 * what cannot, '' for nothing; `unkept` tells at once, for a window that is closed and waits for nobody.
 */
export function useLeaving(settle: () => Promise<string>, unkept: () => boolean) {
  /** What would be lost, while the question stands; '' while that is being found out, null when nobody is leaving. */
  const losing = ref<string | null>(null)
  let decide: (leave: boolean) => void = () => undefined

  async function leaving(): Promise<boolean> {
    // Who asks to leave once more has another place in mind: the question before is answered by it.
    decide(false)
    losing.value = ''
    const lost = await settle()
    if (lost === '') return true
    losing.value = lost
    return new Promise((answer) => {
      decide = (leave) => {
        losing.value = null
        answer(leave)
      }
    })
  }
  onBeforeRouteLeave(leaving)

  function guard(event: BeforeUnloadEvent): void {
    if (unkept()) event.preventDefault()
  }
  useEventListener(window, 'beforeunload', guard)
  return { losing, stay: () => decide(false), leave: () => decide(true) }
}
