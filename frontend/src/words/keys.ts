// The keys of each screen, by the name of its route, with what they do. They are few, and clash with no browser.

/** What opens help. */
export const HELP_SIGN = '?'

export interface Key {
  keys: string
  does: string
}
const TABBING: Key = { keys: 'Tab / Shift Tab', does: 'to the next field or button, and back' }
const CLOSING: Key = { keys: 'Esc', does: 'close what is open' }
const HELP: Key = { keys: '?', does: 'this help' }
const COMMON = [TABBING, CLOSING, HELP] as const
const TYPED: Key = { keys: 'Enter', does: 'keep what was typed, and go on' }

const BENCH_KEYS: readonly Key[] = [
  { keys: 'a', does: 'add a block' },
  { keys: 'b', does: 'blocks or board text' },
  { keys: 'f', does: 'fit to the minutes there are' },
  { keys: 'p', does: 'put it on a day' },
  { keys: 'c', does: 'the card' },
  { keys: 'o', does: 'other formats, side by side' },
  { keys: 'v', does: 'versions' },
  { keys: 's', does: 'to the stave' },
  { keys: 'Ctrl Z', does: 'undo' },
  { keys: 'Ctrl Shift Z', does: 'redo' },
  { keys: '↑ ↓', does: 'in a number: try more or less; Shift for five' },
  { keys: 'Enter / Esc', does: 'keep what was tried / give it back' },
  { keys: 'Alt ↓', does: 'in board text: other readings of the place' },
  { keys: 'arrows on ⋮⋮ or a code', does: 'move a block or a movement' },
  { keys: 'Delete on a code', does: 'take the movement out' },
  { keys: '← →', does: 'on the stave: window by window' },
  { keys: '+ − 0', does: 'on the stave: closer, further, all' },
  { keys: 'Shift ← →', does: 'on the stave: along' },
]

const OF_SCREENS: Readonly<Record<string, readonly Key[]>> = {
  first: [{ keys: 'Ctrl Enter', does: 'read the text' }, ...COMMON],
  bench: [...BENCH_KEYS, ...COMMON],
  card: [{ keys: 'Ctrl P', does: 'print it' }, ...COMMON],
  'side-by-side': [
    { keys: 'Ctrl Enter', does: 'ask which format' },
    { keys: 'Space', does: 'in the picture: open a format' },
    ...COMMON,
  ],
  week: [{ keys: 'Alt ← →', does: 'on a session: a day earlier or later' }, ...COMMON],
  season: [{ keys: '← →', does: 'week by week' }, { keys: 'Enter', does: 'open the week' }, ...COMMON],
  floor: [
    { keys: 'Space / Page Down', does: 'what is due: start, next, round done' },
    { keys: 'Page Up', does: 'back' },
    { keys: 'b', does: 'hold, and go on' },
    HELP,
  ],
  scores: [TYPED, ...COMMON],
  logged: [TYPED, ...COMMON],
}

/** The keys of a screen. */
export const keysOf = (screen: string): readonly Key[] => OF_SCREENS[screen] ?? COMMON
