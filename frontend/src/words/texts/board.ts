// Texts of the board's editor, by component: one key each. Figures come in written already (words/format.ts).
import { said, type Said } from './said'
import { texts } from './texts'

export const BOARD_EDITOR = texts('boardEditor', {
  whatIsWrongWithThe: 'What is wrong with the text',
  lineColumn: (line: Said, column: Said) => said`line ${line}, column ${column}`,
  foundAllowed: (found: Said, allowed: Said) => said`found ${found}; allowed: ${allowed}`,
  anyWordsWillDoRounds: 'Any words will do: rounds, windows, every minute, a table from a sheet.',
  showMeAnExample: 'Show me an example',
  readOneWayOfSeveral: (openPlaces: Said) => said`${openPlaces} read one way of several`,
  new: (fresh: Said) => said`${fresh} new`,
  notInTheFigures: (unread: Said) => said`${unread} not in the figures`,
  everythingUnderstood: 'Everything was understood.',
  numbersUnused: (count: Said) => said`${count} numbers are not in the figures`,
  oneNumberUnused: '1 number is not in the figures',
  notReadYet: 'This text could not be read. It is saved, and read again when you change it.',
  altK: 'Alt+K',
  keepAll: 'Keep all',
  writtenOut: 'Written out',
  altNGoesToThe: 'Alt+N goes to the next mark, Alt+↓ opens it, Alt+K keeps all. ',
  ctrlSpaceOffersWhatCan: 'Ctrl Space offers what can stand here.',
  boardText: 'Board text',
  writeOrPasteTheSession: 'Write or paste the session as you would tell it …',
  onePlaceWas: '1 place was',
  placesWere: (count: Said) => said`${count} places were`,
  oneLineIs: '1 line is',
  linesAre: (count: Said) => said`${count} lines are`,
  oneMovementIs: '1 movement is',
  movementsAre: (count: Said) => said`${count} movements are`,
})

export const BOARD_OUTLINE = texts('boardOutline', {
  whatTheWordsComeTo: 'What the words come to',
  newGuessed: ' (new, guessed)',
})

export const BOARD_PANE = texts('boardPane', {
  theseAreSessionsByTheir: (sessions: Said) => said`These are ${sessions} sessions by their days.`,
  makeSessionsOfIt: (sessions: Said) => said`Make ${sessions} sessions of it`,
})

export const MARK_MENU = texts('markMenu', {
  whatLineCouldMean: (line: Said) => said`What line ${line} could mean`,
  keepWhatIsRead: 'keep what is read',
  close: 'close',
  esc: 'Esc',
  habit: 'as you usually have it',
  asRead: 'as read',
  hereAndInLaterSessions: 'here and in later sessions',
  tellWhatItIs: 'tell what it is',
  isReadAs: (words: Said, reading: Said) => said`“${words}” is read as: ${reading}`,
  kept: 'kept',
  isNew: (words: Said) => said`“${words}” is new: 3 s a rep, effort as with a moderate movement`,
  itIs: (movement: Said) => said`it is ${movement}`,
})

export const BOARD_TROUBLE = texts('boardTrouble', {
  fromBefore: 'The blocks have something wrong in them, so the board text is from before.',
})

export const LINE_MARKS = texts('lineMarks', {
  guessed: 'guessed',
  unread: 'not in the figures',
  unused: (numbers: Said) => said`${numbers} not in the figures`,
  note: 'note',
})
