// Texts of Side by side, by component: one key each. Figures come in written already (words/format.ts).
import { said, type Said } from './said'
import { texts } from './texts'

export const COMPARE_TABLE = texts('compareTable', {
  columns: 'Columns',
  before: 'Before',
  of: (value: Said, all: Said) => said`${value} of ${all}:`,
  next: 'Next',
  row: 'Row',
  noStave: 'no stave',
  placeByYourWishes: (get: Said) => said`place ${get} by your wishes`,
  mark: 'mark',
  takeOut: 'take out',
  sortTheColumnsByThis: (key: Said) => said`Sort the columns by this row: ${key}`,
  sortedTheLeastFirst: 'sorted, the least first',
  notSorted: 'not sorted',
  sortedTheMostFirst: 'sorted, the most first',
  to: (low: Said, high: Said) => said`${low} to ${high}`,
})

export const DIFFERENCES_PANEL = texts('differencesPanel', {
  whatDiffers: 'What differs',
  whatDiffersFrom: (name: Said) => said`What differs from ${name}`,
  difference: (name: Said, count: Said, ending: Said) => said`${name}: ${count} difference${ending}`,
})

export const HOLD_BAR = texts('holdBar', {
  holdStill: 'Hold still',
  holdItAt: 'Hold it at',
  otherLoad: 'other load',
  otherMin: 'other, min',
  eachFormatIsFilledTo: 'Each format is filled to the closest that is not over it.',
  filledUpNeverOver: 'filled up, never over',
  addAFormat: 'Add a format',
  addAFormatHere: 'Add a format …',
  inPlaceOfTheLast: 'In place of the last …',
  rows: 'Rows',
  rowsOfTheTable: 'Rows of the table',
  nothingHere: ' (nothing here)',
  totalTime: 'total time',
  workTime: 'work time',
  repsCalled: 'reps called',
  doesNotFit: (format: Said) => said`${format} (does not fit)`,
})

export const PICTURE_TABLE = texts('pictureTable', {
  thePictureAsATable: 'The picture as a table',
  format: 'Format',
  frontier: 'Frontier',
  onIt: 'on it',
})

export const PLACING_PANEL = texts('placingPanel', {
  intoTheWeek: 'Into the week',
  putEachOnEachFree: 'Put each on each free day',
  toSeeWhatItWould: ' to see what it would clash with, and the week’s load against its band.',
  weekBefore: 'Week before',
  weekOf: (begins: Said) => said`Week of ${begins}`,
  weekAfter: 'Week after',
  noBandIsSet: ', no band is set',
  planned: (plannedLoad: Said, band: Said) => said`planned ${plannedLoad}${band}`,
  noDayOfThisWeek: 'No day of this week is free.',
  format: 'Format',
  load: (load: Said) => said`load ${load}`,
  hardBesideHard: 'hard beside hard',
  theNumberIsTheWeeks: 'The number is the week’s load with the block on that day.',
  withinTheBand: 'within the band',
  to: (low: Said, high: Said) => said`${low} to ${high}`,
  overTheBand: (load: Said) => said`${load} over the band`,
  underTheBand: (load: Said) => said`${load} under the band`,
  clashesWith: (other: Said, what: Said, hours: Said) => said`clashes with ${other}: ${what}, ${hours} h`,
  another: 'another',
  theBandIs: (band: Said) => said`, the band is ${band}`,
})

export const QUESTION_PANEL = texts('questionPanel', {
  whichFormat: 'Which format',
  whichFormatAsked: 'Which format?',
  theseMovementsAsYouWould: 'These movements, as you would write them on the wall',
  in: 'in',
  minutes: 'minutes',
  minutesFor: 'minutes, for',
  whatMatters: 'What matters',
  ask: 'Ask',
})

export const SIDE_BY_SIDE_SCREEN = texts('sideBySideScreen', {
  sideBySide: 'Side by side',
  theSameWorkInOther: 'the same work in other formats',
  toTheBench: 'To the Bench',
  changeTheQuestion: 'Change the question',
  somethingElse: 'Something else',
  moreForThisComparison: 'More for this comparison',
  readAs: (readText: Said) => said`Read as ${readText}.`,
  notKnownSoLittleIs: 'Not known, so little is figured of it:',
  noMovementIn: 'No movement in:',
  pouring: 'Pouring …',
  noFormatFits: 'No format fits.',
  holdSomethingElseStillOr: (why: Said) =>
    said`${why} Hold something else still, or another amount of it; under “Why not” each says what is in its way.`,
  comesFirst: (join: Said) => said`comes first. ${join}`,
  sayWhatMattersAndThe: 'Say what matters, and the columns are ranked by it, with the reasons.',
  nextBest: 'Next best:',
  showItBeside: ': show it beside',
  does: ' does',
  sDo: 's do',
  otherNotFitWhyNot: (count: Said, ending: Said) => said`${count} other${ending} not fit; “Why not” says why.`,
  wholeSessionsHeldAgainstThe: 'whole sessions, held against the first',
  mainPart: 'main part',
  asATableCsv: 'As a table (.csv)',
  asAWorkbookXlsx: 'As a workbook (.xlsx)',
  print: 'Print',
  whichFormatIn: (minutes: Said, what: Said) => said`which format in ${minutes} minutes${what}?`,
  forWhat: (what: Said) => said`, for ${what}`,
  aBlock: 'a block',
  partOf: (part: Said, session: Said) => said`${part} of ${session}`,
})

