// Texts of the Bench, by component: one key each. Figures come in written already (words/format.ts).
import { said, type Said } from './said'
import { texts } from './texts'

export const ADD_BLOCK = texts('addBlock', {
  addABlock: 'Add a block',
  format: 'Format',
  partOfTheNewBlock: 'Part of the new block',
  enterOnAnEmptyLine: (wanted: Said) => said`${wanted}; Enter on an empty line is done`,
  addTheBlock: 'Add the block',
  anotherFormat: 'another format',
  movement: (chosen: Said) => said`Movement ${chosen}`,
  atLeast: (least: Said) => said`${least} or more`,
  atLeastBy: (least: Said, by: Said) => said`${least} movements or more, by ${by}`,
})

export const BENCH_HEADER = texts('benchHeader', {
  title: 'Title',
  told: 'told',
  ctrlZ: 'Ctrl Z',
  undo: 'Undo',
  fitToTime: 'Fit to time',
  sideBySide: 'Side by side',
  card: 'Card',
  moreForThisSession: 'More for this session',
  redo: 'Redo',
  ctrlShiftZ: 'Ctrl Shift Z',
  putOnADay: 'Put on a day',
  versions: 'Versions',
  asASessionFileJson: 'As a session file (.json)',
  asBoardTextWithAll: 'As board text with all that is in it (.txt)',
  keys: 'Keys',
  onePlaceNotRead: '1 place not read',
  placesNotRead: (count: Said) => said`${count} places not read`,
  nothingToSaveYet: 'Nothing to save yet',
  comesTo: (time: Said) => said`comes to ${time}`,
  slack: (time: Said) => said`slack ${time}`,
  overBy: (time: Said) => said`over by ${time}`,
})

export const BENCH_SCREEN = texts('benchScreen', {
  thisSessionCannotBeOpened: 'This session cannot be opened',
  toTheSessions: 'To the sessions',
  openingTheSession: 'Opening the session …',
  blocks: 'Blocks',
  board: 'Board',
  boardText: 'Board text',
  addBlock: 'Add block',
})

export const BLOCK_CARD = texts('blockCard', {
  block: (placed: Said, name: Said) => said`Block ${placed}, ${name}`,
  moveBlockArrowUpOr: (placed: Said) => said`Move block ${placed}: arrow up or down`,
  dragOrArrowKeys: 'Drag, or arrow keys',
  partOfBlock: (placed: Said) => said`Part of block ${placed}`,
  effortIs: (rpe: Said) => said`effort ${rpe}`,
  doneIn: (time: Said) => said`done in ${time}`,
  rounds: (rounds: Said, reps: Said) => said`${rounds} rounds + ${reps}`,
})

export const BLOCK_FOOT = texts('blockFoot', {
  rest: 'rest',
  after: ' after',
  moreNumbers: 'more numbers',
  fewerNumbers: 'fewer numbers',
  otherFormats: 'other formats',
  again: 'again',
  remove: 'remove',
  ofBlock: (placed: Said) => said` block ${placed}`,
  addABlockHere: 'add a block here',
  afterBlock: (placed: Said) => said`, after block ${placed}`,
})

export const BLOCK_MORE = texts('blockMore', {
  peopleMoveDuringTheTalk: 'people move during the talk',
  asUsual: 'as usual',
  optional: 'optional',
  no: 'no',
  notes: 'notes',
})

export const BLOCK_SENTENCE = texts('blockSentence', {
  label: 'Label',
  format: 'format',
  formatAndItsNumbers: 'Format and its numbers',
  mayEndBefore: 'may end before',
  mayBeLeftOut: 'may be left out',
  peopleMoveDuringTheTalk: 'people move during the talk',
})

export const BLOCKS_PANE = texts('blocksPane', {
  startFromAText: 'Start from a text',
  pasteOrWriteItIn: 'paste or write it in your own words; or add a block:',
  addABlock: 'Add a block',
})

export const CHECK_LIST = texts('checkList', {
  checks: 'Checks',
  theChecksHaveNothingTo: 'The checks have nothing to say.',
  onPurpose: 'On purpose',
  lookAgain: 'look again',
  acceptIt: 'on purpose',
  doNotTellTheSquad: (code: Said) => said`Do not tell the squad of ${code} any more`,
  mute: 'mute',
  forTheSquad: (code: Said) => said` ${code} for the squad`,
  mutedForTheSquad: 'Muted for the squad:',
  tellAgain: 'tell again',
  of: (code: Said) => said` of ${code}`,
  fewer: 'fewer',
})

export const CONFLICT_BAR = texts('conflictBar', {
  savedThisSessionAtAfter: (savedBy: Said, savedAt: Said, id: Said) =>
    said`${savedBy} saved this session at ${savedAt}, after you opened it. Yours is kept as version ${id}; nothing is lost.`,
  showTheirs: 'Show theirs',
  putMineOnTop: 'Put mine on top',
})

