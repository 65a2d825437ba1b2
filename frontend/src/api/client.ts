// What the server can be asked for. Bodies and answers are the generated types (api/schema.d.ts).
import { got, http } from './http'
import { answerOf, fileOf } from './jobs'
import type { Body, DocumentIn, LogPart, Me, PlanDetails, SessionDoc, SessionsAsked, Settled, Whose } from './types'

const session = (id: string) => ({ path: { session_id: id } })
const revision = (id: string, number: number) => ({ path: { session_id: id, revision_id: number } })
const entry = (id: string) => ({ path: { entry_id: id } })
const job = (id: string) => ({ path: { job_id: id } })
const ofSquad = (id: number) => ({ path: { squad_id: id } })
const ofPerson = (id: string) => ({ path: { person_id: id } })
/** 0 stands for one's first squad: the server finds it. */
const squadOrFirst = (squad: number): number | null => squad || null

const account = {
  me: () => got(http.GET('/api/me')),
  signIn: (name: string, password: string, shared = false, code = '') =>
    got(http.POST('/api/sign-in', { body: { name, password, shared, code } })),
  signOut: () => got(http.POST('/api/sign-out')),
  changePassword: (old: string, to: string) => got(http.POST('/api/account/password', { body: { old, new: to } })),
  setUnits: (units: Me['units']) => got(http.PUT('/api/account/units', { body: { units } })),
  devices: () => got(http.GET('/api/account/devices')),
  signOutDevice: (number: string) =>
    got(http.DELETE('/api/account/devices/{number}', { params: { path: { number } } })),
  readNotice: (id: number) =>
    got(http.DELETE('/api/account/notices/{notice_id}', { params: { path: { notice_id: id } } })),
  leaveSquad: (id: number) => got(http.DELETE('/api/account/squads/{squad_id}', { params: ofSquad(id) })),
  secondFactor: () => got(http.GET('/api/account/second-factor')),
  setUpSecondFactor: (password: string) => got(http.POST('/api/account/second-factor', { body: { password } })),
  beginSecondFactor: (code: string) => got(http.PUT('/api/account/second-factor', { body: { code } })),
  endSecondFactor: (password: string) => got(http.POST('/api/account/second-factor/end', { body: { password } })),
  eraseAccount: (password: string) => got(http.POST('/api/account/erase', { body: { password } })),
}

/** What a link opens; its token stands behind the sign of the address, which no server is sent. */
const links = {
  seeInvitation: (token: string) => got(http.POST('/api/invitations/look', { body: { token } })),
  acceptInvitation: (body: Body<'JoinIn'>) => got(http.POST('/api/invitations/accept', { body })),
  seeReset: (token: string) => got(http.POST('/api/resets/look', { body: { token } })),
  useReset: (token: string, password: string) => got(http.POST('/api/resets/use', { body: { token, password } })),
}

/** A person's own link: what its holder asks (the cookie is of that path alone), and what coaches do with it. */
const checkIn = {
  openOwnLink: (token: string) => got(http.POST('/api/checkin/open', { body: { token } })),
  ownPage: (units: Me['units'] | null) => got(http.GET('/api/checkin', { params: { query: { units } } })),
  /** Say something by the link that is told: refused where this phone has opened another meanwhile. */
  say: (link: number, said: Body<'SaidIn'>['said']) =>
    got(http.POST('/api/checkin/say', { body: { link, sent: new Date().toISOString(), said } })),
  dropOwnDevice: (id: number) =>
    got(http.DELETE('/api/checkin/devices/{device_id}', { params: { path: { device_id: id } } })),
  endOwnLink: () => got(http.DELETE('/api/checkin')),
  checkInLink: (id: string) => got(http.GET('/api/people/{person_id}/checkin', { params: ofPerson(id) })),
  makeCheckInLink: (id: string) => got(http.POST('/api/people/{person_id}/checkin', { params: ofPerson(id) })),
  endCheckInLink: (id: string) => got(http.DELETE('/api/people/{person_id}/checkin', { params: ofPerson(id) })),
}

