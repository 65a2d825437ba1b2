import { computed, onScopeDispose, ref, shallowRef, watch } from 'vue'
import { useRouter } from 'vue-router'

import { api } from '@/api/client'
import type { SessionItem } from '@/api/types'
import { squadNow } from '@/composables/useAccount'
import { useAttempt } from '@/composables/useAttempt'
import { useLatest } from '@/composables/useLatest'

const TYPING_MS = 200

type Figure = 'total_s' | 'work_s' | 'density' | 'rpe' | 'load'
/** What a list can be sorted by: when it was last changed, a figure, or the share of a pattern's row. */
export type SortBy = 'changed' | 'title' | Figure | `share:${string}`

/** The sessions of one's squads: searched, tagged, sorted, put away and brought back. */
export function useSessionList() {
  const router = useRouter()
  const items = shallowRef<readonly SessionItem[] | null>(null)
  const total = ref(0)
  const size = ref(1)
  const page = ref(1)
  const tags = ref<readonly string[]>([])
  const rows = ref<readonly string[]>([])
  const { trouble, stale, attempt } = useAttempt()
  const archived = ref(false)
  const words = ref('')
  const tag = ref('')
  const sortBy = ref<SortBy>('changed')
  const downward = ref(true)
  const { ask } = useLatest()

  const fetchList = () =>
    attempt(() =>
      ask(
        () =>
          api.sessions({
            archived: archived.value,
            words: words.value.trim(),
            tag: tag.value,
            by: sortBy.value,
            down: downward.value,
            page: page.value,
          }),
        (answer) => {
          items.value = answer.items
          total.value = answer.total
          size.value = answer.size
          tags.value = answer.tags
          rows.value = answer.rows
        },
      ),
    )
  const asked = computed(() => !!(words.value.trim() || tag.value))
  /** Anything else is asked for from its first page on. */
  const turn = (to: number): void => {
    page.value = to
    void fetchList()
  }
  watch([archived, tag, sortBy, downward], () => turn(1))
  let typing = 0
  watch(words, () => {
    window.clearTimeout(typing)
    typing = window.setTimeout(() => turn(1), TYPING_MS)
  })
  onScopeDispose(() => window.clearTimeout(typing))

  function sort(by: SortBy): void {
    if (sortBy.value === by) downward.value = !downward.value
    else {
      sortBy.value = by
      downward.value = by !== 'title'
    }
  }

  const open = (id: string) => router.push({ name: 'bench', params: { id } })
  const duplicate = (id: string) =>
    attempt(async () => {
      await api.duplicateSession(id)
      await fetchList()
    })
  const archive = (id: string) =>
    attempt(async () => {
      await api.archiveSession(id, !archived.value)
      await fetchList()
    })
  /** Movements that the squad has defined otherwise: replaced only once somebody said so. */
  const clash = shallowRef<(() => Promise<boolean>) | null>(null)
  async function define(kind: 'csv' | 'json', text: string): Promise<void> {
    await attempt(() => api.importMovements(kind, text, squadNow.value))
    if (!stale.value) return
    clash.value = () => {
      clash.value = null
      return attempt(() => api.importMovements(kind, text, squadNow.value, true))
    }
  }
  /** Take files in: session files, board text, tables or lists of movements. Each is taken whole or not at all. */
  async function take(files: FileList | null): Promise<void> {
    for (const file of files ?? []) {
      const text = await file.text()
      const name = file.name.toLowerCase()
      const squad = squadNow.value
      if (name.endsWith('.csv')) await define('csv', text)
      else if (name.endsWith('.txt')) await attempt(async () => open((await api.importSession('txt', text, squad)).id))
      else if (text.trimStart().startsWith('[')) await define('json', text)
      else await attempt(async () => open((await api.importSession('json', text, squad)).id))
      if (trouble.value) {
        trouble.value = `${file.name}: ${trouble.value}`
        return
      }
    }
  }
  return {
    items,
    asked,
    total,
    size,
    page,
    turn,
    trouble,
    clash,
    archived,
    words,
    tag,
    tags,
    rows,
    sortBy,
    downward,
    sort,
    fetchList,
    duplicate,
    archive,
    take,
  }
}
