import { afterAll, expect, test } from 'vitest'

import { ENGLISH, i18n, LANGUAGES, messagesFrom, speak, spokenOf, type Catalogue } from '../language'
import { said, type Said } from './said'
import { catalogueOf, ROOMS, texts } from './texts'

// Every room of texts tells its English as it is loaded.
const FILES = import.meta.glob<string>('./*.ts', { eager: true, query: '?raw', import: 'default' })
import.meta.glob(['./*.ts', '!./*.test.ts'], { eager: true })
const CATALOGUE: [string, Catalogue][] = [...ROOMS].map(([room, english]) => [room, catalogueOf(english)])
const MADE_UP = 'xx'

afterAll(() => {
  i18n.locale.value = ENGLISH
})

const flat = (all: Catalogue): string[] =>
  Object.values(all).flatMap((one) => (typeof one === 'string' ? [one] : flat(one)))

test('what is filled into a sentence stands in it, and what is not there leaves no trace', () => {
  const sentence = (name: string | null, count: number | undefined) => said`${name} has ${count}.`
  expect([sentence('Osk', 3), sentence(null, undefined)]).toEqual(['Osk has 3.', ' has .'])
})

test('every room is told once, by a name of its own', () => {
  const names = Object.entries(FILES)
    .filter(([path]) => !path.includes('.test.'))
    .flatMap(([, file]) => [...file.matchAll(/ = texts\('(\w+)'/g)].map((one) => one[1]))
  expect(names.length).toBeGreaterThan(130)
  expect(new Set(names).size).toBe(names.length)
  expect(CATALOGUE.map(([room]) => room).sort()).toEqual([...names].sort())
})

test.each(CATALOGUE)('%s: every text has words, and no two keys have the same', (_, room) => {
  // Signs between what is filled in are a text, too: other languages put them otherwise.
  const all = flat(room).filter((one) => !/^[^a-z]*\{\d\}[^a-z]*$/i.test(one))
  expect(all.filter((one) => !/[a-z]{2}/i.test(one))).toEqual([])
  expect(new Set(all).size).toBe(all.length)
})

test('whoever translates has every text in one file', async () => {
  const sorted = Object.fromEntries(CATALOGUE.sort(([one], [other]) => one.localeCompare(other)))
  await expect(`${JSON.stringify(sorted, null, 2)}\n`).toMatchFileSnapshot('../../../languages/en.json')
})

test('signs are words in texts, also those that mean something to others', () => {
  const all = texts('signs', {
    odd: 'a @ b | c {d}',
    turned: (first: Said, second: Said) => said`${second} @:x | {${first}}`,
    deep: { inside: ['one', 'two'] },
  })
  expect([all.odd, all.turned('x', 3), ...all.deep.inside]).toEqual(['a @ b | c {d}', '3 @:x | {x}', 'one', 'two'])
  expect(all.turned('a {0} | @:b', null)).toBe(' @:x | {a {0} | @:b}')
  expect(catalogueOf({ turned: (first: Said, second: Said) => said`${second}, ${first}` })).toEqual({
    turned: '{1}, {0}',
  })
})

test('another language is spoken everywhere, and English stands in for what it lacks', async () => {
  const told = texts('told', { one: 'one', all: (count: Said, of: Said) => said`${count} of ${of}`, kept: 'kept' })
  i18n.mergeLocaleMessage(MADE_UP, messagesFrom({ told: { one: 'uno', all: 'di {1}, {0} {0}' } }))
  expect([told.one, told.all(4, 'five')]).toEqual(['one', '4 of five'])
  i18n.locale.value = MADE_UP
  expect([told.one, told.all(4, '{0}'), told.kept]).toEqual(['uno', 'di {0}, 4 4', 'kept'])
  await speak('there-is-no-such-language')
  expect(told.one).toBe('uno')
  i18n.locale.value = ENGLISH
  expect(told.one).toBe('one')
  expect(LANGUAGES).toEqual([])
  expect([spokenOf(['nb-NO', 'en-US']), spokenOf([])]).toEqual([ENGLISH, ENGLISH])
})
