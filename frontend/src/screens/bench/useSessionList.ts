import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { refDebounced } from '@vueuse/core'
import { computed, ref, shallowRef, watch } from 'vue'
import { useRouter } from 'vue-router'

import { api } from '@/api/client'
import { KEYS } from '@/api/keys'
import { askAgain, queryClient, troubleOf } from '@/api/query'
import type { SessionsAsked } from '@/api/types'
import { textOf } from '@/composables/textOf'
import { squadNow } from '@/composables/useAccount'
import { useAttempt } from '@/composables/useAttempt'
import type { Undoable } from '@/composables/undoable'
import { useMovements } from '@/composables/useMovements'
import { SESSION_LIST as say } from '@/words/texts/sessions'

const TYPING_MS = 200

type Figure = 'total_s' | 'work_s' | 'density' | 'rpe' | 'load'
/** What a list can be sorted by: when it was last changed, a figure, or the share of a pattern's row. */
export type SortBy = 'changed' | 'title' | Figure | `share:${string}`

/** The sessions of one's squads: searched, tagged, sorted, put away and brought back. */
export function useSessionList() {
  const router = useRouter()
  const { trouble: refused, stale, clear, attempt } = useAttempt()
  const archived = ref(false)
  const words = ref('')
  const tag = ref('')
  const sortBy = ref<SortBy>('changed')
  const downward = ref(true)
  const page = ref(1)
  const wanted = refDebounced(words, TYPING_MS)
  // Anything else is asked for from its first page on.
  watch([archived, tag, sortBy, downward, wanted], () => (page.value = 1), { flush: 'sync' })

  const { data, error, isPlaceholderData } = useQuery(
    {
      queryKey: computed(() => [
        ...KEYS.sessions(),
        {
          archived: archived.value,
          words: wanted.value.trim(),
          tag: tag.value,
          by: sortBy.value,
          down: downward.value,
          page: page.value,
        } satisfies SessionsAsked,
      ]),
      queryFn: ({ queryKey, signal }) => api.sessions(queryKey[1] as SessionsAsked, signal),
      placeholderData: keepPreviousData,
    },
    queryClient,
  )
  const items = computed(() => data.value?.items ?? null)
  const asked = computed(() => !!(wanted.value.trim() || tag.value))
  const notRead = troubleOf(error)
  watch([archived, tag, sortBy, downward, wanted, page], clear)
  const trouble = computed(() => refused.value || notRead.value)

  function sort(by: SortBy): void {
    if (sortBy.value === by) downward.value = !downward.value
    else {
      sortBy.value = by
      downward.value = by !== 'title'
    }
  }

  const open = (id: string) => router.push({ name: 'bench', params: { id } })
  const changed = (work: () => Promise<unknown>) =>
    attempt(async () => {
      await work()
      await askAgain(KEYS.sessions())
    })
  const duplicate = (id: string) => changed(() => api.duplicateSession(id))
  /** What was archived or restored last. */
  const undoable = shallowRef<Undoable | null>(null)
  async function archive(id: string): Promise<void> {
    const to = !archived.value
    const title = items.value?.find((one) => one.id === id)?.title ?? ''
    undoable.value = null
    if (await changed(() => api.archiveSession(id, to)))
      undoable.value = {
        done: to ? say.archivedNow(title) : say.restoredNow(title),
        undo: () => api.archiveSession(id, !to),
      }
  }
  async function undone(): Promise<void> {
    undoable.value = null
    await askAgain(KEYS.sessions())
  }

  const { refresh } = useMovements()
  const define = (kind: 'csv' | 'json', text: string, replace = false) =>
    attempt(async () => {
      await api.importMovements(kind, text, squadNow.value, { replace })
      void refresh()
    })
  /** Movements that the squad has defined otherwise: replaced only once somebody said so. */
  const clash = shallowRef<(() => Promise<boolean>) | null>(null)
  async function defineOrAsk(kind: 'csv' | 'json', text: string): Promise<void> {
    await define(kind, text)
    if (!stale.value) return
    clash.value = () => {
      clash.value = null
      return define(kind, text, true)
    }
  }
  /** Take files in: session files, board text, tables or lists of movements. Each is taken whole or not at all. */
  async function take(files: readonly File[]): Promise<void> {
    for (const file of files) {
      const text = await textOf(file)
      const name = file.name.toLowerCase()
      const squad = squadNow.value
      if (name.endsWith('.csv')) await defineOrAsk('csv', text)
      else if (name.endsWith('.txt')) await attempt(async () => open((await api.importSession('txt', text, squad)).id))
      else if (text.trimStart().startsWith('[')) await defineOrAsk('json', text)
      else await attempt(async () => open((await api.importSession('json', text, squad)).id))
      if (refused.value) {
        refused.value = `${file.name}: ${refused.value}`
        return
      }
    }
    await askAgain(KEYS.sessions())
  }
  return {
    items,
    asked,
    busy: isPlaceholderData,
    total: computed(() => data.value?.total ?? 0),
    size: computed(() => data.value?.size ?? 1),
    page,
    trouble,
    clash,
    archived,
    words,
    tag,
    tags: computed(() => data.value?.tags ?? []),
    rows: computed(() => data.value?.rows ?? []),
    sortBy,
    downward,
    sort,
    duplicate,
    archive,
    undoable,
    undone,
    take,
  }
}
