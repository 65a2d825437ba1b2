import dayjs from 'dayjs'
import british from 'dayjs/locale/en-gb'
import english from 'element-plus/es/locale/lang/en'
import { computed } from 'vue'

import { account, squadNow } from './useAccount'

/** Monday is 0 where squads are kept, 1 where calendars are drawn. */
const DAYS = 7

/** The language of pickers, with weeks that begin as the squad's do. */
export function useWeekStart() {
  return computed(() => {
    const start = account.value?.squads.find((one) => one.id === squadNow.value)?.week_start ?? 0
    const name = `en-from-${start}`
    dayjs.locale({ ...british, name, weekStart: (start + 1) % DAYS }, undefined, true)
    return { ...english, name }
  })
}