export const START_PANEL = texts('startPanel', {
  fromASession: 'From a session',
  aSessionsMainPartIn: 'A session’s main part in other formats, or whole sessions side by side',
  fetchingTheSessions: 'Fetching the sessions …',
  noSessionYetChooseMovements: 'No session yet. Choose movements, or write one on the Bench.',
  sessionsToCompareWhole: 'Sessions to compare whole',
  compareWhole: 'Compare whole: ',
  mainPartInOtherFormats: 'main part in other formats',
  theseAreTheOnesChanged: (left: Said) =>
    said`These are the ones changed last; ${left} more can be opened from the list of sessions.`,
  compareSessions: (chosen: Said) => said`Compare ${chosen} sessions`,
})

export const SWEEP_PANEL = texts('sweepPanel', {
  theSweepInFigures: 'The sweep in figures',
  sweep: 'Sweep',
  sweepOneNumber: 'Sweep one number',
  format: 'format',
  number: 'number',
  from: 'from',
  to: 'to',
  by: 'by',
  nothingTurnsInThisRange: 'Nothing turns in this range.',
  oneFormatOverARange:
    'One format over a range of one of its numbers, the others as in the table above: to see where effort or density turns.',
  fallsDownToThereAnd: 'falls down to there and rises after it',
  turns: (figure: Said, at: Said, value: Said, way: Said) => said`${figure} turns at ${at} (${value}): it ${way}.`,
  risesUpToThereAnd: 'rises up to there and falls after it',
})

export const TRADE_OFF = texts('tradeOff', {
  tradeOff: 'Trade-off',
  across: 'across',
  up: 'up',
  svg: '.svg',
  png: '.png',
  twoColumnsWithBothFigures: 'Two columns with both figures make a picture.',
  against: (up: Said, across: Said) => said`${up} against ${across}`,
  onTheFrontier: ', on the frontier',
  place: (opened: Said) => said` · place ${opened}`,
  markIt: 'Mark it',
  showItBeside: 'Show it beside',
  filledMarksJoinedByThe: (across: Said, better: Said, up: Said, betterUp: Said) =>
    said`Filled marks joined by the line are beaten by none in both figures (${across}: ${better}; ${up}: ${betterUp}). Small ones are not in the table. The ring is the marked one`,
  theSquareThePlan: ', the square the plan',
  lessIsUsuallyWishedFor: 'less is usually wished for',
  moreIsUsuallyWishedFor: 'more is usually wished for',
  evenIsUsuallyWishedFor: 'even is usually wished for',
})

export const USE_MENU = texts('useMenu', {
  useTheMarkedOne: 'Use the marked one',
  use: (name: Said) => said`Use ${name}:`,
  replace: 'Replace',
  insertAfter: 'Insert after',
  newSession: 'New session',
  keepTheShape: 'Keep the shape',
  nameOfTheShape: 'Name of the shape',
  titleOfTheSession: 'Title of the session',
  thereIsAShapeOf: 'There is a shape of that name.',
  replaceIt: 'Replace it',
  keep: 'Keep',
  leaveIt: 'leave it',
  from: (session: Said) => said`, from ${session}`,
  keptAsTheShape: (name: Said) => said`Kept as the shape “${name}”: the Bench offers it among the formats.`,
})

export const WHY_NOT = texts('whyNot', {
  whyNot: 'Why not',
  whyNotHead: 'Why not …',
  whyNotWhichFormat: 'Why not which format',
  aFormat: 'a format',
  doesNotFit: ' does not fit.',
  showItBeside: 'Show it beside',
  everyFormatHasAnAnswer: 'Every format has an answer: what is in its way, or where the first does better.',
  fitsNot: (format: Said) => said`${format} · does not fit`,
})

export const WISH_BAR = texts('wishBar', {
  whatMatters: 'What matters',
  bound: (wish: Said) => said`${wish}: bound`,
  howMuchItMatters: (wish: Said, weight: Said) => said`${wish}: how much it matters, ${weight}`,
  mustBe: 'must be',
  weight: (wish: Said) => said`${wish}: weight`,
  dropTheWish: (wish: Said) => said`Drop the wish ${wish}`,
  addAWish: 'Add a wish',
  anotherWish: 'another wish …',
  sayWhatMatters: 'say what matters …',
  atMost: 'at most',
  atLeast: 'at least',
  notMet: 'not met',
  must: 'must',
  weightOf: (weight: Said) => said`weight ${weight}`,
  low: 'low',
  high: 'high',
  even: 'even',
  met: 'met',
})
