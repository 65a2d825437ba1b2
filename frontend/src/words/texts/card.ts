// Texts of the card, by component: one key each. Figures come in written already (words/format.ts).
import { said, type Said } from './said'
import { texts } from './texts'

export const CARD_SCREEN = texts('cardScreen', {
  backToTheBench: 'Back to the Bench',
  paper: 'paper',
  copied: 'Copied',
  shareAsText: 'Share as text',
  copyAsBoardText: 'Copy as board text',
  pdf: 'PDF',
  print: 'Print',
  writingTheCard: 'Writing the card …',
  letter: 'letter',
})

export const CARD_SHEET = texts('cardSheet', {
  told: (announced: Said) => said`told ${announced} · `,
  comesTo: (timetable: Said) => said`comes to ${timetable}`,
  people: (people: Said) => said` · ${people} people`,
  putOut: 'Put out:',
  onlyThere: (there: Said) => said` (only ${there} there)`,
  otherwise: 'Otherwise:',
  for: (names: Said, option: Said, movement: Said) => said`${names}: ${option} for ${movement}`,
  runningClockOf: (title: Said) => said`Running clock of ${title}`,
  call: (join: Said) => said`call: ${join}`,
  thenRest: (restAfter: Said) => said`then rest ${restAfter}`,
  score: 'score',
  orStopHere: 'or stop here',
})
