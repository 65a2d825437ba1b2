import { computed, shallowRef } from 'vue'

import { api } from '@/api/client'
import type { MovementDef, MovementsOut } from '@/api/types'

const tables = shallowRef<MovementsOut | null>(null)
let asking: Promise<void> | null = null

/** The movement library and the rows of the stave, asked for once. */
export function useMovements() {
  asking ??= api.movements().then((answer) => {
    tables.value = answer
  })
  const byKey = computed(() => new Map((tables.value?.movements ?? []).map((m) => [m.key, m])))
  const rowOf = computed(() => {
    const rows = tables.value?.rows ?? []
    return new Map(rows.flatMap((row) => row.members.map((member) => [member, row] as const)))
  })

  /** The short code of the row in which a movement does most. */
  function codeOf(movement: MovementDef | undefined): string {
    const [first] = Object.entries(movement?.patterns ?? {}).sort((a, b) => b[1] - a[1])
    return first ? (rowOf.value.get(first[0])?.code ?? '–') : '–'
  }

  function nameOf(key: string): string {
    return byKey.value.get(key)?.name ?? key
  }

  return { byKey, codeOf, nameOf }
}
