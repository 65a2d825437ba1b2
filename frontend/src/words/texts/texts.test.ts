import { expect, test } from 'vitest'

import { said } from './said'

const ROOMS = import.meta.glob<Record<string, Record<string, unknown>>>('./*.ts', { eager: true })
const TEXTS = Object.entries(ROOMS)
  .filter(([path]) => !/said|test/.test(path))
  .flatMap(([path, room]) => Object.entries(room).map(([name, texts]) => [`${path} ${name}`, texts] as const))

/** All texts of a component, those of its kinds too. */
const flat = (texts: object): string[] =>
  Object.values(texts).flatMap((one: unknown) => (typeof one === 'object' && one ? flat(one) : [String(one)]))

test('what is filled into a sentence stands in it, and what is not there leaves no trace', () => {
  const sentence = (name: string | null, count: number | undefined) => said`${name} has ${count}.`
  expect([sentence('Osk', 3), sentence(null, undefined)]).toEqual(['Osk has 3.', ' has .'])
})

test.each(TEXTS)('%s: every text has words, and no two keys have the same', (_, texts) => {
  const all = flat(texts)
  expect(all.filter((one) => !/[a-z]{2}/i.test(one))).toEqual([])
  expect(new Set(all).size).toBe(all.length)
})
