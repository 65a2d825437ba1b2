import type { FloorPerson } from '@/api/types'
import type { RunEvent } from '@/timer/events'

/** Who is here now, in the order of stations: all but those who went away, or never came. */
export function presentNow(people: readonly FloorPerson[], events: readonly RunEvent[]): FloorPerson[] {
  const gone = new Map<string, boolean>()
  for (const event of [...events].sort((a, b) => a.t - b.t))
    if (event.do === 'here' || event.do === 'away') gone.set(event.person, event.do === 'away')
  return people.filter((one) => !gone.get(one.person))
}

/** What somebody does otherwise, by step: the option taken last. */
export function optionsTaken(events: readonly RunEvent[], person: string): Map<string, string> {
  const taken = new Map<string, string>()
  for (const event of events) if (event.do === 'option' && event.person === person) taken.set(event.step, event.label)
  return taken
}

/** Whether somebody was taken out hurt. */
export function wasHurt(events: readonly RunEvent[], person: string): boolean {
  return events.some((event) => event.do === 'away' && event.why === 'hurt' && event.person === person)
}
