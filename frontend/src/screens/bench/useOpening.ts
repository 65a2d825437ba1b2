import { ref, watch, type Ref } from 'vue'

import { api } from '@/api/client'
import { Refusal } from '@/api/refusal'
import type { SessionDoc, SessionOut } from '@/api/types'
import { turnToSquad } from '@/composables/squadAddress'
import { squadNow } from '@/composables/useAccount'
import { sentenceOf } from '@/words/refusal'

/** What stands in the address for a session that is not kept yet. */
export const NEW = 'new'

/** What a session is called until it has a name of its own. */
export const UNNAMED = 'New session'

const EMPTY = { fine_tally: 1, title: UNNAMED, blocks: [] } as unknown as SessionDoc

/**
 * Opens the session of the address on the Bench: `opened` gets it as it is kept, or null with an empty one for a new
 * session. The document is edited from there on, so it is asked for once and is no query.
 */
export function useOpening(
  id: Ref<string>,
  /** Set to the session's squad, or to one's own for a new session. */
  squad: Ref<number>,
  /** The id of a session that was just kept for the first time: it is on the Bench already. */
  made: () => string,
  opened: (session: SessionOut | null, document: SessionDoc) => void,
) {
  const missing = ref('')
  let now = ''

  async function open(wanted: string): Promise<void> {
    if (wanted === now) return
    missing.value = ''
    if (wanted === NEW) {
      squad.value = squadNow.value
      now = wanted
      opened(null, EMPTY)
      return
    }
    try {
      const session = await api.session(wanted)
      if (wanted !== id.value) return
      // Of another squad: all begins anew in that one.
      if (turnToSquad(session.squad)) return
      now = wanted
      squad.value = session.squad
      opened(session, session.document)
    } catch (error) {
      if (!(error instanceof Refusal)) throw error
      if (wanted === id.value) missing.value = sentenceOf(error)
    }
  }
  watch(
    id,
    (wanted) => {
      if (wanted === made()) now = wanted
      else void open(wanted)
    },
    { immediate: true },
  )
  return { missing }
}
