import { ref } from 'vue'

import { Refusal } from '@/api/refusal'
import { refusalText } from '@/words/refusal'

/** Work that the server may refuse: `trouble` is why it did last, '' while nothing stands in the way. */
export function useAttempt() {
  const trouble = ref('')
  /** Whether it was refused because what was to be changed is not what was seen of it. */
  const stale = ref(false)

  function clear(): void {
    trouble.value = ''
    stale.value = false
  }
  /** Do it and tell whether it was done. Faults that are no refusal go on to whoever called. */
  async function attempt(work: () => Promise<unknown>): Promise<boolean> {
    clear()
    try {
      await work()
      return true
    } catch (error) {
      if (!(error instanceof Refusal)) throw error
      trouble.value = refusalText(error)
      stale.value = error.stale
      return false
    }
  }
  return { trouble, stale, clear, attempt }
}
