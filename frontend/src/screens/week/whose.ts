import type { Group, PersonOut } from '@/api/types'
import { WEEK_HEADER as say } from '@/words/texts/week'

/** Whose week or season can be looked at: the squad's, each group's, each person's (see askedFor in useWeek). */
export const whoseChoices = (squad: string, groups: readonly Group[], people: readonly PersonOut[]) => [
  { value: '', label: say.asIfAllCame(squad) },
  ...groups.map((one) => ({ value: `group:${one.id}`, label: say.groupCalled(one.name) })),
  ...people.map((one) => ({ value: `person:${one.id}`, label: one.name })),
]
