import { ref, shallowRef, watch, type Ref } from 'vue'

import { api, Refusal } from '@/api/client'
import type { BoardProblem, SessionDoc, Stub } from '@/api/types'

const PAUSE_MS = 250

/** The board text of a document: written from it, read into it. A text with problems is kept as it is typed. */
export function useBoard(
  document: Ref<SessionDoc | null>,
  squad: Ref<number>,
  replace: (document: SessionDoc, key: string) => void,
) {
  const text = ref('')
  const problems = shallowRef<readonly BoardProblem[]>([])
  const stubs = shallowRef<readonly Stub[]>([])
  const trouble = ref('')
  /** What was typed and not taken yet: it outlives a look at the blocks. */
  const draft = ref(false)
  let own: SessionDoc | null = null
  let timer = 0
  let asked = 0

  async function write(): Promise<void> {
    if (draft.value || document.value === null || document.value === own) return
    const mine = ++asked
    if (document.value.blocks.length === 0) {
      text.value = `${document.value.title}\n`
      return
    }
    try {
      const answer = await api.writeBoard(document.value, squad.value)
      if (mine !== asked || draft.value) return
      text.value = answer.text
      trouble.value = ''
      problems.value = []
    } catch (error) {
      if (!(error instanceof Refusal)) throw error
      trouble.value = 'The blocks have something wrong in them, so the board text is from before.'
    }
  }

  async function read(typed: string): Promise<void> {
    const before = document.value
    const mine = ++asked
    if (before === null) return
    try {
      const answer = await api.readBoard(typed, before, squad.value)
      if (mine !== asked) return
      problems.value = answer.problems
      stubs.value = answer.stubs
      trouble.value = ''
      if (answer.document) {
        own = answer.document
        draft.value = false
        replace(answer.document, 'board text')
        own = document.value
      }
    } catch (error) {
      if (!(error instanceof Refusal)) throw error
      if (mine === asked) trouble.value = error.message
    }
  }

  /** Take what was typed last without waiting, and wait for the answer to it. */
  async function settle(): Promise<void> {
    if (!draft.value) return
    window.clearTimeout(timer)
    await read(text.value)
  }

  function typedText(typed: string): void {
    if (typed === text.value) return
    text.value = typed
    draft.value = true
    window.clearTimeout(timer)
    timer = window.setTimeout(() => void read(typed), PAUSE_MS)
  }

  watch(document, () => void write())
  return { text, problems, stubs, trouble, draft, typedText, write, settle }
}
