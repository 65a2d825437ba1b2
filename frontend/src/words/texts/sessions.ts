// Texts of the list of sessions, by component: one key each. Figures come in written already (words/format.ts).
import { said, type Said } from './said'
import { texts } from './texts'

export const SESSION_FILTERS = texts('sessionFilters', {
  sessions: 'Sessions',
  search: 'Search',
  titleOrTag: 'title or tag',
  tag: 'Tag',
  sortByTheShareOf: 'Sort by the share of a pattern',
  shareOf: 'share of …',
  putAway: 'put away',
  movementsAsCsv: 'movements as .csv',
  takeInAFile: 'Take in a file',
  newSession: 'New session',
  anyTag: 'any tag',
  shareOfRow: (row: Said) => said`share of ${row}`,
})

export const SESSION_LIST = texts('sessionList', {
  archivedNow: (title: Said) => said`Archived ${title}.`,
  restoredNow: (title: Said) => said`Restored ${title}.`,
  takeThoseOfTheFile: 'Take those of the file',
  fetchingTheSessions: 'Fetching the sessions …',
  noSessionIsCalledOr: 'No session is called or tagged so.',
  nothingIsPutAway: 'Nothing is put away.',
  noSessionYetNewSession: 'No session yet. “New session” starts one.',
  pagesOfSessions: 'Pages of sessions',
  workDensityAndEffortAre:
    'Work, density and effort are of the parts that count (main and finisher); length and load of all.',
})

export const SESSION_TABLE = texts('sessionTable', {
  session: (order: Said) => said`Session${order}`,
  lastChanged: (order: Said) => said`last changed${order}`,
  byName: 'name',
  sortedBy: 'sorted by',
  stave: 'Stave',
  whatToDo: 'What to do',
  copy: (title: Said) => said`Copy ${title}`,
  copyIt: 'Copy',
  cardOf: (title: Said) => said`Card of ${title}`,
  card: 'Card',
  bringBack: 'Bring back',
  putAway: 'Put away',
  length: 'Length',
  work: 'Work',
  density: 'Density',
  effort: 'Effort',
  load: 'Load',
  leastFirst: ', the least first',
  mostFirst: ', the most first',
})
