// The one door to the server. Every refusal becomes a Refusal with the server's own words and places.
import type {
  Explanation,
  FiguresOut,
  Me,
  MovementsOut,
  Problem,
  ProblemItem,
  RevisionItem,
  SavedOut,
  SessionDoc,
  SessionItem,
  SessionOut,
} from './types'

export class Refusal extends Error {
  constructor(
    readonly status: number,
    readonly kind: string,
    message: string,
    readonly problems: readonly ProblemItem[] = [],
  ) {
    super(message)
  }
}

/** Status of a Refusal when the server could not be reached at all. */
export const UNREACHABLE = 0

function csrfToken(): string {
  return /(?:^|; )csrftoken=([^;]+)/.exec(document.cookie)?.[1] ?? ''
}

async function refusal(response: Response): Promise<Refusal> {
  try {
    const problem = (await response.json()) as Problem
    return new Refusal(response.status, problem.type, problem.detail, problem.problems ?? [])
  } catch {
    return new Refusal(response.status, 'about:fault', 'The server gave no readable answer.')
  }
}

async function call<T>(method: string, path: string, body?: unknown, signal?: AbortSignal): Promise<T> {
  let response: Response
  try {
    response = await fetch(`/api${path}`, {
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
  if (!response.ok) throw await refusal(response)
  return (response.status === 204 ? undefined : await response.json()) as T
}

export const api = {
  me: () => call<Me>('GET', '/me'),
  signIn: (name: string, password: string) => call<Me>('POST', '/sign-in', { name, password }),
  signOut: () => call<undefined>('POST', '/sign-out'),
  movements: () => call<MovementsOut>('GET', '/movements'),
  sessions: () => call<SessionItem[]>('GET', '/sessions'),
  session: (id: string) => call<SessionOut>('GET', `/sessions/${id}`),
  createSession: (document: SessionDoc) => call<SessionOut>('POST', '/sessions', { document }),
  saveSession: (id: string, base: string, tab: string, document: SessionDoc) =>
    call<SavedOut>('PUT', `/sessions/${id}`, { base, tab, document }),
  duplicateSession: (id: string) => call<SessionOut>('POST', `/sessions/${id}/duplicate`),
  archiveSession: (id: string) => call<SessionOut>('POST', `/sessions/${id}/archive`),
  revisions: (id: string) => call<RevisionItem[]>('GET', `/sessions/${id}/revisions`),
  figures: (document: SessionDoc, squad: number, signal: AbortSignal) =>
    call<FiguresOut>('POST', '/figures', { document, squad }, signal),
  explain: (document: SessionDoc, squad: number, figure: string) =>
    call<{ explanation: Explanation }>('POST', '/explain', { document, squad, figure }),
}
