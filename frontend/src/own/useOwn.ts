import { useDocumentVisibility, useEventListener, useIntervalFn } from '@vueuse/core'
import { computed, onScopeDispose, ref, shallowRef, watch, type ComputedRef, type Ref, type ShallowRef } from 'vue'

import { api } from '@/api/client'
import { Refusal } from '@/api/refusal'
import type { OwnPage, OwnSaid } from '@/api/types'
import { refusalText } from '@/words/refusal'
import { ownUnits, tellHereIn } from '@/words/units'

import { withSaid } from './asSaid'
import { newId } from '@/floor/device'

import { dropSaid, forgetOwn, keepPage, keepSaid, pageKept, saidKept } from './kept'

/** As much as fits into one small request, also with long notes. */
const AT_ONCE = 20
/** Between tries while something waits. Short, as not every browser tells that the network is back. */
const AGAIN_MS = 5_000

/**
 * `opening`: it is not known yet; `open`; `closed`: the link is over here; `refused`: it was not let in; `nobody`: no link
 * was ever opened; `alone`: no network, and nothing is kept.
 */
export type OwnState = 'opening' | 'open' | 'closed' | 'refused' | 'nobody' | 'alone'

/** What is said, without its number and time, which it gets here. */
export type OwnWord = OwnSaid extends infer S ? (S extends { what: string } ? Omit<S, 'number' | 'at'> : never) : never

export interface OwnLink {
  state: Ref<OwnState>
  page: ComputedRef<OwnPage | null>
  trouble: Ref<string>
  /** Whether the last try found no network. */
  lost: Ref<boolean>
  waiting: ShallowRef<OwnSaid[]>
  /** What was not taken, in the server's words. */
  refused: Ref<string[]>
  say: (word: OwnWord) => Promise<void>
  again: () => Promise<void>
  ended: () => Promise<void>
}

/** The holder's own link on this phone. `token`: what a link that was just opened brought, taken once. */
export function useOwn(token: () => string, used: () => void): OwnLink {
  const state = ref<OwnState>('opening')
  const seen = shallowRef<OwnPage | null>(null)
  const waiting = shallowRef<OwnSaid[]>([])
  const refused = ref<string[]>([])
  const trouble = ref('')
  const lost = ref(false)
  let busy = false
  /** Something was said, or came, while it was busy: it looks once more. */
  let onceMore = false

  /** Do what needs a network; tells whether it went. Without one nothing is wrong: it is done later. */
  async function reached(work: () => Promise<void>): Promise<boolean> {
    try {
      await work()
      lost.value = false
      return true
    } catch (error) {
      if (!(error instanceof Refusal)) throw error
      lost.value = error.passing || error.status === 408
      if (error.status === 401) await over(seen.value ? 'closed' : 'nobody')
      else if (!lost.value) trouble.value = refusalText(error)
      return false
    }
  }

  async function over(how: 'closed' | 'nobody'): Promise<void> {
    await forgetOwn()
    seen.value = null
    waiting.value = []
    state.value = how
  }

  async function enter(): Promise<boolean> {
    try {
      await api.openOwnLink(token())
      used()
      return true
    } catch (error) {
      if (!(error instanceof Refusal)) throw error
      if (error.passing) lost.value = true
      else {
        used()
        trouble.value = refusalText(error)
        state.value = 'refused'
      }
      return error.passing
    }
  }

  async function look(): Promise<void> {
    await reached(async () => {
      const page = await api.ownPage(ownUnits.value)
      await keepPage(page)
      seen.value = page
      state.value = 'open'
    })
  }

  watch(seen, (page) => tellHereIn(page?.units ?? null))
  onScopeDispose(() => tellHereIn(null))

  async function send(): Promise<boolean> {
    const link = seen.value?.link
    if (link === undefined) return true
    waiting.value = await saidKept(link)
    const sent = await reached(async () => {
      while (waiting.value.length) {
        await sendPart(waiting.value.slice(0, AT_ONCE))
        waiting.value = await saidKept(link)
      }
    })
    return sent
  }

  /** Show what the server took before its next page arrives. */
  async function show(taken: readonly OwnSaid[]): Promise<void> {
    if (!seen.value) return
    seen.value = withSaid(seen.value, taken)
    await keepPage(seen.value)
  }

  async function sendPart(part: readonly OwnSaid[]): Promise<void> {
    try {
      const heard = await api.say([...part])
      refused.value.push(...heard.refused.map((one) => one.why))
      await show(part.filter((one) => heard.taken.includes(one.number)))
      await dropSaid([...heard.taken, ...heard.refused.map((one) => one.number)])
    } catch (error) {
      const wrong = error instanceof Refusal && (error.status === 422 || error.status === 413)
      if (!wrong) throw error
      if (part.length > 1) {
        for (const one of part) await sendPart([one])
        return
      }
      refused.value.push(refusalText(error))
      await dropSaid(part.map((one) => one.number))
    }
  }

  async function round(): Promise<void> {
    if (token() && !(await enter())) return
    seen.value ??= (await pageKept()) ?? null
    if (seen.value && state.value === 'opening') state.value = 'open'
    if (await send()) await look()
    if (!seen.value && lost.value) state.value = 'alone'
  }

  async function again(): Promise<void> {
    onceMore = busy
    if (busy) return
    busy = true
    trouble.value = ''
    try {
      do {
        onceMore = false
        await round()
      } while (onceMore)
    } finally {
      busy = false
    }
  }

  async function say(word: OwnWord): Promise<void> {
    const link = seen.value?.link
    if (link === undefined) return
    const said = { ...word, number: newId(), at: new Date().toISOString() } as OwnSaid
    await keepSaid(link, said)
    waiting.value = [...waiting.value, said]
    await again()
  }

  const visible = useDocumentVisibility()
  watch(visible, (now) => now === 'visible' && void again())
  useEventListener(window, 'online', () => void again())
  useIntervalFn(() => {
    const open = state.value === 'open' || state.value === 'alone'
    if (open && visible.value === 'visible' && (waiting.value.length > 0 || lost.value)) void again()
  }, AGAIN_MS)
  watch(token, (now) => now && void again())
  void again()

  const page = computed(() => (seen.value ? withSaid(seen.value, waiting.value) : null))
  return { state, page, trouble, lost, waiting, refused, say, again, ended: () => over('closed') }
}