const sessions = {
  sessions: (query: SessionsAsked = {}, signal?: AbortSignal) =>
    got(http.GET('/api/sessions', { params: { query }, signal })),
  sessionNames: () => got(http.GET('/api/sessions/names')),
  session: (id: string) => got(http.GET('/api/sessions/{session_id}', { params: session(id) })),
  createSession: (document: SessionDoc, squad: number) =>
    got(http.POST('/api/sessions', { body: { document, squad: squadOrFirst(squad) } })),
  importSession: (kind: 'json' | 'txt', text: string, squad: number) =>
    got(http.POST('/api/sessions/import', { body: { kind, text, squad: squadOrFirst(squad) } })),
  pinSession: (id: string) => got(http.POST('/api/sessions/{session_id}/pin', { params: session(id) })),
  saveSession: (id: string, base: string, tab: string, document: SessionDoc) =>
    got(http.PUT('/api/sessions/{session_id}', { params: session(id), body: { base, tab, document } })),
  duplicateSession: (id: string) => got(http.POST('/api/sessions/{session_id}/duplicate', { params: session(id) })),
  archiveSession: (id: string, archived = true) =>
    got(http.POST('/api/sessions/{session_id}/archive', { params: { ...session(id), query: { archived } } })),
  revisions: (id: string) => got(http.GET('/api/sessions/{session_id}/revisions', { params: session(id) })),
  revision: (id: string, number: number) =>
    got(http.GET('/api/sessions/{session_id}/revisions/{revision_id}', { params: revision(id, number) })),
  differences: (id: string, number: number) =>
    got(http.GET('/api/sessions/{session_id}/revisions/{revision_id}/differences', { params: revision(id, number) })),
}

const figures = {
  figures: (body: Body<'FiguresIn'>, signal: AbortSignal) => got(http.POST('/api/figures', { body, signal })),
  explain: (body: Body<'ExplainIn'>, signal?: AbortSignal) => got(http.POST('/api/explain', { body, signal })),
  fit: (body: Body<'FitIn'>, signal?: AbortSignal) => got(http.POST('/api/fit', { body, signal })),
  card: (document: SessionDoc, squad: number) => got(http.POST('/api/card', { body: { document, squad } })),
  /** The card as a file. */
  cardPdf: (document: SessionDoc, squad: number, paper: 'a4' | 'letter') =>
    fileOf(http.POST('/api/card.pdf', { body: { document, squad, paper }, parseAs: 'stream' })),
}

const words = {
  readBoard: (text: string, before: SessionDoc | null, squad: number, settled: Settled = {}, signal?: AbortSignal) =>
    got(http.POST('/api/board', { body: { text, before, squad, settled }, signal })),
  choseReading: (rule: string, reading: number, squad: number) =>
    got(http.POST('/api/board/readings', { body: { rule, reading, squad: squadOrFirst(squad) } })),
  habits: (squad: number) => got(http.GET('/api/squads/{squad_id}/habits', { params: ofSquad(squad) })),
  forgetHabit: (squad: number, rule: string) =>
    got(http.DELETE('/api/squads/{squad_id}/habits/{rule}', { params: { path: { squad_id: squad, rule } } })),
  writeBoard: (document: SessionDoc, squad: number, full = false) =>
    got(http.POST('/api/board/write', { body: { document, squad, full } })),
  /** The words that the session was read from, as long as they hold; else the written form. */
  wordsOf: (document: SessionDoc, squad: number, signal?: AbortSignal) =>
    got(http.POST('/api/board/write', { body: { document, squad, as_typed: true }, signal })),
  callMovement: (key: string, called: string, squad: number) =>
    got(http.POST('/api/movements/names', { body: { key, words: called, squad } })),
}

