import { computed, shallowRef } from 'vue'

import { api } from '@/api/client'
import type { Format, PersonOut, Shape } from '@/api/types'

const formats = shallowRef<readonly Format[]>([])
const poundKg = shallowRef<number | null>(null)
let asking: Promise<void> | null = null

/** The table of named formats, asked for once. */
export function useFormats() {
  asking ??= api.formats().then((answer) => {
    formats.value = answer.formats
    poundKg.value = answer.pound_kg
  })
  const byKey = computed(() => new Map(formats.value.map((one) => [one.key, one])))

  /** Formats whose name or trade word holds every word typed, or whose numbers do ("20 10"). */
  function search(typed: string): Format[] {
    const words = typed
      .toLowerCase()
      .split(/[\s/:,]+/)
      .filter(Boolean)
    const text = (one: Format): string => [one.name, one.key, ...one.trade].join(' ').toLowerCase()
    // What is called just so comes first; otherwise the table's own order, the narrower before the wider.
    const exact = (one: Format): number =>
      [one.name, ...one.trade].some((name) => name.toLowerCase() === typed.trim().toLowerCase()) ? 0 : 1
    return formats.value
      .filter((one) => words.every((word) => text(one).includes(word)))
      .sort((a, b) => exact(a) - exact(b))
  }
  return { formats, byKey, poundKg, search, ready: asking }
}

const people = shallowRef<readonly PersonOut[]>([])
let peopleOf = 0

/** The people of a squad; nobody for those who may not see them. */
export function usePeople() {
  async function fetchPeople(squad: number): Promise<void> {
    if (squad === peopleOf) return
    peopleOf = squad
    people.value = await api.people(squad).catch(() => [])
  }
  return { people, fetchPeople }
}

const shapes = shallowRef<readonly Shape[]>([])

/** The squad's own shapes; asked for when they are about to be offered. */
export function useShapes() {
  async function fetchShapes(squad: number): Promise<void> {
    shapes.value = await api.shapes(squad).catch(() => [])
  }
  return { shapes, fetchShapes }
}
