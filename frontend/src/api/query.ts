// What comes from the server is asked for, kept and dropped by TanStack Query. The open document is no query: it is
// edited here, and saved (composables/useDocument, useAutosave).
import { isCancelledError, QueryCache, QueryClient, type QueryKey } from '@tanstack/vue-query'
import { computed, toValue, type ComputedRef, type MaybeRefOrGetter } from 'vue'

import { report } from '@/faults'
import { refusalText } from '@/words/refusal'

import { Refusal } from './refusal'

const MOST_RETRIES = 3
const FIRST_RETRY_MS = 300

/** Kept for ever: tables that only another release, or a change made here, makes others. */
export const LASTING = { staleTime: Infinity, gcTime: Infinity } as const

export const queryClient = new QueryClient({
  queryCache: new QueryCache({
    // A refusal is told where it was asked for; anything else is a fault of the program.
    onError: (error) => {
      if (!(error instanceof Refusal) && !isCancelledError(error)) report(error)
    },
  }),
  defaultOptions: {
    queries: {
      // A hall without a network still reaches a server on the same machine.
      networkMode: 'always',
      retry: (failures, error) => error instanceof Refusal && error.passing && failures < MOST_RETRIES,
      retryDelay: (failures) => FIRST_RETRY_MS * 2 ** failures,
      refetchOnWindowFocus: false,
      refetchOnReconnect: false,
      // Answers are shown as they come, never changed here: comparing or watching each part of them costs and gives nothing.
      structuralSharing: false,
      shallow: true,
    },
  },
})

/** Ask again for what a change made out of date. What is still under way was asked before the change: it is called off. */
export async function askAgain(queryKey: QueryKey): Promise<void> {
  await queryClient.cancelQueries({ queryKey })
  await queryClient.invalidateQueries({ queryKey })
}

/** Keep what a change answered, for whoever shows it; an answer from before the change cannot come on top of it. */
export async function keep(queryKey: QueryKey, data: unknown): Promise<void> {
  await queryClient.cancelQueries({ queryKey })
  queryClient.setQueryData(queryKey, data)
}

/** Why a query was refused, in words; '' while nothing stands in the way. */
export const troubleOf = (error: MaybeRefOrGetter<Error | null>): ComputedRef<string> =>
  computed(() => {
    const now = toValue(error)
    return now instanceof Refusal ? refusalText(now) : ''
  })

let questions = 0

/**
 * Ask for something of which only the newest counts: a question of the same kind that is still under way is called off,
 * and whoever asked it gets undefined. Throws the Refusal of the newest.
 */
export async function newest<T>(kind: QueryKey, ask: (signal: AbortSignal) => Promise<T>): Promise<T | undefined> {
  // Called off at once, before this one is asked; a key of its own, or the two would be taken for one question.
  void queryClient.cancelQueries({ queryKey: kind }, { revert: false })
  const queryKey = [...kind, ++questions]
  try {
    return await queryClient.fetchQuery({ queryKey, queryFn: ({ signal }) => ask(signal), gcTime: 0 })
  } catch (error) {
    if (isCancelledError(error)) return undefined
    throw error
  }
}
