import { ref, shallowRef, type Ref, type ShallowRef } from 'vue'

import { api } from '@/api/client'
import { Refusal } from '@/api/refusal'
import type { FloorSheet } from '@/api/types'
import { account } from '@/composables/useAccount'

import { keepSheet, sheetKept } from './kept'
import { runClock } from './runClock'

export interface ReadSheet {
  sheet: ShallowRef<FloorSheet | null>
  trouble: ShallowRef<Refusal | null>
  /** Whether it is what this device kept, as there is no network. */
  offline: Ref<boolean>
  /** Once it is there, or cannot be had. */
  read: Promise<void>
}

/** The sheet of an entry, from the server or, without a network, from this device. */
export function useFloorSheet(entry: string): ReadSheet {
  const sheet = shallowRef<FloorSheet | null>(null)
  const trouble = shallowRef<Refusal | null>(null)
  const offline = ref(false)
  const who = account.value?.name ?? ''

  async function ask(): Promise<void> {
    try {
      const asked = Date.now()
      const told = await api.floorSheet(entry)
      runClock.measure(told.now, asked)
      await keepSheet(who, told)
      sheet.value = told
    } catch (error) {
      if (!(error instanceof Refusal)) throw error
      sheet.value = (error.passing && (await sheetKept(entry, who))) || null
      offline.value = sheet.value !== null
      if (!sheet.value) trouble.value = error
    }
  }
  return { sheet, trouble, offline, read: ask() }
}
