import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { effectScope, nextTick, ref, type EffectScope } from 'vue'

import { api, Refusal } from '@/api/client'
import type { CompareIn, ComparisonOut, SessionComparison, SessionOut } from '@/api/types'
import { promised } from '@/testing/promised'

import { useComparison, type Source } from './useComparison'

const DOCUMENT = { fine_tally: 1, title: 'Ridge', blocks: [] }
const column = (key: string) => ({ key })
const compared = (...keys: string[]) =>
  ({
    comparison: {
      columns: keys.map(column),
      shown: keys.length,
      frontier: [0],
      pick: {},
      held_reps: {},
      source: [0],
      movements: [],
    },
    holding: { 'strict-20-10': null },
    read: null,
  }) as unknown as ComparisonOut

let scope: EffectScope
const compare = vi.spyOn(api, 'compare')
const whole = vi.spyOn(api, 'compareSessions')
beforeEach(() => {
  scope = effectScope()
  compare.mockReset().mockResolvedValue(compared('plan', 'ladder', 'pyramid'))
  whole
    .mockReset()
    .mockResolvedValue({ comparison: { columns: [], differences: [] } } as unknown as { comparison: SessionComparison })
  vi.spyOn(api, 'session').mockResolvedValue({ document: DOCUMENT, squad: 3, title: 'Ridge' } as unknown as SessionOut)
})
afterEach(() => scope.stop())

function comparing(start: Source) {
  const source = ref(start)
  const tools = scope.run(() => useComparison(source))
  if (!tools) throw new Error('no scope')
  return { source, ...tools }
}
const settle = async (): Promise<void> => {
  for (let turn = 0; turn < 6; turn += 1) await new Promise((done) => setTimeout(done, 0))
}
const bodies = (): CompareIn[] => compare.mock.calls.map(([body]) => body)

test('a block of a session is compared once, with formats of the server’s choice', async () => {
  const { answer, shown } = comparing({ session: 'one', block: 'b3' })
  await settle()
  expect(bodies()).toHaveLength(1)
  expect(bodies()[0]).toMatchObject({ document: DOCUMENT, squad: 3, source: ['b3'], formats: null, hold: 'total' })
  expect(answer.value?.columns).toHaveLength(3)
  expect(shown.value.map((one) => one.key)).toEqual(['plan', 'ladder', 'pyramid'])
})

test('every change of what is held or wished asks anew', async () => {
  const { hold, wishes } = comparing({ session: 'one', block: 'b3' })
  await settle()
  hold.value = 'work'
  await settle()
  wishes.value = [{ key: 'even-sides', hard: true } as never]
  await settle()
  expect(bodies().map((one) => [one.hold, one.wishes?.length])).toEqual([
    ['total', 0],
    ['work', 0],
    ['work', 1],
  ])
})

test('fresh movements need no session, and are compared once', async () => {
  comparing({ movements: ['swing', 'push-up'] })
  await settle()
  expect(bodies()).toHaveLength(1)
  expect(bodies()[0]).toMatchObject({ movements: ['swing', 'push-up'] })
  expect(bodies()[0]).not.toHaveProperty('document')
})

test('whole sessions go through a door of their own', async () => {
  const { answer } = comparing({ sessions: ['one', 'two'] })
  await settle()
  expect([compare.mock.calls.length, whole.mock.calls.length]).toEqual([0, 1])
  expect(answer.value?.differences).toEqual([])
})

test('an answer to an older question is dropped', async () => {
  const slow = promised<ComparisonOut>()
  compare.mockReturnValueOnce(slow.promise)
  const { hold, answer } = comparing({ session: 'one', block: 'b3' })
  await settle()
  hold.value = 'load'
  await settle()
  slow.answer(compared('plan'))
  await settle()
  expect(answer.value?.columns).toHaveLength(3)
})

test('a refusal says where, what is allowed, and shows no figures of before', async () => {
  const { hold, answer, trouble, busy } = comparing({ session: 'one', block: 'b3' })
  await settle()
  compare.mockRejectedValueOnce(
    new Refusal(422, 'compare', 'no', [{ path: 'target', found: '0', allowed: 'above 0', code: 'number' }]),
  )
  hold.value = 'reps'
  await settle()
  expect([trouble.value, answer.value, busy.value]).toEqual(['target: found 0; allowed: above 0', null, false])
})

test('another source begins afresh', async () => {
  const { source, formats, target } = comparing({ session: 'one', block: 'b3' })
  await settle()
  target.value = 600
  formats.value = ['ladder']
  await settle()
  source.value = { session: 'one', block: 'b4' }
  await nextTick()
  expect([formats.value, target.value]).toEqual([null, null])
  await settle()
  expect(bodies().at(-1)).toMatchObject({ source: ['b4'], formats: null })
})

test('what is shown beside takes the place of the last where there is no room, and can be taken out', async () => {
  const many = ['a', 'b', 'c', 'd', 'e', 'f', 'g']
  compare.mockResolvedValue(compared('plan', ...many))
  const { show, takeOut } = comparing({ session: 'one', block: 'b3' })
  await settle()
  show('z')
  await settle()
  expect(bodies().at(-1)?.formats).toEqual([...many.slice(0, 6), 'z'])
  compare.mockResolvedValue(compared('plan', 'a', 'b'))
  takeOut('a')
  await settle()
  show('b')
  await settle()
  expect(bodies().at(-1)?.formats).toEqual(['a', 'b'])
})

test('a question begins with its movements, its minutes and what matters', async () => {
  const matters = [
    {
      key: 'low-impact',
      sentence: 'low impact',
      wishes: [{ row: 'landings', way: 'at-most', value: 0, hard: true, weight: 3 }],
    },
  ]
  vi.spyOn(api, 'compareTables').mockResolvedValue({ rows: [], wishes: [], matters } as never)
  const { wishes } = comparing({ text: 'push-ups', minutes: 12, matter: 'low-impact' })
  await settle()
  expect(bodies()).toHaveLength(1)
  expect(bodies()[0]).toMatchObject({ text: 'push-ups', target: 720, formats: null, wishes: matters[0]?.wishes })
  expect(wishes.value).toHaveLength(1)
})
