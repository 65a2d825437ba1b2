// What the server can be asked for.
import { answerOf, fileOf } from './jobs'
import { call } from './send'
import type {
  Attending,
  Beside,
  BoardOut,
  Settled,
  WrittenText,
  CalendarLink,
  CardOut,
  CompareIn,
  CompareTables,
  ComparisonOut,
  DocumentIn,
  Edit,
  Explanation,
  FiguresIn,
  FiguresOut,
  FitWay,
  FormatsOut,
  Me,
  Job,
  LevelAsked,
  MovementsOut,
  Outcome,
  PersonOut,
  Placing,
  PlanChange,
  PlanDetails,
  PlanEntry,
  Proposal,
  DifferencesOut,
  RevisionItem,
  RevisionOut,
  SavedOut,
  SeasonWeek,
  SessionComparison,
  SessionDoc,
  SessionName,
  SessionOut,
  SessionsAsked,
  SessionsPage,
  Shape,
  SweepPoint,
  Turn,
  TimeAway,
  Week,
} from './types'

export const api = {
  me: () => call<Me>('GET', '/me'),
  signIn: (name: string, password: string) => call<Me>('POST', '/sign-in', { name, password }),
  signOut: () => call<undefined>('POST', '/sign-out'),
  movements: (squad: number) => call<MovementsOut>('GET', `/movements${squad ? `?squad=${squad}` : ''}`),
  sessions: (asked: SessionsAsked = {}) => {
    const given = Object.entries(asked).filter(([, value]) => value !== '')
    const query = new URLSearchParams(given.map(([name, value]) => [name, String(value)])).toString()
    return call<SessionsPage>('GET', `/sessions${query ? `?${query}` : ''}`)
  },
  sessionNames: () => call<SessionName[]>('GET', '/sessions/names'),
  session: (id: string) => call<SessionOut>('GET', `/sessions/${id}`),
  createSession: (document: SessionDoc, squad: number) =>
    call<SessionOut>('POST', '/sessions', { document, squad: squad || null }),
  importSession: (kind: 'json' | 'txt', text: string, squad: number) =>
    call<SessionOut>('POST', '/sessions/import', { kind, text, squad: squad || null }),
  pinSession: (id: string) => call<undefined>('POST', `/sessions/${id}/pin`),
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
  makeFormat: (body: {
    key: string
    params?: object
    entry?: object
    movements?: string[]
    definitions?: readonly object[]
    squad: number
  }) => call<{ entries: object[]; rest_before_s: number }>('POST', '/formats/make', body),
  usualStep: (body: { movement: string; clock: string; definitions: readonly object[]; squad: number }) =>
    call<{ step: object }>('POST', '/formats/step', body),
  readBoard: (text: string, before: SessionDoc | null, squad: number, settled: Settled = {}) =>
    call<BoardOut>('POST', '/board', { text, before, squad, settled }),
  writeBoard: (document: SessionDoc, squad: number, full = false) =>
    call<WrittenText>('POST', '/board/write', { document, squad, full }),
  /** The words that the session was read from, as long as they hold; else the written form. */
  wordsOf: (document: SessionDoc, squad: number) =>
    call<WrittenText>('POST', '/board/write', { document, squad, as_typed: true }),
  callMovement: (key: string, words: string, squad: number) =>
    call<null>('POST', '/movements/names', { key, words, squad }),
  card: (document: SessionDoc, squad: number) => call<CardOut>('POST', '/card', { document, squad }),
  compareTables: () => call<CompareTables>('GET', '/compare/tables'),
  compare: (body: CompareIn, signal?: AbortSignal) => answerOf<ComparisonOut>('/compare', body, signal),
  compareSessions: (body: object, signal?: AbortSignal) =>
    answerOf<{ comparison: SessionComparison }>('/compare/sessions', body, signal),
  placeFormats: (body: CompareIn & { day?: string | null }, signal?: AbortSignal) =>
    answerOf<{ placing: Placing }>('/compare/week', body, signal),
  sweep: (body: object, signal?: AbortSignal) =>
    answerOf<{ points: SweepPoint[]; turns: Turn[] }>('/compare/sweep', body, signal),
  useRecast: (
    document: SessionDoc,
    source: readonly (number | string)[],
    entries: readonly object[],
    how: 'replace' | 'insert',
  ) => call<{ edits: Edit[] }>('POST', '/compare/use', { document, source, entries, how }),
  shapes: (squad: number) => call<Shape[]>('GET', `/shapes?squad=${squad}`),
  keepShape: (body: { name: string; key: string; params: object; squad: number; replaces: number | null }) =>
    call<Shape>('POST', '/shapes', body),
  dropShape: (id: number) => call<undefined>('DELETE', `/shapes/${id}`),
  week: (day: string, squad: number, person?: number) =>
    call<Week>('GET', `/plan/week?day=${day}${squad ? `&squad=${squad}` : ''}${person ? `&person=${person}` : ''}`),
  planEntry: (body: PlanDetails & { session?: string; title?: string; squad: number }) =>
    call<PlanEntry>('POST', '/plan/entries', body),
  changeEntry: (id: string, details: PlanDetails & { version: number }) =>
    call<PlanEntry>('PATCH', `/plan/entries/${id}`, details),
  repeatEntry: (id: string, how: { weeks?: number; day?: string }) =>
    call<PlanEntry[]>('POST', `/plan/entries/${id}/again`, how),
  attendance: (id: string) => call<Attending[]>('GET', `/plan/entries/${id}/attendance`),
  attend: (
    id: string,
    body: { person: number; version: string; came: boolean; minutes: number | null; effort: number | null },
  ) => call<undefined>('PUT', `/plan/entries/${id}/attendance`, body),
  keepEntry: (id: string) => call<{ id: string }>('POST', `/plan/entries/${id}/session`),
  dropEntry: (id: string, version: number) => call<undefined>('DELETE', `/plan/entries/${id}?version=${version}`),
  setDay: (
    day: string,
    body: { version: string; intent: string; share: number | null; hall: boolean; squad: number },
  ) => call<undefined>('PUT', `/plan/days/${day}`, body),
  addPhase: (body: {
    begins: string
    weeks: number
    kind: string
    load_low: number
    load_high: number
    squad: number
  }) => call<undefined>('POST', '/plan/phases', body),
  timesAway: (squad: number) => call<TimeAway[]>('GET', `/plan/away${squad ? `?squad=${squad}` : ''}`),
  addAway: (body: { first: string; last: string; known: boolean; squad: number }) =>
    call<undefined>('POST', '/plan/away', { ...body, squad: body.squad || null }),
  dropAway: (id: number) => call<undefined>('DELETE', `/plan/away/${id}`),
  dropPhase: (id: number) => call<undefined>('DELETE', `/plan/phases/${id}`),
  askToLevel: (body: LevelAsked) => call<Job>('POST', '/plan/level', body),
  proposal: (job: string) => call<Proposal>('GET', `/plan/level/${job}`),
  previewLevel: (job: string, edits: readonly number[]) =>
    call<Outcome>('POST', `/plan/level/${job}/preview`, { edits }),
  takeLevel: (job: string, edits: readonly number[]) => call<PlanChange>('POST', `/plan/level/${job}/take`, { edits }),
  season: (day: string, weeks: number, squad?: number) =>
    call<{ weeks: SeasonWeek[] }>('GET', `/plan/season?day=${day}&weeks=${weeks}${squad ? `&squad=${squad}` : ''}`),
  beside: (day: string, other: string, squad: number) =>
    call<Beside>('GET', `/plan/beside?day=${day}&other=${other}&squad=${squad}`),
  links: (squad: number) => call<CalendarLink[]>('GET', `/plan/links?squad=${squad}`),
  makeLink: (body: { name: string; person: number | null; squad: number }) =>
    call<CalendarLink>('POST', '/plan/links', body),
  revokeLink: (id: number) => call<undefined>('DELETE', `/plan/links/${id}`),
  undoChange: (id: number, item: number) => call<PlanChange>('POST', `/plan/changes/${id}/undo/${item}`),
  people: (squad: number) => call<PersonOut[]>('GET', `/people?squad=${squad}`),
  importMovements: (kind: 'csv' | 'json', text: string, squad: number, replace = false) =>
    call<{ keys: string[] }>('POST', '/movements', { kind, text, squad: squad || null, replace }),
  mutedChecks: (squad: number) => call<{ muted: string[] }>('GET', `/squads/${squad}/muted-checks`),
  muteCheck: (squad: number, code: string, muted: boolean) =>
    call<{ muted: string[] }>(muted ? 'PUT' : 'DELETE', `/squads/${squad}/muted-checks/${code}`),
  changeMethods: (squad: number, version: string, methods: object) =>
    call<{ methods: Record<string, unknown>; version: string }>('PATCH', `/squads/${squad}/methods`, {
      methods,
      version,
    }),
}

/** The card as a file; Refusal as everywhere. */
export const cardPdf = (document: SessionDoc, squad: number, paper: string): Promise<Blob> =>
  fileOf('/card.pdf', { document, squad, paper })

/** A comparison as a file. */
export const comparisonFile = (
  what: 'compare' | 'compare/sessions',
  kind: 'csv' | 'xlsx',
  body: object,
): Promise<Blob> => fileOf(`/${what}.${kind}`, body)

export { placeText, Refusal, UNREACHABLE } from './send'
