// Texts of the parts that screens share, by component: one key each. Figures come in written already (words/format.ts).
import { said, type Said } from './said'
import { texts } from './texts'

export const APP = texts('app', {
  skipToTheContent: 'Skip to the content',
})

export const UNITS_CHOICE = texts('unitsChoice', {
  label: 'What weights and distances are told in',
  systems: { metric: 'kilograms and metres', imperial: 'pounds, yards and miles' },
})

export const MORE_MENU = texts('moreMenu', {
  more: 'More',
})

export const MOVEMENT_PICKER = texts('movementPicker', {
  aNameOrAPart: 'a name or a part of it',
  nothingIsCalledSoHere: 'Nothing is called so here.',
  enterDefinesItAsA: ' Enter defines it as a new movement.',
  defineANewOne: 'define a new one',
  close: 'close',
  noReps: 'no reps',
  pattern: 'pattern',
  anyPattern: 'any pattern',
  kit: 'kit',
  anyKit: 'any kit',
  position: 'position',
  anyPosition: 'any position',
  jointToSpare: 'joint to spare',
  noJointToSpare: 'no joint to spare',
  lastDone: (days: Said) => said`last done ${days} days ago`,
  doneToday: 'done today',
  spare: (joint: Said) => said`spare the ${joint}`,
  noKit: 'no kit',
})

export const OTHERWISE = texts('otherwise', {
  takes: (names: Said, option: Said) => said`${names}: ${option}`,
  eases: (names: Said, option: Said) => said`${names}: ${option}, which eases it`,
  nothingSpares: (names: Said) => said`${names}: no option spares this`,
  nothingSparesTry: (names: Said, instead: Said) => said`${names}: no option spares this; ${instead} would`,
  because: (why: Said) => said` (${why})`,
})

/** Said in full, as several may stand on one page. */
export const METHODS_LINK = texts('methodsLink', {
  how: {
    pace: 'How paces are estimated',
    density: 'How density comes about',
    effort: 'How effort is estimated',
    load: 'How load and ratios come about',
    balance: 'How balance is weighed',
    learning: 'How estimates learn',
    checks: 'What the checks go by',
    safety: 'What no figure knows',
  },
})

export const OPENED_FIGURE = texts('openedFigure', {
  addedUp: 'added up',
  quadraticMean: 'quadratic mean',
  theLargest: 'the largest',
  wholeRepsThatFit: 'whole reps that fit',
  readOffTheEffortScale: 'read off the effort scale',
  asTyped: 'as typed',
  none: 'nothing adds to it',
  of: (amount: Said, label: Said) => said`${amount} of ${label}`,
  in: 'in',
  to: 'to',
})

export const SIDE_RAIL = texts('sideRail', {
  screens: 'Screens',
  fine: 'Fine',
  tally: 'Tally',
  floor: 'Floor',
  log: 'Log',
  week: 'Week',
  bench: 'Bench',
  sideBySide: 'Side by side',
  movements: 'Movements',
  methods: 'Methods',
  people: 'People',
  you: 'You',
  squad: 'Squad',
  of: 'of',
  whichSquad: 'Which squad',
  account: 'your account',
  signOut: 'Sign out',
})

export const TIME_FIELD = texts('timeField', {
  anyTime: 'any time',
})

export const NOTICES = texts('notices', {
  aFault: 'A fault',
  somethingWentWrong:
    'Something went wrong here. What you wrote is still there; if it happens again, load the page anew.',
})

export const LINK_SHOWN = texts('linkShown', {
  shownThisOnce: 'The link is shown this once. Copy it, or let them take it off the screen.',
  copy: 'Copy the link',
  copied: 'Copied',
  qrCode: 'The link as a QR code',
  goodUntil: (when: Said) => said`Good until ${when}, and once.`,
  sent: 'It was sent by e-mail, too.',
  notSent: 'The e-mail could not be sent: hand the link on yourself.',
})

export const NOTICE_BAR = texts('noticeBar', {
  renewed: 'Fine Tally was renewed.',
  openAnew: 'Open it anew',
  read: 'I have read it',
})

export const WAITING_RUNS = texts('waitingRuns', {
  one: '1 run on this phone is waiting to be sent.',
  several: (count: Said) => said`${count} runs on this phone are waiting to be sent.`,
})

export const PUT_BACK = texts('putBack', {
  takenOff: (title: Said) => said`${title} was taken off the plan. What was run of it is kept.`,
  putBack: 'Restore the session',
})

export const UNDO_BAR = texts('undoBar', {
  undo: 'Undo',
  dismiss: 'Dismiss',
})

export const GROUP_MARK = texts('groupMark', {
  group: (name: Said, mark: Said) => said`group ${name}, marked with a ${mark}`,
})

export const SURE = texts('sure', {
  really: 'Yes, do it',
  no: 'No, leave it',
})