const library = {
  tables: () => got(http.GET('/api/tables')),
  movements: (squad: number) => got(http.GET('/api/movements', { params: { query: { squad: squadOrFirst(squad) } } })),
  nearMovements: (body: Body<'NearIn'>) => got(http.POST('/api/movements/near', { body })),
  importMovements: (
    kind: 'csv' | 'json',
    text: string,
    squad: number,
    how: { replace?: boolean; version?: string } = {},
  ) => got(http.POST('/api/movements', { body: { kind, text, squad: squadOrFirst(squad), replace: false, ...how } })),
  movement: (key: string, squad: number) =>
    got(http.GET('/api/movements/one', { params: { query: { key, squad: squadOrFirst(squad) } } })),
  previewMovements: (kind: 'csv' | 'json', text: string, squad: number) =>
    got(http.POST('/api/movements/preview', { body: { kind, text, squad: squadOrFirst(squad) } })),
  unknownMovements: (squad: number) =>
    got(http.GET('/api/movements/unknown', { params: { query: { squad: squadOrFirst(squad) } } })),
  settleMovement: (name: string, key: string, squad: number) =>
    got(http.POST('/api/movements/settle', { body: { name, key, squad: squadOrFirst(squad) } })),
  removeMovement: (key: string, squad: number) =>
    got(http.DELETE('/api/movements/{key}', { params: { path: { key }, query: { squad: squadOrFirst(squad) } } })),
  formats: () => got(http.GET('/api/formats')),
  makeFormat: (body: Body<'MakeIn'>, signal?: AbortSignal) => got(http.POST('/api/formats/make', { body, signal })),
  usualStep: (body: Body<'StepIn'>) => got(http.POST('/api/formats/step', { body })),
  shapes: (squad: number) => got(http.GET('/api/shapes', { params: { query: { squad } } })),
  keepShape: (body: Body<'ShapeIn'>) => got(http.POST('/api/shapes', { body })),
  dropShape: (id: number) => got(http.DELETE('/api/shapes/{shape_id}', { params: { path: { shape_id: id } } })),
}

const compare = {
  compareTables: () => got(http.GET('/api/compare/tables')),
  compare: (body: Body<'CompareIn'>, signal?: AbortSignal) =>
    answerOf(http.POST('/api/compare', { body, signal }), signal),
  compareSessions: (body: Body<'SessionsIn'>, signal?: AbortSignal) =>
    answerOf(http.POST('/api/compare/sessions', { body, signal }), signal),
  placeFormats: (body: Body<'PlacingIn'>, signal?: AbortSignal) =>
    answerOf(http.POST('/api/compare/week', { body, signal }), signal),
  sweep: (body: Body<'SweepIn'>, signal?: AbortSignal) =>
    answerOf(http.POST('/api/compare/sweep', { body, signal }), signal),
  useRecast: (body: Body<'UseIn'>) => got(http.POST('/api/compare/use', { body })),
  /** A comparison of formats as a file. */
  compareFile: (kind: 'csv' | 'xlsx', body: Body<'CompareIn'>) =>
    fileOf(http.POST('/api/compare.{kind}', { params: { path: { kind } }, body, parseAs: 'stream' })),
  /** A comparison of sessions as a file. */
  compareSessionsFile: (kind: 'csv' | 'xlsx', body: Body<'SessionsIn'>) =>
    fileOf(http.POST('/api/compare/sessions.{kind}', { params: { path: { kind } }, body, parseAs: 'stream' })),
}

