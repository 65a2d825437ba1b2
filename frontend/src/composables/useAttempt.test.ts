import { expect, test } from 'vitest'

import { Refusal } from '@/api/client'

import { useAttempt } from './useAttempt'

const REFUSED = new Refusal(403, 'rights', 'This account may not do that.')

test('a refusal is told until the next attempt, any other fault goes on', async () => {
  const { trouble, attempt } = useAttempt()
  expect([await attempt(() => Promise.reject(REFUSED)), trouble.value]).toEqual([
    false,
    'This account may not do that.',
  ])
  await expect(attempt(() => Promise.reject(new Error('ours')))).rejects.toThrow('ours')
  expect([await attempt(() => Promise.resolve()), trouble.value]).toEqual([true, ''])
})
