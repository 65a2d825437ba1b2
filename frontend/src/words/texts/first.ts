// Texts of the first page, by component: one key each. Figures come in written already (words/format.ts).
import { said, type Said } from './said'
import { texts } from './texts'

export const FIRST_SCREEN = texts('firstScreen', {
  onDay: (squad: Said, day: Said) => said`${squad}, ${day}`,
  reading: 'Reading what waits today …',
  waitsToday: 'What waits today',
  nothingToday: 'Nothing stands on today.',
  toTheWeek: 'To the week',
  waitsToBeLogged: 'Done, and not logged yet',
  logIt: (title: Said) => said`Log ${title}`,
  log: 'log it',
  comesTo: (minutes: Said, effort: Said) => said`${minutes} min · effort ${effort}`,
  lastSessions: 'Last sessions',
  allSessions: 'All sessions',
  noSessionYet: 'No session yet.',
  length: (time: Said) => said`${time} long`,
  start: 'Start',
  startFromAText: 'Start from a text',
  pasteIt: 'Paste it as it stands on the wall, or write it in your own words.',
  example: '3 rounds, 40 s on 20 s off: swings, push-ups, squats. 2 min rest …',
  readIt: 'Read it',
  firstSteps: 'New here? Take the first steps',
  orFromBlocks: 'or from blocks',
  whichFormat: 'Which format?',
  saysWhich: 'Say what there is to do and what matters; every format answers.',
  ask: 'Ask it',
})
