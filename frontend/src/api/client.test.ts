import { beforeEach, expect, test, vi } from 'vitest'

import { refusalText } from '@/words/refusal'

import { api, Refusal, UNREACHABLE } from './client'

const fetched = vi.fn()
vi.stubGlobal('fetch', fetched)
vi.stubGlobal('document', { cookie: 'a=b; csrftoken=seven; c=d' })
beforeEach(() => {
  fetched.mockReset()
})
const answer = (status: number, body?: unknown): Response =>
  new Response(body === undefined ? (status === 204 ? null : 'not JSON') : JSON.stringify(body), { status })
const refused = async (work: Promise<unknown>): Promise<Refusal> => {
  const error: unknown = await work.then(
    () => null,
    (one: unknown) => one,
  )
  if (!(error instanceof Refusal)) throw new Error('no refusal')
  return error
}

test('a question goes to the API with the token that guards writes', async () => {
  fetched.mockResolvedValue(answer(200, []))
  await api.sessions({ archived: true })
  const [asked] = fetched.mock.calls[0] as [Request]
  expect(new URL(asked.url).pathname + new URL(asked.url).search).toBe('/api/sessions?archived=true')
  expect(asked.headers.get('X-CSRFToken')).toBe('seven')
})

test('an answer without content is nothing', async () => {
  fetched.mockResolvedValue(answer(204))
  expect(await api.dropEntry('a', 3)).toBeUndefined()
})

test('a refusal keeps the words and places of the server', async () => {
  const problems = [{ path: 'title', found: 'nothing', allowed: 'a title', code: 'missing' }]
  fetched.mockResolvedValue(
    answer(422, { type: 'document', title: '', status: 422, detail: 'Not a session.', problems }),
  )
  const error = await refused(api.sessions())
  expect([error.status, error.kind, error.detail, error.problems]).toEqual([
    422,
    'document',
    'Not a session.',
    problems,
  ])
})

test('a refused value is told with its place, what cannot be done as a sentence', () => {
  const told = (code: string): string =>
    refusalText(new Refusal(422, 'document', 'Not so.', [{ path: 'rest', found: '-1', allowed: 'from 0', code }]))
  expect([told('number'), told('cannot_make')]).toEqual(['rest: found -1; allowed: from 0', 'from 0'])
  expect(refusalText(new Refusal(403, 'rights', 'Not yours.'))).toBe('Not yours.')
})

test('an answer that cannot be read is told as such', async () => {
  fetched.mockResolvedValue(answer(502))
  expect(refusalText(await refused(api.sessions()))).toBe('The server gave no readable answer.')
})

test('no answer at all is a refusal of its own kind', async () => {
  fetched.mockRejectedValue(new TypeError('network'))
  const error = await refused(api.sessions())
  expect([error.status, refusalText(error)]).toEqual([UNREACHABLE, 'The server cannot be reached.'])
})

test('a question that was called off is none', async () => {
  fetched.mockRejectedValue(new DOMException('off', 'AbortError'))
  await expect(api.sessions()).rejects.toBeInstanceOf(DOMException)
})
