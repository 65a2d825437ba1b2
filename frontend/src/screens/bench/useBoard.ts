import { computed, ref, shallowRef, watch, type Ref } from 'vue'

import { api, Refusal } from '@/api/client'
import type { BoardOut, BoardProblem, SessionDoc, Settled } from '@/api/types'

const PAUSE_MS = 250

/** What was told of a text beside its session. */
export type Told = Pick<BoardOut, 'assumed' | 'unread' | 'notes' | 'names' | 'outline' | 'sessions'>
export const NOTHING: Told = { assumed: [], unread: [], notes: [], names: [], outline: [], sessions: [] }

/**
 * The words of a session: those that were typed, or, where the blocks have changed since, the written form.
 * Whatever is typed becomes the session at once.
 */
export function useBoard(
  document: Ref<SessionDoc | null>,
  squad: Ref<number>,
  replace: (document: SessionDoc, key: string) => void,
) {
  const text = ref('')
  const told = shallowRef<Told>(NOTHING)
  const problems = shallowRef<readonly BoardProblem[]>([])
  const trouble = ref('')
  /** Whether the words are the coach's own, not the written form. */
  const typed = ref(false)
  const settled = shallowRef<Settled>({})
  /** What was typed and not taken yet: it outlives a look at the blocks. */
  const draft = ref(false)
  const open = computed(() => told.value.assumed.filter((one) => !one.settled).length)
  let own: SessionDoc | null = null
  let timer = 0
  let asked = 0

  function tell(answer: BoardOut): void {
    problems.value = answer.problems
    trouble.value = ''
    if (answer.document) told.value = answer
  }

  async function write(): Promise<void> {
    if (draft.value || document.value === null || document.value === own) return
    const mine = ++asked
    if (document.value.blocks.length === 0) {
      text.value = document.value.title === 'New session' ? '' : `${document.value.title}\n`
      told.value = NOTHING
      return
    }
    try {
      const answer = await api.wordsOf(document.value, squad.value)
      if (mine !== asked || draft.value) return
      text.value = answer.text
      typed.value = answer.as_typed
      settled.value = answer.settled
      const looked = await api.readBoard(answer.text, document.value, squad.value, answer.settled)
      if (mine === asked && !draft.value) tell(looked)
    } catch (error) {
      if (!(error instanceof Refusal)) throw error
      trouble.value = 'The blocks have something wrong in them, so the board text is from before.'
    }
  }

  async function read(words: string): Promise<void> {
    const before = document.value
    const mine = ++asked
    if (before === null) return
    try {
      const answer = await api.readBoard(words, before, squad.value, settled.value)
      if (mine !== asked) return
      tell(answer)
      if (answer.document) {
        own = answer.document
        draft.value = false
        typed.value = 'wall' in answer.document
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

  function typedText(words: string): void {
    if (words === text.value) return
    text.value = words
    draft.value = true
    window.clearTimeout(timer)
    timer = window.setTimeout(() => void read(words), PAUSE_MS)
  }

  /** Take one of the readings of a place. */
  async function choose(id: string, reading: number): Promise<void> {
    settled.value = { ...settled.value, [id]: reading }
    await read(text.value)
  }
  /** Keep every place as it was read. */
  async function keepAll(): Promise<void> {
    settled.value = { ...settled.value, ...Object.fromEntries(told.value.assumed.map((one) => [one.id, one.chosen])) }
    await read(text.value)
  }
  /** Let a movement of the library be called by new words, here and in every later session. */
  async function call(key: string, words: string): Promise<void> {
    try {
      await api.callMovement(key, words, squad.value)
    } catch (error) {
      if (!(error instanceof Refusal)) throw error
      trouble.value = error.message
      return
    }
    await read(text.value)
  }
  /** Go over to the written form of what is there. */
  async function writeOut(): Promise<void> {
    if (document.value === null) return
    await settle()
    const { text: written } = await api.writeBoard(document.value, squad.value)
    text.value = written
    settled.value = {}
    await read(written)
  }
  const again = (): Promise<void> => read(text.value)

  watch(document, () => void write())
  return {
    text,
    told,
    problems,
    trouble,
    typed,
    draft,
    open,
    typedText,
    write,
    settle,
    choose,
    keepAll,
    call,
    writeOut,
    again,
  }
}
