// What the keys of each screen do, by the name of its route; the keys themselves: words/keys.ts.
import { texts } from './texts'

export const KEY_NAMES = texts('keyNames', { arrowsOn: 'arrows on ⋮⋮ or a code', deleteOn: 'Delete on a code' })

export const KEYS_DO = texts('keysDo', {
  tab: 'to the next field or button, and back',
  escape: 'close what is open',
  help: 'this help',
  typed: 'keep what was typed, and go on',
  addBlock: 'add a block',
  board: 'blocks or board text',
  fit: 'fit to the minutes there are',
  plan: 'put it on a day',
  card: 'the card',
  formats: 'other formats, side by side',
  versions: 'versions',
  stave: 'to the stave',
  undo: 'undo',
  redo: 'redo',
  more: 'in a number: try more or less; Shift for five',
  keepTried: 'keep what was tried / give it back',
  readings: 'in board text: other readings of the place',
  move: 'move a block or a movement',
  takeOut: 'take the movement out',
  byWindow: 'on the stave: window by window',
  closer: 'on the stave: closer, further, all',
  along: 'on the stave: along',
  read: 'read the text',
  print: 'print it',
  ask: 'ask which format',
  openFormat: 'in the picture: open a format',
  byDay: 'on a session: a day earlier or later',
  byWeek: 'week by week',
  openWeek: 'open the week',
  due: 'what is due: start, next, round done',
  back: 'back',
  hold: 'hold, and go on',
})
