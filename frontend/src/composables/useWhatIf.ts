import { ref, shallowRef, type Ref } from 'vue'

import type { SessionDoc } from '@/api/types'

import type { Edit } from './edits'

/** What if: numbers are nudged on trial, held against how things stood; kept or given back as one. */
export function useWhatIf(
  document: Ref<SessionDoc | null>,
  edit: (edits: Edit[], key?: string) => void,
  restore: (document: SessionDoc) => void,
) {
  /** The document as it stood before the trial; null outside of one. */
  const base = shallowRef<SessionDoc | null>(null)
  const trying = ref(false)

  function nudge(edits: Edit[], key: string): void {
    if (!trying.value) {
      base.value = document.value
      trying.value = true
    }
    edit(edits, `what-if/${key}`)
  }
  function keep(): void {
    trying.value = false
    base.value = null
  }
  function giveBack(): void {
    if (base.value !== null) restore(base.value)
    keep()
  }
  return { base, trying, nudge, keep, giveBack }
}
