// What is compared, as it stands in the address.
import type { LocationQuery, LocationQueryRaw } from 'vue-router'

import type { Source } from './useComparison'

const words = (value: LocationQuery[string] | undefined): string[] =>
  String(value ?? '')
    .split(',')
    .filter(Boolean)
const text = (value: LocationQuery[string] | undefined): string | undefined => String(value ?? '') || undefined

/** The source that an address names; what it does not name is left open. */
export const sourceOf = (query: LocationQuery): Source => ({
  session: text(query.session),
  block: text(query.block),
  movements: words(query.movements),
  text: text(query.text),
  minutes: Number(query.minutes) > 0 ? Number(query.minutes) : undefined,
  matter: text(query.matter),
  sessions: words(query.sessions),
})

/** The address of a source. */
export const queryOf = (from: Source): LocationQueryRaw => ({
  ...(from.session ? { session: from.session } : {}),
  ...(from.movements?.length ? { movements: from.movements.join(',') } : {}),
  ...(from.text ? { text: from.text, minutes: String(from.minutes ?? ''), matter: from.matter } : {}),
  ...(from.sessions?.length ? { sessions: from.sessions.join(',') } : {}),
})

/** Whether there is anything to compare. */
export const isStarted = (source: Source): boolean =>
  Boolean(source.text || source.session || source.movements?.length || source.sessions?.length)
