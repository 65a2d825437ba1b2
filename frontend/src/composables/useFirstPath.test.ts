import { expect, test } from 'vitest'

import { afterDoing, nextOf, STEPS } from './useFirstPath'

const at = (step: (typeof STEPS)[number] | '') => ({ step, session: '', entry: '', version: 0 })

test('each step is followed by the next, and the last by none', () => {
  expect(STEPS.map(nextOf)).toEqual(['look', 'compare', 'plan', 'done', 'done'])
})
test('what a step waits for leads on, and keeps what it made', () => {
  expect(afterDoing(at('write'), { what: 'write', session: 's' })).toEqual({ ...at('look'), session: 's' })
  expect(afterDoing(at('look'), { what: 'look' }).step).toBe('compare')
  expect(afterDoing({ ...at('plan'), session: 's' }, { what: 'plan', entry: 'e', version: 2 })).toEqual({
    step: 'done',
    session: 's',
    entry: 'e',
    version: 2,
  })
})
test('what another step waits for, or nobody, leads nowhere', () => {
  for (const step of ['', 'look', 'done'] as const) {
    const path = at(step)
    expect(afterDoing(path, { what: 'write', session: 's' })).toBe(path)
  }
})
