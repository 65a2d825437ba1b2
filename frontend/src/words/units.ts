// Masses and distances as this person reads and types them: documents, and all that the server tells, have kilograms and
// metres. What the units are is the core's (words/measures.json, written by ./tally describe); no figure is worked out here.
import { useLocalStorage } from '@vueuse/core'
import { computed, ref } from 'vue'

import type { Me } from '@/api/types'

import MEASURES from './measures.json'

export type Units = Me['units']
/** What a document keeps: kilograms, metres. */
export type Measured = 'kg' | 'm'

/** As the account has it. Kept here: a floor without a network has it, too. */
const kept = useLocalStorage<Units>('units', 'metric')
/** Of this page alone, whoever is signed in in other windows: a screen on the wall, the page of one's own link. */
const here = ref<Units | null>(null)
export const units = computed(() => here.value ?? kept.value)
export function keepUnits(wanted: Units): void {
  kept.value = wanted
}
export function tellHereIn(wanted: Units | null): void {
  here.value = wanted
}
/** What was chosen on this device for the page of one's own link; null: as the account has it. */
export const ownUnits = useLocalStorage<Units | null>('own-units', null)

/** What a browser kept may be anything. */
const choicesOf = (of: Measured, system: Units | null | undefined): (typeof MEASURES)[Units][Measured] =>
  MEASURES[system === 'imperial' ? system : 'metric'][of]
const smallest = (of: Measured, system: Units) => choicesOf(of, system)[0] ?? { sign: of, each: 1 }
const HUNDREDTHS = 100
/** A gram, a millimetre: what was typed comes back as it was. */
const THOUSANDTHS = 1000

/** What a load was typed in, by the unit that it says; nothing for one that says none. */
export const typedIn = (unit: string | null | undefined): Units | undefined =>
  unit === 'lb' ? 'imperial' : unit === 'kg' ? 'metric' : undefined

/** The sign of what is typed: kg, lb, m, yd. */
export const signOf = (of: Measured, system: Units = units.value): string => smallest(of, system).sign

/** How much of what the document keeps one of these is, exactly. */
export const eachOf = (of: Measured): number => smallest(of, units.value).each

/** A mass or a distance of the document as it is typed; what is not converted is not rounded. */
export function inUnits(value: number, of: Measured, system: Units = units.value): number {
  const { each } = smallest(of, system)
  return each === 1 ? value : Math.round((value / each) * HUNDREDTHS) / HUNDREDTHS
}

/** What was typed, as the document keeps it. */
export function fromUnits(typed: number, of: Measured, system: Units = units.value): number {
  const { each } = smallest(of, system)
  return each === 1 ? typed : Math.round(typed * each * THOUSANDTHS) / THOUSANDTHS
}

/** A mass or a distance to be read, and its sign: in the largest unit that there is one whole of. */
export function told(value: number, of: Measured, system: Units = units.value): [number, string] {
  const found = [...choicesOf(of, system)].reverse().find((one) => value >= one.each) ?? smallest(of, system)
  return [found.each === 1 ? value : Math.round((value / found.each) * HUNDREDTHS) / HUNDREDTHS, found.sign]
}
