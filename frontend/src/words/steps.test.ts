import { expect, test } from 'vitest'

import { stepText } from './steps'

const nameOf = (key: string): string => key.replaceAll('-', ' ')

test.each([
  [{ movement: 'push-up' }, 'push up'],
  [{ movement: 'bent-row', reps: 8, sides: 'each', load: { kg: 12, count: 2 } }, '8 bent row 2 × 12 kg, each side'],
  [{ movement: 'jog', metres: 200 }, '200 m jog'],
  [{ movement: 'hold-plank', seconds: 30 }, '30 s hold plank'],
  [{ movement: 'bench-press', reps: 5, load: { pct_1rm: 80 } }, '5 bench press 80 %'],
])('%j is told as %s', (step, text) => {
  expect(stepText(step, nameOf, (side) => `${side} side`)).toBe(text)
})
