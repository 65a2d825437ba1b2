import { expect, test } from 'vitest'

import { textOf } from './textOf'

const NAMES = 'name;group\nZoë Müller;Gruppe Süd\n'
const of = (bytes: number[]): Blob => new Blob([new Uint8Array(bytes)])
const latin = [...NAMES].map((letter) => letter.charCodeAt(0))
const wide = [...NAMES].map((letter) => letter.charCodeAt(0))

test.each([
  ['UTF-8', new Blob([NAMES])],
  ['UTF-8 with its mark', new Blob(['\ufeff', NAMES])],
  ['an older Windows encoding', of(latin)],
  ['UTF-16, low byte first', of([0xff, 0xfe, ...wide.flatMap((code) => [code & 0xff, code >> 8])])],
  ['UTF-16, high byte first', of([0xfe, 0xff, ...wide.flatMap((code) => [code >> 8, code & 0xff])])],
])('a list in %s is read', async (_name, file) => {
  expect(await textOf(file)).toBe(NAMES)
})
