// Days as people read them. Days are local dates of the squad, without a time zone: 2026-12-07.
const DAY_MS = 86_400_000
const at = (day: string): Date => new Date(`${day}T00:00:00Z`)
/** Writes days; made when the first is written, as loading what the browser knows of languages takes long. */
function say(options: Intl.DateTimeFormatOptions): (day: string) => string {
  let made: Intl.DateTimeFormat | undefined
  return (day) => (made ??= new Intl.DateTimeFormat('en-GB', { ...options, timeZone: 'UTC' })).format(at(day))
}

/** Mon 7 */
export const shortDay = say({ weekday: 'short', day: 'numeric' })
/** 7 Dec */
export const dayOfMonth = say({ day: 'numeric', month: 'short' })
/** Monday 7 December */
export const longDay = say({ weekday: 'long', day: 'numeric', month: 'long' })
/** 7 December 2026 */
export const fullDate = say({ day: 'numeric', month: 'long', year: 'numeric' })
/** The day so many days on. */
export const daysOn = (day: string, days: number): string =>
  new Date(at(day).getTime() + days * DAY_MS).toISOString().slice(0, 10)
/** Today where the reader is. */
export function today(): string {
  const now = new Date()
  return new Date(now.getTime() - now.getTimezoneOffset() * 60_000).toISOString().slice(0, 10)
}
/** The day of a moment, where the reader is. */
export const dateOf = (moment: Date): string =>
  new Date(moment.getTime() - moment.getTimezoneOffset() * 60_000).toISOString().slice(0, 10)
/** 18:30, of a moment, where the reader is. */
export const clockTime = (at: string): string =>
  new Date(at).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })
/** 7 December 2026, 18:30, of a moment, where the reader is. */
export const moment = (at: string): string => `${fullDate(dateOf(new Date(at)))}, ${clockTime(at)}`
const weekday = say({ weekday: 'long' })
const A_MONDAY = '2024-01-01'
/** Monday to Sunday. */
export const dayNames = (): string[] => [...Array(7).keys()].map((n) => weekday(daysOn(A_MONDAY, n)))