export const FILE_WARNINGS = texts('fileWarnings', {
  oneKey: '1 key of the file has no effect',
  keys: (count: Said) => said`${count} keys of the file have no effect`,
  unknown: 'is not known here. It is kept in the file.',
  noMeaning: 'means nothing with this clock. It is kept in the file.',
})

export const EFFORT_FIELD = texts('effortField', {
  effort: 'effort',
})

export const FIT_PANEL = texts('fitPanel', {
  fitToTime: 'Fit to time',
  minutesThereAre: 'Minutes there are',
  close: 'close',
  nothingHereBringsItTo: 'Nothing here brings it to that: no exit, round, window or rest is enough.',
  left: (left: Said) => said`, ${left} left`,
  densityEffortLoad: (density: Said, rpe: Said, load: Said) =>
    said`· density ${density} · effort ${rpe} · load ${load}`,
  enter: 'Enter',
  typeMinutes: 'Type the minutes there are, 32 say.',
})

export const FORMAT_PALETTE = texts('formatPalette', {
  pairsPyramidEveryMinute: '20 10 pairs, pyramid, every minute …',
  ownShapeOf: (toLowerCase: Said) => said`own shape of ${toLowerCase}`,
  noFormatIsCalledSo: 'No format is called so.',
  close: 'close',
  ownShapes: 'Own shapes:',
  forget: (one: Said) => said`forget “${one}”`,
  orMoreMovements: (least: Said) => said`${least} or more movements`,
  toMovements: (least: Said, most: Said) => said`${least} to ${most} movements`,
  oneMovement: '1 movement',
  movements: (count: Said) => said`${count} movements`,
})

export const FORMAT_ROW = texts('formatRow', {
  formatOfBlock: (placed: Said) => said`Format of block ${placed}`,
  format: 'format',
  noneOfTheNamed: 'none of the named',
})

export const LEAVE_BAR = texts('leaveBar', {
  stayHere: 'Stay here',
  leaveWithoutIt: 'Leave without it',
})

export const LOAD_CELLS = texts('loadCells', {
  loadByRound: 'load by round',
  load: 'load',
  unitOfTheLoad: 'Unit of the load',
  ofThem: 'of them',
})

export const MOVEMENT_FORM = texts('movementForm', {
  newMovement: 'New movement',
  name: 'name',
  mostlyWorks: 'mostly works',
  choose: 'choose',
  and: 'and',
  shareOfTheFirst: 'share of the first',
  position: 'position',
  sides: 'sides',
  secondsARepEmptyNo: 'seconds a rep (empty: no reps)',
  metresASecond: 'metres a second',
  landingsARep: 'landings a rep',
  howHardALandingIs: 'How hard a landing is',
  holdsInOneRep: 'holds in one rep',
  pushUpSquatJump: '2 push-up, 1 squat jump',
  alsoCalled: 'also called',
  none: 'none',
  energyCostInMet: 'energy cost in MET',
  kit: 'kit',
  oneRepIs: 'one rep is',
  keepItForTheWhole: 'keep it for the whole squad',
  defineIt: 'Define it',
  back: 'back',
  aNewMovementNeedsA: 'A new movement needs a name and what it mostly works.',
  thereIsOneAlready: (key: Said) => said`There is a movement ${key} already.`,
  nothingElse: 'nothing else',
  nobodyKnows: (names: Said) => said`Nobody knows ${names}.`,
})

export const PLAN_PANEL = texts('planPanel', {
  putOnADay: 'Put on a day',
  day: 'Day',
  at: 'at',
  group: 'group',
  everyone: 'everyone',
  putItThere: 'Put it there',
  runItNow: 'Run it now',
  close: 'close',
  itStandsOnAsIt: (put: Said) => said`It stands on ${put}, as it is now.`,
  toThatWeek: 'To that week',
  itIsNotSavedAs: 'It is not saved as it stands, so it was not put on the day.',
})

export const SECTION_LINE = texts('sectionLine', {
  times: 'times',
  between: 'between',
  restAfter: 'rest after',
  together: 'Together',
})

export const STAVE_PANE = texts('stavePane', {
  stave: 'Stave',
  anEmptyPageAddA: 'An empty page. Add a block, or write on the board.',
  workingItOut: 'Working it out …',
  noStaveWhileSomethingIs: 'No stave while something is wrong.',
})

