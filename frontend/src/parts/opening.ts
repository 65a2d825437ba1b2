// What an opened figure needs of the screen it stands on: what to ask with, when to ask again, what to point at.
import { inject, type InjectionKey, type Ref } from 'vue'

import type { DocumentIn } from '@/api/types'

export interface Opening {
  /** New figures mean new arithmetic. */
  figures: Ref<unknown>
  question: () => DocumentIn | null
  light: (what: { block?: number; movement?: string } | null) => void
}

export const OPENING: InjectionKey<Opening> = Symbol('opening')

export function useOpening(): Opening {
  const opening = inject(OPENING)
  if (!opening) throw new Error('an opened figure outside a screen with figures')
  return opening
}
