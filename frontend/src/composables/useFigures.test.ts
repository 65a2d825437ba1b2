import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { effectScope, nextTick, ref, shallowRef, type EffectScope } from 'vue'

import { api, Refusal } from '@/api/client'
import type { FiguresIn, FiguresOut, Given, SessionDoc } from '@/api/types'
import { promised, type Promised } from '@/testing/promised'

import { useFigures } from './useFigures'

const doc = (title: string) => ({ fine_tally: 1, title, blocks: [] }) as unknown as SessionDoc
const answer = (total: number) =>
  ({ figures: { total_s: total }, stave: {}, formats: [], deltas: null }) as unknown as FiguresOut

let scope: EffectScope
let asked: { body: FiguresIn; signal: AbortSignal; reply: Promised<FiguresOut> }[] = []
beforeEach(() => {
  vi.useFakeTimers()
  scope = effectScope()
  asked = []
  vi.spyOn(api, 'figures').mockImplementation((body, signal) => {
    const reply = promised<FiguresOut>()
    asked.push({ body, signal, reply })
    return reply.promise
  })
})
afterEach(() => {
  scope.stop()
  vi.useRealTimers()
})

function shown(document = shallowRef<SessionDoc | null>(doc('a'))) {
  const against = ref<FiguresIn['against']>(undefined)
  const given = ref({} as Given)
  const tools = scope.run(() => useFigures(document, { squad: ref(1), given, methods: ref({}), against }))
  if (!tools) throw new Error('no scope')
  return { document, given, against, ...tools }
}
const settle = async (): Promise<void> => {
  await nextTick()
  await vi.runAllTimersAsync()
}

test('a document is figured as it is opened', async () => {
  const { figures } = shown()
  await settle()
  asked[0]?.reply.answer(answer(60))
  await settle()
  expect(figures.value?.total_s).toBe(60)
})

test('an answer that comes late is dropped, and its question was called off', async () => {
  const { document, figures } = shown()
  await settle()
  document.value = doc('b')
  await settle()
  asked[1]?.reply.answer(answer(2))
  await settle()
  asked[0]?.reply.answer(answer(1))
  await settle()
  expect(asked[0]?.signal.aborted).toBe(true)
  expect(figures.value?.total_s).toBe(2)
})

test('a refusal leaves the last figures and says which place is wrong', async () => {
  const { document, figures, problems, trouble } = shown()
  await settle()
  asked[0]?.reply.answer(answer(60))
  document.value = doc('b')
  await settle()
  const place = { path: 'blocks[0].rounds', found: '0', allowed: '1 or more', code: 'number' }
  asked[1]?.reply.refuse(new Refusal(422, 'document', 'wrong', [place]))
  await settle()
  expect([figures.value?.total_s, problems.value[0]?.path, trouble.value]).toEqual([60, 'blocks[0].rounds', ''])
})

test('a refusal without a place is told in its own words', async () => {
  const { trouble } = shown()
  await settle()
  asked[0]?.reply.refuse(new Refusal(403, 'rights', 'Not your squad.'))
  await settle()
  expect(trouble.value).toBe('Not your squad.')
})

test('the day and what is held against are part of the question', async () => {
  const { given, against } = shown()
  await settle()
  given.value = { options: 'easier' } as unknown as Given
  against.value = {}
  await settle()
  expect(asked.at(-1)?.body).toMatchObject({ given: { options: 'easier' }, against: {}, squad: 1 })
})

test('nothing is asked without a document', async () => {
  shown(shallowRef<SessionDoc | null>(null))
  await settle()
  expect(asked).toEqual([])
})

test('a block that was moved is still what it was, until its figures come', async () => {
  const { formats } = shown()
  await settle()
  const told = {
    figures: { total_s: 60, blocks: [{ id: 'b2' }, { id: 1 }] },
    formats: [{ name: 'Ladder' }, { name: 'Even' }],
  }
  asked[0]?.reply.answer(told as unknown as FiguresOut)
  await settle()
  expect([formats.value.get('b2')?.name, formats.value.get('1')?.name, formats.value.size]).toEqual([
    'Ladder',
    'Even',
    2,
  ])
})
