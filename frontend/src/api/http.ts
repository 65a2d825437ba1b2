// The one door to the server, typed by its OpenAPI description. Every refusal becomes a Refusal.
import createClient, { type FetchResponse, type Middleware } from 'openapi-fetch'
import type { MediaType, ResponseObjectMap, SuccessResponse } from 'openapi-typescript-helpers'

import { OWN_KINDS, Refusal, refusalOf, UNREACHABLE } from './refusal'
import type { paths } from './schema'

function csrfToken(): string {
  return /(?:^|; )csrftoken=([^;]+)/.exec(document.cookie)?.[1] ?? ''
}

const door: Middleware = {
  onRequest({ request }) {
    request.headers.set('X-CSRFToken', csrfToken())
    return request
  },
  async onResponse({ response }) {
    if (!response.ok) throw await refusalOf(response)
  },
  onError({ error }) {
    // Who called the question off knows of it.
    const calledOff = error instanceof DOMException && error.name === 'AbortError'
    return calledOff ? undefined : new Refusal(UNREACHABLE, OWN_KINDS.unreachable)
  },
}

export const http = createClient<paths>({
  baseUrl: window.location.origin,
  credentials: 'same-origin',
  fetch: (request) => globalThis.fetch(request),
})
http.use(door)

/** An operation of the description, as far as its answers go. */
// eslint-disable-next-line @typescript-eslint/no-explicit-any -- openapi-fetch speaks of operations so
type Operation = Record<string | number, any>
/** What an operation answers with, as the description has it (openapi-fetch's own type makes lists of its tuples). */
export type Answer<O extends Operation> = SuccessResponse<ResponseObjectMap<O>, MediaType>
export type Asked<O extends Operation> = Promise<FetchResponse<O, unknown, MediaType>>

/** What an answer holds; nothing where it has no content (204). Throws the Refusal. */
export async function got<O extends Operation>(asked: Asked<O>): Promise<Answer<O>> {
  return (await asked).data as Answer<O>
}
