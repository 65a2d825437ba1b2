import { beforeEach, expect, test, vi } from 'vitest'

import type { MovementDef } from '@/api/types'

const MOVEMENTS = [
  {
    key: 'thruster',
    name: 'thruster',
    aliases: ['squat to press'],
    patterns: { squat: 0.5, 'push-overhead': 0.5 },
    position: 'standing',
    kit: ['dumbbell'],
    stresses: ['knee', 'shoulder'],
  },
  {
    key: 'squat-jump',
    name: 'squat jump',
    patterns: { jump: 0.6, squat: 0.4 },
    position: 'standing',
    stresses: ['knee'],
  },
  { key: 'air-squat', name: 'air squat', patterns: { squat: 1 }, position: 'standing', stresses: ['knee'] },
  {
    key: 'goblet-squat',
    name: 'goblet squat',
    patterns: { squat: 1 },
    position: 'standing',
    kit: ['kettlebell'],
    stresses: ['knee'],
    easier: ['air-squat'],
  },
  {
    key: 'push-up',
    name: 'push-up',
    aliases: ['press-up'],
    patterns: { 'push-level': 1 },
    position: 'plank',
    stresses: ['wrist'],
  },
] as unknown as MovementDef[]
const ANY = { pattern: '', kit: '', position: '', spare: '' }

const nearMovements = vi.hoisted(() => vi.fn())
vi.mock('@/api/client', () => ({
  api: {
    nearMovements,
    movements: () =>
      Promise.resolve({
        movements: MOVEMENTS,
        patterns: [],
        checks: [],
        rows: [
          { name: 'squat', code: 'SQ', members: ['squat'] },
          { name: 'jump', code: 'JU', members: ['jump'] },
        ],
      }),
  },
}))
const { movementIn, useMovements } = await import('./useMovements')
const { Refusal } = await import('@/api/refusal')
const whileReading = useMovements().codeOf(undefined)
beforeEach(() => useMovements().ready())
const found = (typed: string, narrowed = {}, own: MovementDef[] = []): string[] =>
  useMovements()
    .search(typed, { ...ANY, ...narrowed }, own)
    .map((m) => m.key)

test('a name that holds the word comes before an alias that does, the shorter first', () => {
  expect(found('squat')).toEqual(['air-squat', 'squat-jump', 'goblet-squat', 'thruster'])
})
test('an alias finds its movement, hyphen or not', () => {
  expect(found('press up')).toEqual(['push-up'])
})
test('every word must be found', () => {
  expect(found('squat jump')).toEqual(['squat-jump'])
  expect(found('squat row')).toEqual([])
})
test.each([
  ['kit', 'kettlebell', ['goblet-squat']],
  ['kit', 'none', ['air-squat', 'squat-jump']],
  ['pattern', 'jump', ['squat-jump']],
  ['spare', 'shoulder', ['air-squat', 'squat-jump', 'goblet-squat']],
])('%s narrowed to %s', (filter, word, keys) => {
  expect(found('squat', { [filter]: word })).toEqual(keys)
})
test('a movement of the document stands in for the one of its key', () => {
  const own = [{ key: 'air-squat', name: 'deep squat' }] as unknown as MovementDef[]
  expect(found('deep', {}, own)).toEqual(['air-squat'])
  expect(found('air', {}, own)).toEqual(['air-squat'])
  expect(found('air squat', {}, own)).toEqual(['air-squat'])
})
test('before anything is typed, what could stand for a movement comes first, as it is told, and never itself', () => {
  const { search } = useMovements()
  const like = { key: 'goblet-squat', near: ['thruster', 'air-squat'] }
  const near = (typed: string): string[] => search(typed, ANY, [], like).map((movement) => movement.key)
  expect(near('')).toEqual(['thruster', 'air-squat', 'push-up', 'squat-jump'])
  // Once something is typed, that counts, and the movement itself may be found.
  expect(near('goblet')).toEqual(['goblet-squat'])
})
test('what could stand for a movement is asked for once, and its own order stands in if that is refused', async () => {
  const { nearTo } = useMovements()
  nearMovements.mockResolvedValueOnce({ keys: ['air-squat'] })
  expect(await nearTo('thruster')).toEqual(['air-squat'])
  expect(await nearTo('thruster')).toEqual(['air-squat'])
  expect(nearMovements).toHaveBeenCalledTimes(1)
  nearMovements.mockRejectedValueOnce(new Refusal(422, 'about:wrong'))
  expect(await nearTo('odd')).toEqual([])
  // Called off, since the library changed meanwhile: no fault of the program.
  nearMovements.mockReturnValueOnce(new Promise(() => {}))
  const late = nearTo('swing')
  await useMovements().refresh()
  expect(await late).toEqual([])
})
test('what a document defines is laid over the shipped movement', () => {
  const document = { blocks: [], movements: [{ key: 'push-up', name: 'floor press' }] } as never
  const { byKey } = useMovements()
  expect(movementIn(document, byKey.value, 'push-up')).toMatchObject({ name: 'floor press', position: 'plank' })
  expect(movementIn(null, byKey.value, 'push-up')?.name).toBe('push-up')
})
test('the code is that of the row in which a movement does most', () => {
  const { codeOf, byKey } = useMovements()
  expect(codeOf(byKey.value.get('squat-jump'))).toBe('JU')
  expect(codeOf(undefined)).toBe('??')
})
test('nothing counts as unknown before the movements are there', () => {
  expect(whileReading).toBe('')
})
