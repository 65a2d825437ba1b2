// The one door to the server. Every refusal becomes a Refusal with the server's own words and places.
import type {
  BoardOut,
  CardOut,
  DocumentIn,
  Explanation,
  FiguresIn,
  FiguresOut,
  FitWay,
  FormatsOut,
  Me,
  MovementsOut,
  PersonOut,
  Problem,
  ProblemItem,
  DifferencesOut,
  RevisionItem,
  RevisionOut,
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

async function send(method: string, path: string, body?: unknown, signal?: AbortSignal): Promise<Response> {
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

async function call<T>(method: string, path: string, body?: unknown, signal?: AbortSignal): Promise<T> {
  const response = await send(method, path, body, signal)
  if (!response.ok) throw await refusal(response)
  return (response.status === 204 ? undefined : await response.json()) as T
}

export const api = {
  me: () => call<Me>('GET', '/me'),
  signIn: (name: string, password: string) => call<Me>('POST', '/sign-in', { name, password }),
  signOut: () => call<undefined>('POST', '/sign-out'),
  movements: () => call<MovementsOut>('GET', '/movements'),
  sessions: (archived = false) => call<SessionItem[]>('GET', `/sessions?archived=${archived}`),
  session: (id: string) => call<SessionOut>('GET', `/sessions/${id}`),
  createSession: (document: SessionDoc) => call<SessionOut>('POST', '/sessions', { document }),
  importSession: (kind: 'json' | 'txt', text: string) => call<SessionOut>('POST', '/sessions/import', { kind, text }),
  saveSession: (id: string, base: string, tab: string, document: SessionDoc) =>
    call<SavedOut>('PUT', `/sessions/${id}`, { base, tab, document }),
  duplicateSession: (id: string) => call<SessionOut>('POST', `/sessions/${id}/duplicate`),
  archiveSession: (id: string, archived = true) =>
    call<SessionOut>('POST', `/sessions/${id}/archive?archived=${archived}`),
  revisions: (id: string) => call<RevisionItem[]>('GET', `/sessions/${id}/revisions`),
  revision: (id: string, revision: number) => call<RevisionOut>('GET', `/sessions/${id}/revisions/${revision}`),
  differences: (id: string, revision: number) =>
    call<DifferencesOut>('GET', `/sessions/${id}/revisions/${revision}/differences`),
  figures: (body: FiguresIn, signal: AbortSignal) => call<FiguresOut>('POST', '/figures', body, signal),
  explain: (body: DocumentIn & { figure: string }) => call<{ explanation: Explanation }>('POST', '/explain', body),
  fit: (body: DocumentIn & { available_s: number }) => call<{ ways: FitWay[] }>('POST', '/fit', body),
  formats: () => call<FormatsOut>('GET', '/formats'),
  makeFormat: (body: { key: string; params?: object; entry?: object; movements?: string[]; squad: number }) =>
    call<{ entries: object[] }>('POST', '/formats/make', body),
  readBoard: (text: string, before: SessionDoc, squad: number) =>
    call<BoardOut>('POST', '/board/read', { text, before, squad }),
  writeBoard: (document: SessionDoc, squad: number, full = false) =>
    call<{ text: string }>('POST', '/board/write', { document, squad, full }),
  card: (document: SessionDoc, squad: number) => call<CardOut>('POST', '/card', { document, squad }),
  people: (squad: number) => call<PersonOut[]>('GET', `/people?squad=${squad}`),
  importMovements: (kind: 'csv' | 'json', text: string, squad?: number) =>
    call<{ keys: string[] }>('POST', '/movements', { kind, text, squad }),
  changeMethods: (squad: number, methods: object) =>
    call<{ methods: Record<string, unknown> }>('PATCH', `/squads/${squad}/methods`, { methods }),
}

/** The card as a file; Refusal as everywhere. */
export async function cardPdf(document: SessionDoc, squad: number, paper: string): Promise<Blob> {
  const response = await send('POST', '/card.pdf', { document, squad, paper })
  if (!response.ok) throw await refusal(response)
  return response.blob()
}
