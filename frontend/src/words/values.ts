// Values of the document as they are typed: 30, 1:30, 1:10:00, 10-15, "5, 10, 15". What does not read as one stays as typed:
// the server says what is allowed there.
import { fromUnits, inUnits, type Measured, type Units } from './units'

export type Typed = unknown

const NUMBER = /^-?\d+(?:\.\d+)?$/
const CLOCK = /^(?:(\d+):(?=[0-5]\d:))?(\d+):([0-5]\d)$/
const FAILURE = /^(?:to failure|max)(?:\s*\(?(?:plan\s*)?(\d+)\)?)?$/i
const RANGE = /^(\d+(?:\.\d+)?)\s*(?:-|–|to)\s*(\d+(?:\.\d+)?)$/

function single(text: string): Typed {
  if (NUMBER.test(text)) return Number(text)
  const time = CLOCK.exec(text)
  if (time) return Number(time[1] ?? 0) * 3600 + Number(time[2]) * 60 + Number(time[3])
  return text
}

/** Read what was typed; nothing at all is undefined (the key is unset). */
export function readValue(typed: string): Typed {
  const text = typed.trim()
  if (text === '') return undefined
  const failing = FAILURE.exec(text)
  if (failing) return failing[1] ? { to_failure: true, plan: Number(failing[1]) } : { to_failure: true }
  const range = RANGE.exec(text)
  if (range) return { low: Number(range[1]), high: Number(range[2]) }
  if (text.includes(',')) return text.split(',').map((item) => single(item.trim()))
  return single(text)
}

/** Write a value of the document for editing. */
export function writeValue(value: Typed): string {
  if (value === undefined || value === null) return ''
  if (Array.isArray(value)) return value.map(writeValue).join(', ')
  if (typeof value === 'object') {
    const range = value as {
      low?: unknown
      high?: unknown
      plan?: unknown
      from?: { block?: string }
      to_failure?: boolean
    }
    if (range.to_failure) return range.plan === undefined ? 'to failure' : `to failure (${String(range.plan)})`
    if (range.from) return `score of ${range.from.block ?? '?'}`
    return `${String(range.low)}-${String(range.high)}`
  }
  return String(value)
}

/** Every number of a value otherwise: one, those of a list, the ends of a range. */
function each(value: Typed, by: (number: number) => number): Typed {
  if (typeof value === 'number') return by(value)
  if (Array.isArray(value)) return value.map((one) => each(one, by))
  if (value === null || typeof value !== 'object' || !('low' in value)) return value
  return Object.fromEntries(Object.entries(value).map(([name, one]) => [name, each(one, by)]))
}
/** A value of the document in this person's units (or those of `system`), and back. */
export const valueInUnits = (value: Typed, of: Measured, system?: Units): Typed =>
  each(value, (one) => inUnits(one, of, system))
export const valueFromUnits = (value: Typed, of: Measured, system?: Units): Typed =>
  each(value, (one) => fromUnits(one, of, system))

/** A number (or a range, end by end) some steps further; seconds go by fives. Nothing below 0; undefined for the rest. */
export function nudged(value: Typed, by: number, seconds: boolean): Typed {
  const one = (number: number): number => Math.max(0, number + by * (seconds ? 5 : 1))
  if (value === undefined || value === null) return one(0)
  if (typeof value === 'number') return one(value)
  if (
    typeof value === 'object' &&
    !Array.isArray(value) &&
    ('low' in value || ('to_failure' in value && 'plan' in value))
  ) {
    const moved = Object.entries(value).map(([name, end]) => [name, typeof end === 'number' ? one(end) : end])
    return Object.fromEntries(moved)
  }
  return undefined
}
