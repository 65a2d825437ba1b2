// The first steps: write, look, compare, put on a day. On the squad that one is in, left at any moment; what they made can
// be taken away at the end.
import { createSharedComposable, useLocalStorage } from '@vueuse/core'
import { computed } from 'vue'
import { useRouter, type RouteLocationRaw } from 'vue-router'

import { api } from '@/api/client'
import { KEYS } from '@/api/keys'
import { askAgain } from '@/api/query'

export const STEPS = ['write', 'look', 'compare', 'plan', 'done'] as const
export type PathStep = (typeof STEPS)[number]

interface Path {
  step: PathStep | ''
  session: string
  entry: string
  /** Of the entry, as it was when it was planned. */
  version: number
}
const NOT_ON_IT: Path = { step: '', session: '', entry: '', version: 0 }

/** What was done that a step waits for. */
export type Did =
  { what: 'write'; session: string } | { what: 'plan'; entry: string; version: number } | { what: 'look' | 'compare' }

export const nextOf = (step: PathStep): PathStep => STEPS[Math.min(STEPS.indexOf(step) + 1, STEPS.length - 1)] ?? 'done'

/** The path after something was done: on to the next step where it is what this one waits for. */
export function afterDoing(path: Path, did: Did): Path {
  if (path.step !== did.what) return path
  const session = 'session' in did ? { session: did.session } : {}
  const entry = 'entry' in did ? { entry: did.entry, version: did.version } : {}
  return { ...path, ...session, ...entry, step: nextOf(path.step) }
}

export const useFirstPath = createSharedComposable(() => {
  const router = useRouter()
  const path = useLocalStorage<Path>('fine-tally/first-path', NOT_ON_IT, { mergeDefaults: true })
  const step = computed(() => path.value.step)
  async function begin(): Promise<void> {
    path.value = { ...NOT_ON_IT, step: 'write' }
    await router.push('/')
  }
  function did(what: Did): void {
    const after = afterDoing(path.value, what)
    if (after !== path.value) path.value = after
  }
  const next = (): void => {
    if (path.value.step) path.value = { ...path.value, step: nextOf(path.value.step) }
  }
  const leave = (): void => {
    path.value = NOT_ON_IT
  }
  /** Where a step is done. */
  const place = computed<RouteLocationRaw>(() => {
    const { step: now, session } = path.value
    if (now === 'compare') return { name: 'side-by-side', query: session ? { session } : {} }
    if ((now === 'look' || now === 'plan') && session) return { name: 'bench', params: { id: session } }
    return now === 'done' ? { name: 'week' } : '/'
  })
  /** What the steps made goes: off the plan, and out of the list of sessions. Throws the Refusal where it may not. */
  async function takeAway(): Promise<void> {
    const { session, entry, version } = path.value
    if (entry) await api.dropEntry(entry, version)
    if (session) await api.archiveSession(session)
    leave()
    await Promise.all([askAgain(KEYS.week()), askAgain(KEYS.sessions())])
    await router.push('/')
  }
  return { step, place, begin, did, next, leave, takeAway, path }
})
