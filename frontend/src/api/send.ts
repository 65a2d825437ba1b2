// The one door to the server. Every refusal becomes a Refusal with the server's own words and places.
import type { Problem, ProblemItem } from './types'

/** A wrong place, with what was found there and what can stand there. */
export const placeText = (one: ProblemItem): string => `${one.path}: found ${one.found}; allowed: ${one.allowed}`

export class Refusal extends Error {
  constructor(
    readonly status: number,
    readonly kind: string,
    message: string,
    readonly problems: readonly ProblemItem[] = [],
  ) {
    super(message)
  }

  /** Whether what was to be changed is not what was seen of it: somebody else was quicker. */
  get stale(): boolean {
    return this.status === 409
  }

  /** The first place that is wrong, with what was found there and what can stand there; else the server's words. */
  get told(): string {
    const [first] = this.problems
    // Why a thing cannot be done is a sentence of its own, no value that could stand in a place.
    if (first?.code.startsWith('cannot_')) return first.allowed
    return first ? placeText(first) : this.message
  }
}

/** Status of a Refusal when the server could not be reached at all. */
export const UNREACHABLE = 0

function csrfToken(): string {
  return /(?:^|; )csrftoken=([^;]+)/.exec(document.cookie)?.[1] ?? ''
}

export async function refusal(response: Response): Promise<Refusal> {
  try {
    const problem = (await response.json()) as Problem
    return new Refusal(response.status, problem.type, problem.detail, problem.problems ?? [])
  } catch {
    return new Refusal(response.status, 'about:fault', 'The server gave no readable answer.')
  }
}

export async function send(method: string, path: string, body?: unknown, signal?: AbortSignal): Promise<Response> {
  try {
    return await fetch(`/api${path}`, {
      method,
      signal,
      credentials: 'same-origin',
      headers: { 'Content-Type': 'application/json', 'X-CSRFToken': csrfToken() },
      body: body === undefined ? undefined : JSON.stringify(body),
    })
  } catch (error) {
    if (error instanceof DOMException && error.name === 'AbortError') throw error
    throw new Refusal(UNREACHABLE, 'about:unreachable', 'The server cannot be reached.')
  }
}

export async function call<T>(method: string, path: string, body?: unknown, signal?: AbortSignal): Promise<T> {
  const response = await send(method, path, body, signal)
  if (!response.ok) throw await refusal(response)
  return (response.status === 204 ? undefined : await response.json()) as T
}
