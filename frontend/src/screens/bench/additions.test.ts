import { expect, test } from 'vitest'

import type { SessionDoc } from '@/api/types'

import { additions } from './additions'

const block = (id: string, more: object = {}) => ({ id, clock: { kind: 'intervals', work_s: 30, rest_s: 0 }, ...more })
const SESSION = {
  fine_tally: 1,
  title: 'Three',
  blocks: [
    block('a', { part: 'warm-up', rest_after_s: 60 }),
    { id: 's', section: 'Twice', times: 2, blocks: [block('b'), block('c')] },
    block('d', { part: 'cool-down' }),
  ],
} as unknown as SessionDoc
const NEW = block('n')
const into = (after: string | undefined, part = 'main', entries: object[] = [NEW]) =>
  additions(SESSION, entries, { after, part, rest_s: 90 })

test('a block goes after the one it was asked for at, whose own rest stays', () => {
  expect(into('blocks[0]')).toEqual([{ op: 'insert', path: ['blocks'], index: 1, value: NEW }])
})
test('after a block of a section it stands in the section, after a rest where there was none', () => {
  expect(into('blocks[1].blocks[0]')).toEqual([
    { op: 'set', path: ['b', 'rest_after_s'], value: 90 },
    { op: 'insert', path: ['s', 'blocks'], index: 1, value: NEW },
  ])
})
test('what was not asked for in a section goes after it, after a rest of the section', () => {
  expect(additions(SESSION, [NEW], { after: 'blocks[1].blocks[1]', beside: true, part: 'main', rest_s: 90 })).toEqual([
    { op: 'set', path: ['s', 'rest_after_s'], value: 90 },
    { op: 'insert', path: ['blocks'], index: 2, value: NEW },
  ])
})
test('a section goes after the section: none stands in another', () => {
  const section = { id: 't', section: 'Pairs', blocks: [NEW] }
  expect(into('blocks[1].blocks[1]', 'main', [section]).at(-1)).toEqual({
    op: 'insert',
    path: ['blocks'],
    index: 2,
    value: section,
  })
})
test('what cools down comes last, after a rest of what was last', () => {
  expect(into('blocks[0]', 'cool-down')).toEqual([
    { op: 'set', path: ['d', 'rest_after_s'], value: 90 },
    { op: 'insert', path: ['blocks'], index: 3, value: { ...NEW, part: 'cool-down' } },
  ])
})
test('the first block of a session has nothing before it; several keep their order', () => {
  const empty = { ...SESSION, blocks: [] } as unknown as SessionDoc
  const other = block('o')
  expect(additions(empty, [NEW, other], { after: undefined, part: 'finisher', rest_s: 90 })).toEqual([
    { op: 'insert', path: ['blocks'], index: 0, value: { ...NEW, part: 'finisher' } },
    { op: 'insert', path: ['blocks'], index: 1, value: { ...other, part: 'finisher' } },
  ])
})
