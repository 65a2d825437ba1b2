import dayjs from 'dayjs'
import british from 'dayjs/locale/en-gb'
import english from 'element-plus/es/locale/lang/en'
import { computed } from 'vue'

import { account, squadNow } from './useAccount'

const DAYS = 7
const nameOf = (start: number): string => `en-from-${start}`
// One for each day that a week may begin on. Monday is 0 where squads are kept, 1 where calendars are drawn.
for (let start = 0; start < DAYS; start += 1)
  dayjs.locale({ ...british, name: nameOf(start), weekStart: (start + 1) % DAYS }, undefined, true)

/** The language of pickers, with weeks that begin as the squad's do. */
export function useWeekStart() {
  return computed(() => {
    const start = account.value?.squads.find((one) => one.id === squadNow.value)?.week_start ?? 0
    return { ...english, name: nameOf(start) }
  })
}
