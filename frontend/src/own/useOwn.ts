import { useDocumentVisibility, useEventListener, useIntervalFn } from '@vueuse/core'
import { computed, onScopeDispose, ref, shallowRef, watch, type ComputedRef, type Ref, type ShallowRef } from 'vue'

import { api } from '@/api/client'
import { Refusal } from '@/api/refusal'
import type { OwnPage, OwnSaid } from '@/api/types'
import { refusalText } from '@/words/refusal'
import { ownUnits, tellHereIn } from '@/words/units'

import { withSaid } from './asSaid'
import { newId } from '@/floor/device'

import {
  dropPage,
  dropSaid,
  forgetOwn,
  keepPage,
  keepSaid,
  markOf,
  othersKept,
  pageKept,
  saidKept,
  type OthersWaiting,
} from './kept'

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
  /** What waits on this phone for other people's links. */
  others: ShallowRef<OthersWaiting[]>
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
  const others = shallowRef<OthersWaiting[]>([])
  const refused = ref<string[]>([])
  const trouble = ref('')
  const lost = ref(false)
  /** By which token the page was opened; '' where that is not known. */
  let mark = ''
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
      if (error.status === 409) await handedOver()
      else if (error.status === 401) await over(seen.value ? 'closed' : 'nobody')
      else if (!lost.value) trouble.value = refusalText(error)
      return false
    }
  }

  /** Another link was opened on this phone meanwhile: what was said waits, and the page is theirs. */
  async function handedOver(): Promise<void> {
    await dropPage()
    seen.value = null
    waiting.value = []
    mark = ''
  }

  async function over(how: 'closed' | 'nobody'): Promise<void> {
    await forgetOwn(seen.value?.link)
    seen.value = null
    waiting.value = []
    state.value = how
  }

  /** Open the link that was brought. The page that is kept is shown meanwhile only if it is of the same link. */
  async function enter(): Promise<boolean> {
    const brought = markOf(token())
    const same = brought === ((await pageKept())?.mark ?? '')
    if (!same) seen.value = null
    try {
      await api.openOwnLink(token())
      used()
      if (!same) await dropPage()
      mark = brought
      return true
    } catch (error) {
      if (!(error instanceof Refusal)) throw error
      if (error.passing) lost.value = true
      else {
        used()
        trouble.value = refusalText(error)
        state.value = 'refused'
      }
      return error.passing && same
    }
  }

  async function look(): Promise<void> {
    await reached(async () => {
      const page = await api.ownPage(ownUnits.value)
      await keepPage(page, mark)
      seen.value = page
      state.value = 'open'
    })
  }

  watch(seen, (page) => tellHereIn(page?.units ?? null))
  onScopeDispose(() => tellHereIn(null))

  async function send(): Promise<boolean> {
    const link = seen.value?.link
    if (link === undefined) return true
    /** What the server would not take yet: it stays, and is sent again the next time. */
    const later = new Set<string>()
    const unsent = (): OwnSaid[] => waiting.value.filter((one) => !later.has(one.number))
    waiting.value = await saidKept(link)
    return reached(async () => {
      while (unsent().length) {
        for (const number of await sendPart(link, unsent().slice(0, AT_ONCE))) later.add(number)
        waiting.value = await saidKept(link)
      }
    })
  }

  /** Show what the server took before its next page arrives. */
  async function show(taken: readonly OwnSaid[]): Promise<void> {
    if (!seen.value) return
    seen.value = withSaid(seen.value, taken)
    await keepPage(seen.value, mark)
  }

  /** Send some of it; returns the numbers of what has to wait. */
  async function sendPart(link: number, part: readonly OwnSaid[]): Promise<string[]> {
    try {
      const heard = await api.say(link, [...part])
      refused.value.push(...heard.refused.map((one) => one.why))
      await show(part.filter((one) => heard.taken.includes(one.number)))
      await dropSaid([...heard.taken, ...heard.refused.map((one) => one.number)])
      const why = heard.waiting?.[0]?.why
      if (why) trouble.value = why
      return (heard.waiting ?? []).map((one) => one.number)
    } catch (error) {
      const wrong = error instanceof Refusal && (error.status === 422 || error.status === 413)
      if (!wrong) throw error
      if (part.length > 1) {
        const later: string[] = []
        for (const one of part) later.push(...(await sendPart(link, [one])))
        return later
      }
      refused.value.push(refusalText(error))
      await dropSaid(part.map((one) => one.number))
      return []
    }
  }

  async function showKept(): Promise<void> {
    if (!seen.value) {
      const kept = await pageKept()
      seen.value = kept?.page ?? null
      mark ||= kept?.mark ?? ''
    }
    if (seen.value && state.value === 'opening') state.value = 'open'
  }

  /** Send what waits, then look; where the page is not known yet, look first: only it tells whose words are meant. */
  async function exchange(): Promise<void> {
    const first = !seen.value
    if (first) await look()
    if (!seen.value) return
    const waits = (await saidKept(seen.value.link)).length > 0
    const sent = await send()
    const gone = !seen.value && state.value === 'open'
    if (gone || (sent && (waits || !first))) await look()
  }

  async function round(): Promise<void> {
    if (!token() || (await enter())) {
      await showKept()
      await exchange()
    }
    if (!seen.value && lost.value) state.value = 'alone'
    others.value = await othersKept(seen.value?.link)
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
    await keepSaid(link, said, seen.value?.name ?? '')
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
  return { state, page, trouble, lost, waiting, others, refused, say, again, ended: () => over('closed') }
}
