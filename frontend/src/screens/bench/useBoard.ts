import { useTimeoutFn } from '@vueuse/core'
import { computed, ref, shallowRef, watch, type Ref } from 'vue'

import { api } from '@/api/client'
import { newest } from '@/api/query'
import { Refusal } from '@/api/refusal'
import type { BoardOut, BoardProblem, SessionDoc, Settled } from '@/api/types'
import { BOARD_TROUBLE } from '@/words/texts/board'
import { sentenceOf } from '@/words/refusal'

import { isOpen } from './assumed'
import { UNNAMED } from './useOpening'

const PAUSE_MS = 250
/** Characters of a text that a session keeps (docs/session-file.md). */
const MOST_KEPT = 20_000
/** Writing and reading the board's words are one kind of question: whatever is asked next counts. */
const KIND = ['board']

/** What was told of a text beside its session. */
export type Told = Pick<BoardOut, 'assumed' | 'unread' | 'unused' | 'notes' | 'names' | 'outline' | 'sessions'>
export const NOTHING: Told = { assumed: [], unread: [], unused: [], notes: [], names: [], outline: [], sessions: [] }

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
  /** Whether what was typed last could not be read. */
  const failed = ref(false)
  const open = computed(() => told.value.assumed.filter(isOpen).length)
  let own: SessionDoc | null = null

  function tell(answer: BoardOut): void {
    problems.value = answer.problems
    trouble.value = ''
    failed.value = !answer.document
    if (answer.document) told.value = answer
  }

  async function write(): Promise<void> {
    if (draft.value || document.value === null || document.value === own) return
    if (document.value.blocks.length === 0) {
      text.value = document.value.title === UNNAMED ? '' : `${document.value.title}\n`
      told.value = NOTHING
      return
    }
    const of = document.value
    try {
      const found = await newest(KIND, async (signal) => {
        const written = await api.wordsOf(of, squad.value, signal)
        if (written.unread) return { written, looked: null }
        return { written, looked: await api.readBoard(written.text, of, squad.value, written.settled, signal) }
      })
      if (!found || draft.value) return
      text.value = found.written.text
      typed.value = found.written.as_typed
      settled.value = found.written.settled
      if (found.looked) tell(found.looked)
      else {
        draft.value = true
        await read(found.written.text)
      }
    } catch (error) {
      if (!(error instanceof Refusal)) throw error
      trouble.value = BOARD_TROUBLE.fromBefore
    }
  }

  async function read(words: string): Promise<void> {
    const before = document.value
    if (before === null) return
    try {
      const answer = await newest(KIND, (signal) => api.readBoard(words, before, squad.value, settled.value, signal))
      if (!answer) return
      tell(answer)
      if (!answer.document) keepUnread(words, before)
      else {
        own = answer.document
        draft.value = false
        typed.value = 'wall' in answer.document
        replace(answer.document, 'board text')
        own = document.value
      }
    } catch (error) {
      if (!(error instanceof Refusal)) throw error
      trouble.value = sentenceOf(error)
      keepUnread(words, before)
    }
  }
  /** Keep words that could not be read with the session: a reload shows them again, and reads them again. */
  function keepUnread(words: string, before: SessionDoc): void {
    draft.value = failed.value = true
    if (words.length > MOST_KEPT || (before.wall?.unread && before.wall.text === words)) return
    replace({ ...before, wall: { text: words, settled: settled.value, unread: true } }, 'board text')
  }
  /** A moment after the last key, what was typed is read. */
  const later = useTimeoutFn(() => void read(text.value), PAUSE_MS, { immediate: false })

  /** Take what was typed last without waiting, and wait for the answer to it. */
  async function settle(): Promise<void> {
    if (!draft.value) return
    later.stop()
    await read(text.value)
  }

  function typedText(words: string): void {
    if (words === text.value) return
    text.value = words
    draft.value = true
    later.start()
  }

  /** Take one of the readings of a place. */
  async function choose(id: string, reading: number): Promise<void> {
    const rule = told.value.assumed.find((one) => one.id === id)?.rule
    // What is chosen twice becomes the squad's habit; who may not plan, or has no network, teaches none.
    if (rule) api.choseReading(rule, reading, squad.value).catch(() => undefined)
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
      trouble.value = sentenceOf(error)
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
    failed,
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
export type Board = ReturnType<typeof useBoard>
