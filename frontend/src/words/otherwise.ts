// What is said of those who do a step otherwise: the option, for whom, and to whoever may know why.
import type { Otherwise } from '@/api/types'
import { OTHERWISE as say } from '@/words/texts/parts'

/** Those of each step, by its path, in the order of the steps. */
export function byStep(all: readonly Otherwise[]): Map<string, Otherwise[]> {
  const found = new Map<string, Otherwise[]>()
  for (const one of all) found.set(one.path, [...(found.get(one.path) ?? []), one])
  return found
}

/** knee; left knee; burpee */
const whyText = (one: NonNullable<Otherwise['why']>[number], nameOf: (movement: string) => string): string =>
  [one.side === 'both' ? '' : one.side, one.joint || nameOf(one.movement)].filter(Boolean).join(' ')

export interface OtherwiseLine {
  says: string
  /** Why, where it may be known. */
  why: string
  /** Nothing here spares what is to be spared. */
  open: boolean
}

/** One line for each option that is taken, and for each person whom nothing spares. */
export function otherwiseLines(all: readonly Otherwise[], nameOf: (movement: string) => string): OtherwiseLine[] {
  const by = new Map<string, Otherwise[]>()
  for (const one of all) {
    const key = `${one.option ?? ''}/${one.eased}/${one.option === null ? one.person : ''}`
    by.set(key, [...(by.get(key) ?? []), one])
  }
  return [...by.values()].map((some) => {
    const [first] = some
    const names = some.map((one) => one.name).join(', ')
    const why = [...new Set(some.flatMap((one) => (one.why ?? []).map((each) => whyText(each, nameOf))))].join(', ')
    if (!first || first.option === null) {
      const instead = (first?.instead ?? []).map(nameOf).join(', ')
      return { says: instead ? say.nothingSparesTry(names, instead) : say.nothingSpares(names), why, open: true }
    }
    return { says: first.eased ? say.eases(names, first.option) : say.takes(names, first.option), why, open: false }
  })
}
