import { expect, test } from 'vitest'

import { setsText, typedSets } from './scores'

test.each([
  ['60×5 60×5 65x3', '60×5 60×5 65×3'],
  ['60 x 5; 62,5*4', '60×5 62.5×4'],
  ['12 10 8', '12 10 8'],
  ['', ''],
])('sets typed as %j are kept as %j', (typed, kept) => {
  expect(setsText(typedSets(typed) ?? [{ reps: -1 }])).toBe(kept)
})

test.each(['60×', '5 and 5', '60×5×5', 'x5', '99999×5', '-3'])('%j is not sets', (typed) => {
  expect(typedSets(typed)).toBeNull()
})
