// The keys of each screen, by the name of its route, with what they do. They are few, and clash with no browser.
import { KEY_NAMES, KEYS_DO as say } from './texts/keys'

/** What opens help. */
export const HELP_SIGN = '?'

export interface Key {
  keys: string
  does: string
}
const TABBING: Key = { keys: 'Tab / Shift Tab', does: say.tab }
const CLOSING: Key = { keys: 'Esc', does: say.escape }
const HELP: Key = { keys: '?', does: say.help }
const COMMON = [TABBING, CLOSING, HELP] as const
const TYPED: Key = { keys: 'Enter', does: say.typed }

const BENCH_KEYS: readonly Key[] = [
  { keys: 'a', does: say.addBlock },
  { keys: 'b', does: say.board },
  { keys: 'f', does: say.fit },
  { keys: 'p', does: say.plan },
  { keys: 'c', does: say.card },
  { keys: 'o', does: say.formats },
  { keys: 'v', does: say.versions },
  { keys: 's', does: say.stave },
  { keys: 'Ctrl Z', does: say.undo },
  { keys: 'Ctrl Shift Z', does: say.redo },
  { keys: '↑ ↓', does: say.more },
  { keys: 'Enter / Esc', does: say.keepTried },
  { keys: 'Alt ↓', does: say.readings },
  { keys: KEY_NAMES.arrowsOn, does: say.move },
  { keys: KEY_NAMES.deleteOn, does: say.takeOut },
  { keys: '← →', does: say.byWindow },
  { keys: '+ − 0', does: say.closer },
  { keys: 'Shift ← →', does: say.along },
]

const OF_SCREENS: Readonly<Record<string, readonly Key[]>> = {
  first: [{ keys: 'Ctrl Enter', does: say.read }, ...COMMON],
  bench: [...BENCH_KEYS, ...COMMON],
  card: [{ keys: 'Ctrl P', does: say.print }, ...COMMON],
  'side-by-side': [{ keys: 'Ctrl Enter', does: say.ask }, { keys: 'Space', does: say.openFormat }, ...COMMON],
  week: [{ keys: 'Alt ← →', does: say.byDay }, ...COMMON],
  season: [{ keys: '← →', does: say.byWeek }, { keys: 'Enter', does: say.openWeek }, ...COMMON],
  floor: [
    { keys: 'Space / Page Down', does: say.due },
    { keys: 'Page Up', does: say.back },
    { keys: 'b', does: say.hold },
    HELP,
  ],
  scores: [TYPED, ...COMMON],
  logged: [TYPED, ...COMMON],
}

/** The keys of a screen. */
export const keysOf = (screen: string): readonly Key[] => OF_SCREENS[screen] ?? COMMON