const floor = {
  today: (squad: number) => got(http.GET('/api/floor/today', { params: { query: { squad: squadOrFirst(squad) } } })),
  floorSheet: (id: string) => got(http.GET('/api/floor/entries/{entry_id}/sheet', { params: entry(id) })),
  beginRun: (id: string, body: Body<'RunIn'>) =>
    got(http.PUT('/api/floor/runs/{run_id}', { params: { path: { run_id: id } }, body })),
  run: (id: string, since: number) =>
    got(http.GET('/api/floor/runs/{run_id}', { params: { path: { run_id: id }, query: { since } } })),
  runSheet: (id: string) => got(http.GET('/api/floor/runs/{run_id}/sheet', { params: { path: { run_id: id } } })),
  sendEvents: (id: string, since: number, events: Body<'EventsIn'>['events']) =>
    got(
      http.POST('/api/floor/runs/{run_id}/events', {
        params: { path: { run_id: id }, query: { since } },
        body: { events },
      }),
    ),
  floorClock: () => got(http.GET('/api/floor/clock')),
  stationWays: (id: string, people: number) =>
    got(http.GET('/api/floor/entries/{entry_id}/stations', { params: { ...entry(id), query: { people } } })),
  minutesLeft: (id: string, t: number, left_s: number) =>
    got(http.POST('/api/floor/runs/{run_id}/minutes', { params: { path: { run_id: id } }, body: { t, left_s } })),
  offers: (id: string, t: number) =>
    got(http.GET('/api/floor/runs/{run_id}/changes', { params: { path: { run_id: id }, query: { t } } })),
  addedText: (id: string, t: number, text: string) =>
    got(http.POST('/api/floor/runs/{run_id}/added', { params: { path: { run_id: id } }, body: { t, text } })),
  openWall: () => got(http.POST('/api/floor/wall/screens')),
  wall: (token: string, run: string | null, since: number) =>
    got(http.GET('/api/floor/wall', { params: { query: { run, since } }, headers: { 'X-Wall': token } })),
  pairWall: (code: string, squad: number) => got(http.POST('/api/floor/wall/pair', { body: { code, squad } })),
  screens: (squad: number) => got(http.GET('/api/floor/walls', { params: { query: { squad } } })),
  endScreen: (id: number) => got(http.DELETE('/api/floor/walls/{screen_id}', { params: { path: { screen_id: id } } })),
}

const plan = {
  week: (day: string, squad: number, whose: Whose = {}, signal?: AbortSignal) =>
    got(
      http.GET('/api/plan/week', {
        params: { query: { day, squad: squadOrFirst(squad), ...whose } },
        signal,
      }),
    ),
  planEntry: (body: Body<'EntryIn'>) => got(http.POST('/api/plan/entries', { body })),
  changeEntry: (id: string, body: PlanDetails & { version: number }) =>
    got(http.PATCH('/api/plan/entries/{entry_id}', { params: entry(id), body })),
  repeatEntry: (id: string, body: Body<'RepeatIn'>) =>
    got(http.POST('/api/plan/entries/{entry_id}/again', { params: entry(id), body })),
  attendance: (id: string) => got(http.GET('/api/plan/entries/{entry_id}/attendance', { params: entry(id) })),
  attend: (id: string, body: Body<'AttendanceIn'>) =>
    got(http.PUT('/api/plan/entries/{entry_id}/attendance', { params: entry(id), body })),
  split: (id: string, body: Body<'TeamsIn'>) =>
    got(http.PUT('/api/plan/entries/{entry_id}/teams', { params: entry(id), body })),
  keepEntry: (id: string) => got(http.POST('/api/plan/entries/{entry_id}/session', { params: entry(id) })),
  dropEntry: (id: string, version: number) =>
    got(http.DELETE('/api/plan/entries/{entry_id}', { params: { ...entry(id), query: { version } } })),
  notedOfEntry: (id: string) => got(http.GET('/api/plan/entries/{entry_id}/noted', { params: entry(id) })),
  removedEntries: (squad: number) => got(http.GET('/api/plan/removed', { params: { query: { squad } } })),
  restoreEntry: (id: string) => got(http.POST('/api/plan/entries/{entry_id}/restore', { params: entry(id) })),
  setDay: (day: string, body: Body<'DayIn'>) =>
    got(http.PUT('/api/plan/days/{day}', { params: { path: { day } }, body })),
  addPhase: (body: Body<'PhaseIn'>) => got(http.POST('/api/plan/phases', { body })),
  dropPhase: (id: number) => got(http.DELETE('/api/plan/phases/{phase_id}', { params: { path: { phase_id: id } } })),
  timesAway: (squad: number) => got(http.GET('/api/plan/away', { params: { query: { squad: squadOrFirst(squad) } } })),
  addAway: (body: Body<'AwayIn'>) => got(http.POST('/api/plan/away', { body })),
  dropAway: (id: number) => got(http.DELETE('/api/plan/away/{away_id}', { params: { path: { away_id: id } } })),
  season: (day: string, weeks: number, squad?: number, whose: Whose = {}) =>
    got(http.GET('/api/plan/season', { params: { query: { day, weeks, squad: squad || null, ...whose } } })),
  beside: (day: string, other: string, squad: number) =>
    got(http.GET('/api/plan/beside', { params: { query: { day, other, squad } } })),
  calendarLinks: (squad: number) => got(http.GET('/api/plan/links', { params: { query: { squad } } })),
  makeLink: (body: Body<'LinkIn'>) => got(http.POST('/api/plan/links', { body })),
  revokeLink: (id: number) => got(http.DELETE('/api/plan/links/{link_id}', { params: { path: { link_id: id } } })),
}

