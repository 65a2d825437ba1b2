import { onScopeDispose, ref, shallowRef, watch, type Ref } from 'vue'

import { api, Refusal, UNREACHABLE } from '@/api/client'
import type { ProblemItem, RevisionItem, SessionDoc, SessionOut } from '@/api/types'

export type SaveState = 'saved' | 'waiting' | 'saving' | 'refused' | 'conflict' | 'unreachable' | 'full' | 'signed-out'

/** States in which saving is tried again by itself. */
export const TRIED_AGAIN: readonly SaveState[] = ['unreachable', 'full', 'signed-out']
/** Statuses: nobody signed in, the body took too long on its way, the server's disk is full. */
const NOBODY = 401
const TOO_SLOW = 408
const FULL = 507

/** What a refusal of a save means for what is tried next. */
function stateOf(status: number): SaveState {
  if (status === FULL) return 'full'
  if (status === UNREACHABLE || status === TOO_SLOW || status >= 500) return 'unreachable'
  return status === NOBODY ? 'signed-out' : 'refused'
}

const PAUSE_MS = 700
const RETRY_MS = 4000

/** Saves a document a moment after each change, one save at a time; tells of refusals and conflicts. Waits while `held`. */
export function useAutosave(
  document: Ref<SessionDoc | null>,
  held: Ref<boolean>,
  squad: Ref<number>,
  created: (session: SessionOut) => void,
) {
  const state = ref<SaveState>('saved')
  const problems = shallowRef<readonly ProblemItem[]>([])
  const conflict = shallowRef<{ kept: RevisionItem; theirs: SessionOut } | null>(null)
  const tab = crypto.randomUUID()
  let id = ''
  let base = ''
  let saved: SessionDoc | null = null
  let timer = 0
  let flying = false
  let flight = Promise.resolve()

  /** Start from a session as it is kept; from null for one that is kept with its first save. */
  function begin(session: SessionOut | null): void {
    id = session?.id ?? ''
    base = session?.etag ?? ''
    saved = session?.document ?? null
    conflict.value = null
    problems.value = []
    state.value = 'saved'
  }

  function later(pause: number): void {
    window.clearTimeout(timer)
    timer = window.setTimeout(() => void save(), pause)
  }

  /** Save what stands now, after the save that is under way; tells whether it is kept then. */
  async function save(): Promise<boolean> {
    window.clearTimeout(timer)
    flight = flight.then(saveNow, saveNow)
    await flight
    return state.value === 'saved' && document.value === saved
  }

  /** What was sent is kept; what was changed since then waits. */
  const standing = (sent: SessionDoc): SaveState => (document.value === sent ? 'saved' : 'waiting')

  async function saveNow(): Promise<void> {
    const sent = document.value
    if (held.value || sent === null || sent === saved) return
    flying = true
    state.value = 'saving'
    try {
      if (id === '') {
        const made = await api.createSession(sent, squad.value)
        id = made.id
        base = made.etag
        saved = sent
        problems.value = []
        state.value = standing(sent)
        created(made)
        return
      }
      const answer = await api.saveSession(id, base, tab, sent)
      problems.value = []
      if (answer.outcome === 'conflict') {
        conflict.value = { kept: answer.revision, theirs: answer.session }
        state.value = 'conflict'
        saved = sent
      } else {
        base = answer.etag
        saved = sent
        state.value = standing(sent)
      }
    } catch (error) {
      if (!(error instanceof Refusal)) throw error
      problems.value = error.problems
      state.value = stateOf(error.status)
      if (TRIED_AGAIN.includes(state.value)) later(RETRY_MS)
      else saved = sent
    } finally {
      flying = false
      if (document.value !== sent && !TRIED_AGAIN.includes(state.value)) later(PAUSE_MS)
    }
  }

  /** After a conflict: put this tab's state on top of the other's. Both stay among the versions. */
  function putOnTop(): void {
    if (conflict.value === null) return
    base = conflict.value.theirs.etag
    conflict.value = null
    saved = null
    void save()
  }

  watch([document, held], ([changed]) => {
    if (changed === null || held.value) return
    if (changed === saved) {
      if (state.value === 'waiting') state.value = 'saved'
      return
    }
    if (!flying) state.value = 'waiting'
    later(PAUSE_MS)
  })

  /** Whether something stands here that is kept nowhere else. */
  const unkept = (): boolean => state.value !== 'saved' && state.value !== 'conflict'
  onScopeDispose(() => void save())
  return { state, unkept, problems, conflict, begin, save, putOnTop }
}
