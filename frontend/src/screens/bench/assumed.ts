import type { Assumed } from '@/api/types'

/** Whether nobody has chosen a reading of this place, nor a habit has. */
export const isOpen = (one: Assumed): boolean => !one.settled && !one.habit