const log = {
  log: (squad: number, before?: string) =>
    got(http.GET('/api/log', { params: { query: { squad: squadOrFirst(squad), before: before ?? null } } })),
  settle: (entries: string[], away: string[]) => got(http.POST('/api/log/settle', { body: { entries, away } })),
  setLearning: (learning: 'auto' | 'ask', squad: number) =>
    got(http.PUT('/api/log/learning', { body: { learning, squad } })),
  logEntry: (id: string) => got(http.GET('/api/log/entries/{entry_id}', { params: entry(id) })),
  expected: (id: string) => got(http.GET('/api/log/entries/{entry_id}/expected', { params: entry(id) })),
  putRecording: (id: string, body: Body<'WatchIn'>) =>
    got(http.PUT('/api/log/entries/{entry_id}/watch', { params: entry(id), body })),
  dropCurve: (id: number) =>
    got(http.DELETE('/api/log/watch/{recording_id}/curve', { params: { path: { recording_id: id } } })),
  logFile: async (
    kind: 'json' | 'csv',
    squad: number,
    between: { first?: string; last?: string } = {},
  ): Promise<Blob> => {
    const params = { path: { kind }, query: { squad: squadOrFirst(squad), ...between } }
    const { response } = await http.GET('/api/log/file.{kind}', { params, parseAs: 'stream' })
    return response.blob()
  },
  lastDone: (squad: number) => got(http.GET('/api/log/last-done', { params: { query: { squad } } })),
  sendLogPart: (part: LogPart) => got(http.POST('/api/log/file/parts', { body: part })),
  bringLog: (last: LogPart) => got(http.POST('/api/log/file', { body: last })),
  foreseen: (document: SessionDoc, squad: number, person: string | null, signal?: AbortSignal) =>
    got(http.POST('/api/log/foreseen', { body: { document, squad: squadOrFirst(squad), person }, signal })),
  writeLog: (id: string, body: Body<'LogIn'>) =>
    got(http.PUT('/api/log/entries/{entry_id}', { params: entry(id), body })),
  unlog: (id: string) => got(http.DELETE('/api/log/entries/{entry_id}', { params: entry(id) })),
  writeResults: (id: string, results: Body<'ResultsIn'>['results']) =>
    got(http.PUT('/api/log/entries/{entry_id}/results', { params: entry(id), body: { results } })),
  chooseResult: (id: number) =>
    got(http.POST('/api/log/results/{result_id}/use', { params: { path: { result_id: id } } })),
  rate: (id: string, body: Body<'RatingIn'>) =>
    got(http.PUT('/api/log/entries/{entry_id}/rating', { params: entry(id), body })),
  writeNote: (id: string, body: Body<'NoteIn'>) =>
    got(http.POST('/api/log/entries/{entry_id}/notes', { params: entry(id), body })),
  liftNote: (id: number) => got(http.POST('/api/log/notes/{note_id}/lift', { params: { path: { note_id: id } } })),
  personLog: (id: string) => got(http.GET('/api/log/people/{person_id}', { params: ofPerson(id) })),
  useLearned: (id: string, use: Body<'UsePaceIn'>['use']) =>
    got(http.PUT('/api/log/people/{person_id}/learned', { params: ofPerson(id), body: { use } })),
}

