import { readFileSync } from 'node:fs'

import { expect, test } from 'vitest'

import { applyEdits, type Edit } from './edits'

interface Case {
  id: string
  document: object
  edits: Edit[]
  result: object | null
}

// The core runs the same cases: one definition of what an edit does.
const cases = JSON.parse(readFileSync(new URL('../../../tests/cases/edits.json', import.meta.url), 'utf8')) as Case[]

test.each(cases.map((one) => [one.id, one] as const))('%s', (_, one) => {
  if (one.result === null) {
    expect(() => applyEdits(one.document, one.edits)).toThrow()
    return
  }
  const { document, inverse } = applyEdits(one.document, one.edits)
  expect(document).toEqual(one.result)
  expect(applyEdits(document, inverse).document).toEqual(one.document)
})
