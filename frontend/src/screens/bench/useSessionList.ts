import { computed, ref, shallowRef } from 'vue'
import { useRouter } from 'vue-router'

import { api } from '@/api/client'
import type { SessionItem } from '@/api/types'
import { squadNow } from '@/composables/useAccount'
import { useAttempt } from '@/composables/useAttempt'

type Figure = 'total_s' | 'work_s' | 'density' | 'rpe' | 'load'
/** What a list can be sorted by: when it was last changed, a figure, or the share of a pattern's row. */
export type SortBy = 'changed' | 'title' | Figure | `share:${string}`

/** The sessions of one's squads: searched, tagged, sorted, put away and brought back. */
export function useSessionList() {
  const router = useRouter()
  const items = shallowRef<readonly SessionItem[] | null>(null)
  const { trouble, stale, attempt } = useAttempt()
  const archived = ref(false)
  const words = ref('')
  const tag = ref('')
  const sortBy = ref<SortBy>('changed')
  const downward = ref(true)

  const fetchList = () =>
    attempt(async () => {
      items.value = await api.sessions(archived.value)
    })

  const tags = computed(() => [...new Set((items.value ?? []).flatMap((item) => item.tags))].sort())
  const rows = computed(() => [...new Set((items.value ?? []).flatMap((item) => Object.keys(item.figures.patterns)))].sort())
  function keyOf(item: SessionItem): number | string {
    const by = sortBy.value
    if (by === 'changed') return item.updated_at
    if (by === 'title') return item.title.toLowerCase()
    if (by.startsWith('share:')) return item.figures.patterns[by.slice(6)] ?? 0
    return item.figures[by as Figure] ?? -1
  }
  const shown = computed(() => {
    const asked = words.value.toLowerCase().split(/\s+/).filter(Boolean)
    const found = (items.value ?? []).filter(
      (item) =>
        (!tag.value || item.tags.includes(tag.value)) &&
        asked.every((word) => [item.title, ...item.tags].join(' ').toLowerCase().includes(word)),
    )
    const way = downward.value ? -1 : 1
    return [...found].sort((a, b) => {
      const [x, y] = [keyOf(a), keyOf(b)]
      return (x < y ? -1 : x > y ? 1 : 0) * way
    })
  })
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
  return { items, trouble, clash, archived, words, tag, tags, rows, sortBy, downward, shown, sort, fetchList, duplicate, archive, take }
}