const level = {
  askToLevel: (body: Body<'LevelIn'>) => got(http.POST('/api/plan/level', { body })),
  proposal: (id: string) => got(http.GET('/api/plan/level/{job_id}', { params: job(id) })),
  previewLevel: (id: string, edits: number[], signal?: AbortSignal) =>
    got(http.POST('/api/plan/level/{job_id}/preview', { params: job(id), body: { edits }, signal })),
  takeLevel: (id: string, edits: number[]) =>
    got(http.POST('/api/plan/level/{job_id}/take', { params: job(id), body: { edits } })),
  undoChange: (id: number, item: number) =>
    got(http.POST('/api/plan/changes/{change_id}/undo/{item}', { params: { path: { change_id: id, item } } })),
}

const people = {
  healthReports: (squad: number) => got(http.GET('/api/reports', { params: { query: { squad } } })),
  people: (squad: number) => got(http.GET('/api/people', { params: { query: { squad } } })),
  person: (id: string) => got(http.GET('/api/people/{person_id}', { params: ofPerson(id) })),
  addPerson: (body: Body<'NewPersonIn'>) => got(http.POST('/api/people', { body })),
  previewPeople: (text: string, squad: number) => got(http.POST('/api/people/list/preview', { body: { text, squad } })),
  takePeople: (text: string, squad: number) => got(http.POST('/api/people/list', { body: { text, squad } })),
  undoImport: (undo: string) => got(http.POST('/api/people/list/undo', { body: { undo } })),
  changePerson: (id: string, body: Body<'PersonIn'>) =>
    got(http.PATCH('/api/people/{person_id}', { params: ofPerson(id), body })),
  setGroups: (id: string, groups: number[]) =>
    got(http.PUT('/api/people/{person_id}/groups', { params: ofPerson(id), body: { groups } })),
  addMaximum: (id: string, body: Body<'SetIn'>) =>
    got(http.POST('/api/people/{person_id}/maxima', { params: ofPerson(id), body })),
  dropMaximum: (id: number) =>
    got(http.DELETE('/api/people/maxima/{maximum_id}', { params: { path: { maximum_id: id } } })),
  setCapacity: (id: string, body: Body<'CapacityIn'>) =>
    got(http.PUT('/api/people/{person_id}/capacity', { params: ofPerson(id), body })),
  addLimit: (id: string, body: Body<'LimitIn'>) =>
    got(http.POST('/api/people/{person_id}/limits', { params: ofPerson(id), body })),
  endLimit: (id: number) => got(http.DELETE('/api/people/limits/{limit_id}', { params: { path: { limit_id: id } } })),
  guardianAgreed: (id: string, body: Body<'GuardianIn'>) =>
    got(http.PUT('/api/people/{person_id}/guardian', { params: ofPerson(id), body })),
  setNamed: (id: string, agreed: boolean) =>
    got(http.PUT('/api/people/{person_id}/named', { params: ofPerson(id), body: { agreed } })),
  traces: (id: string) => got(http.GET('/api/people/{person_id}/traces', { params: ofPerson(id) })),
  erasePerson: (id: string, fromTexts: boolean, password: string) =>
    got(
      http.POST('/api/people/{person_id}/erase', {
        params: ofPerson(id),
        body: { from_texts: fromTexts, password },
      }),
    ),
  personFile: (id: string, password: string) =>
    fileOf(
      http.POST('/api/people/{person_id}/export', { params: ofPerson(id), body: { password }, parseAs: 'stream' }),
    ),
  groups: (squad: number) => got(http.GET('/api/groups', { params: { query: { squad } } })),
  addGroup: (body: Body<'NewGroupIn'>) => got(http.POST('/api/groups', { body })),
  changeGroup: (id: number, body: Body<'GroupIn'>) =>
    got(http.PATCH('/api/groups/{group_id}', { params: { path: { group_id: id } }, body })),
  endGroup: (id: number) => got(http.DELETE('/api/groups/{group_id}', { params: { path: { group_id: id } } })),
  otherwise: (document: SessionDoc, squad: number, signal?: AbortSignal) =>
    got(http.POST('/api/otherwise', { body: { document, squad }, signal })),
}

