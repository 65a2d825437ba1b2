import { describe, expect, it } from 'vitest'

import { promised } from '@/testing/promised'

import { useLatest } from './useLatest'

describe('only the newest question counts', () => {
  it('drops an answer that comes after a newer question', async () => {
    const { ask } = useLatest()
    const first = promised<string>()
    const second = promised<string>()
    const taken: string[] = []
    const both = [
      ask(
        () => first.promise,
        (one) => taken.push(one),
      ),
      ask(
        () => second.promise,
        (one) => taken.push(one),
      ),
    ]
    second.answer('second')
    first.answer('first')
    await Promise.all(both)
    expect(taken).toEqual(['second'])
  })

  it('drops a fault of an overtaken question and tells that of the newest', async () => {
    const { ask } = useLatest()
    const first = promised<string>()
    const second = promised<string>()
    const overtaken = ask(
      () => first.promise,
      () => undefined,
    )
    const newest = ask(
      () => second.promise,
      () => undefined,
    )
    first.refuse(new Error('first'))
    second.refuse(new Error('second'))
    await expect(overtaken).resolves.toBeUndefined()
    await expect(newest).rejects.toThrow('second')
  })
})