export const STEP_LINE = texts('stepLine', {
  moveArrowUpOrDown: (name: Said) => said`Move ${name}: arrow up or down`,
  dragOrArrowKeys: 'Drag, or arrow keys',
  change: (name: Said) => said`Change ${name}`,
  rest: 'rest',
  sides: 'sides',
  asTheMovementHasIt: 'as the movement has it',
  less: 'less',
  more: 'more',
  of: (name: Said) => said` of ${name}`,
  again: 'again',
  remove: 'remove',
  foundAllowed: (path: Said, found: Said, allowed: Said) => said`${path}: found ${found}; allowed: ${allowed}`,
  insteadOf: (name: Said) => said`Instead of ${name}`,
  toFill: 'to fill',
  thenInTheSameStart: 'then in the same start',
  reps: 'reps',
  for: 'for',
  distance: 'distance',
  moreEachRound: (grow: Said) => said`+${grow} each round`,
  leftInReserve: (reps: Said) => said`${reps} left in reserve`,
  tempo: (tempo: Said) => said`tempo ${tempo}`,
  secondsARep: (seconds: Said) => said`${seconds} s a rep`,
  or: (options: Said) => said`or ${options}`,
})

export const STEP_LIST = texts('stepList', {
  movementToAdd: 'Movement to add',
  addAMovement: 'add a movement',
  to: (block: Said) => said` to ${block}`,
})

export const STEP_MORE = texts('stepMore', {
  asTheBlock: 'as the block',
  leftInReserve: 'left in reserve',
  tempo: 'tempo',
  pace: 'pace',
  moreEachRound: 'more each round',
  toFill: 'to fill',
  nextOneInTheSame: 'next one in the same start',
  note: 'note',
  option: (label: Said) => said`Option ${label}`,
  or: 'or',
  label: 'label',
  level: 'level',
  theSame: 'the same',
  kit: 'kit',
  movement: 'movement',
  reps: 'reps',
  dose: 'dose ×',
  removeTheOption: 'remove the option',
  addAnOption: 'add an option',
})

export const TALLY_PANEL = texts('tallyPanel', {
  tally: 'Tally',
  onePlace: 'One place',
  cannotBeFiguredTheFigures: (places: Said) => said`${places} cannot be figured; the figures below are from before.`,
  whatIfDifferencesAreTo: 'What if: differences are to how it stood. Enter keeps it, Escape gives it back.',
  workTime: 'Work time',
  workRest: 'Work : rest',
  calledPacedGuessed: 'Called · paced · guessed',
  effort: 'Effort',
  are: 'are',
  is: 'is',
  newSARepEffort: (provisional: Said) =>
    said`${provisional} new: 3 s a rep, effort as for a moderate movement, no pattern yet.`,
  time: 'Time',
  volume: 'Volume',
  balance: 'Balance',
  exits: 'Exits',
  schools: 'Schools',
  nothingToTallyYet: 'Nothing to tally yet.',
  repsCalled: 'Reps called',
  repsPaced: 'Reps paced',
  repsGuessed: 'Reps guessed',
  effortTo: 'Effort, 0 to 10',
  theSquads: 'the squad’s',
  endsBefore: (block: Said) => said`Ends before ${block}`,
  loadBy: (time: Said, load: Said) => said`${time} · load ${load}`,
  places: (count: Said) => said`${count} places`,
})

export const VALUE_CELL = texts('valueCell', {
  round: (label: Said, index: Said) => said`${label}, round ${index}`,
  oneForAllRounds: (label: Said) => said`One ${label} for all rounds`,
  oneForAll: 'one for all',
  rounds: (label: Said) => said` rounds: ${label}`,
  foundAllowed: (path: Said, found: Said, allowed: Said) => said`${path}: found ${found}; allowed: ${allowed}`,
})

export const VERSIONS_PANEL = texts('versionsPanel', {
  versions: 'Versions',
  fetchingTheVersions: 'Fetching the versions …',
  whatChanged: 'what changed',
  bringItBack: 'bring it back',
  nothing: 'nothing',
  savedByItself: 'saved by itself',
  besideAnotherVersion: 'beside another version',
  kept: 'kept',
})

export const WHO_PANEL = texts('whoPanel', {
  asWhomWithWhat: 'As whom, with what',
  asWhom: 'As whom',
  as: 'as',
  withWhat: 'With what',
  with: 'with',
  of: (take: Said, block: Said) => said`${take} of ${block}`,
  fromTheLog: (made: Said) => said`${made}, logged`,
  anyone: 'anyone',
  me: 'myself',
  noOptionsHere: 'no options here',
  theStandard: 'the standard',
})

/** The numbers in a block's head. */
export const FIELDS = texts('fields', {
  rest: 'rest',
  betweenRounds: 'between rounds',
  betweenGroups: 'between groups',
  work: 'work',
  every: 'every',
  workUntil: 'work until',
  periods: 'periods',
  window: 'window',
  cap: 'cap',
  changeOver: 'change-over',
  laps: 'laps',
  talk: 'talk',
  pulseOn: 'pulse on',
  pulseOff: 'pulse off',
  rounds: 'rounds',
  stepsAtATime: 'at a time',
  repeat: 'repeat',
  betweenRepeats: 'between repeats',
  told: 'told',
  plannedEffort: 'planned effort',
})