const squad = {
  settings: (id: number) => got(http.GET('/api/squads/{squad_id}/settings', { params: ofSquad(id) })),
  changeSettings: (id: number, body: Body<'SettingsIn'>) =>
    got(http.PATCH('/api/squads/{squad_id}/settings', { params: ofSquad(id), body })),
  foundSquad: (body: Body<'SquadIn'>) => got(http.POST('/api/squads', { body })),
  timeZones: () => got(http.GET('/api/time-zones')),
  history: (id: number, before?: number) =>
    got(http.GET('/api/squads/{squad_id}/history', { params: { ...ofSquad(id), query: { before } } })),
  members: (id: number) => got(http.GET('/api/squads/{squad_id}/members', { params: ofSquad(id) })),
  changeRole: (id: number, role: string) =>
    got(http.PATCH('/api/members/{member_id}', { params: { path: { member_id: id } }, body: { role } })),
  removeMember: (id: number) => got(http.DELETE('/api/members/{member_id}', { params: { path: { member_id: id } } })),
  makeReset: (id: number) => got(http.POST('/api/members/{member_id}/reset', { params: { path: { member_id: id } } })),
  invitations: (id: number) => got(http.GET('/api/squads/{squad_id}/invitations', { params: ofSquad(id) })),
  invite: (id: number, body: Body<'InvitationIn'>) =>
    got(http.POST('/api/squads/{squad_id}/invitations', { params: ofSquad(id), body })),
  endInvitation: (id: number) =>
    got(http.DELETE('/api/invitations/{invitation_id}', { params: { path: { invitation_id: id } } })),
  /** The squad's own export. */
  squadFile: (id: number, health: boolean, password: string) =>
    fileOf(
      http.POST('/api/squads/{squad_id}/export', {
        params: ofSquad(id),
        body: { health, password },
        parseAs: 'stream',
      }),
    ),
  mutedChecks: (id: number) =>
    got(http.GET('/api/squads/{squad_id}/muted-checks', { params: { path: { squad_id: id } } })),
  muteCheck: (id: number, code: string, muted: boolean) => {
    const params = { path: { squad_id: id, code } }
    return muted
      ? got(http.PUT('/api/squads/{squad_id}/muted-checks/{code}', { params }))
      : got(http.DELETE('/api/squads/{squad_id}/muted-checks/{code}', { params }))
  },
  methodsPage: (id: number) => got(http.GET('/api/squads/{squad_id}/methods/page', { params: ofSquad(id) })),
  methodsHistory: (id: number) => got(http.GET('/api/squads/{squad_id}/methods/history', { params: ofSquad(id) })),
  changeMethods: (id: number, body: Body<'MethodsIn'>) =>
    got(http.PATCH('/api/squads/{squad_id}/methods', { params: { path: { squad_id: id } }, body })),
}

export const api = {
  ...account,
  ...links,
  ...checkIn,
  ...sessions,
  ...figures,
  ...words,
  ...library,
  ...compare,
  ...floor,
  ...plan,
  ...log,
  ...level,
  ...people,
  ...squad,
}

export type { DocumentIn }
export { Refusal, UNREACHABLE } from './refusal'
