import { describe, expect, it } from 'vitest'

import type { MovementDef } from '@/api/types'

import { definitionOf, formOf, keyOfName } from './movementForm'

const KNOWN: Record<string, string> = { 'push-up': 'push-up', 'squat-jump': 'squat jump' }
const names = {
  nameOf: (key: string) => KNOWN[key] ?? key,
  keyOf: (typed: string) => Object.keys(KNOWN).find((key) => key === typed || KNOWN[key] === typed),
}
const VAULT: MovementDef = {
  key: 'gate-vault',
  name: 'gate vault',
  aliases: ['vault', 'over the gate'],
  patterns: { jump: 0.7, 'push-level': 0.3 },
  muscles: { triceps: 1 },
  pace_s: 4,
  met: 7.5,
  landings: 1,
  landing_grade: 'high',
  skilled: true,
  contains: [{ movement: 'push-up', reps: 2 }],
  harder: ['squat-jump'],
}

describe('a definition in a form', () => {
  it('comes back as it was, with what the form has no field for', () => {
    expect(definitionOf(formOf(VAULT, names), VAULT, 'gate-vault', names)).toEqual({ definition: VAULT, unknown: [] })
  })
  it('says only what was filled in', () => {
    const form = { ...formOf(null, names), name: 'Gate run', weights: [{ pattern: 'travel', share: 100 }] }
    const { definition } = definitionOf(form, null, keyOfName(form.name), names)
    expect(definition).toEqual({ key: 'gate-run', name: 'Gate run', patterns: { travel: 1 } })
  })
  it('takes away what was emptied, and names what nobody knows', () => {
    const form = { ...formOf(VAULT, names), pace_s: null, easier: 'push-up; hop', contains: '3 x push-up; 2 hops' }
    const { definition, unknown } = definitionOf(form, VAULT, 'gate-vault', names)
    expect('pace_s' in definition).toBe(false)
    expect(definition.easier).toEqual(['push-up'])
    expect(definition.contains).toEqual([{ movement: 'push-up', reps: 3 }])
    expect(unknown).toEqual(['2 hops'.slice(2), 'hop'])
  })
})
