// What each screen says it is for, in three lines, by the name of its route. Its keys: words/keys.ts.
import { texts } from './texts'

export const HELP_PANEL = texts('helpPanel', {
  help: 'Help',
  on: 'What this screen is for',
  keys: 'Keys',
  theStave: 'The stave:',
  singleLettersActWhenNo: 'single letters act when no field has the focus',
  path: 'Take the first steps: write, look, compare, put on a day',
  methods: 'How figures come about',
  open: 'Help on this screen',
})

/** What a screen is for. */
export type ThreeLines = readonly [string, string, string]

export const SCREEN_HELP: Readonly<Record<string, ThreeLines>> = texts('screenHelp', {
  first: [
    'Where a day begins: what stands on it, and what waits to be logged.',
    'Paste what is on the wall, and it is read at once.',
    'Or ask which format serves the work best.',
  ],
  sessions: [
    'All sessions of the squad, with what each comes to.',
    'Find one by words and filters, sort by any figure, choose two to compare.',
    'Files of sessions and movements are dropped here.',
  ],
  bench: [
    'One session: its blocks on the left, what they come to on the right, its picture above.',
    'Every number opens with its + to the arithmetic that made it.',
    'At most three checks stand open, the weightiest first; each names its place.',
  ],
  card: [
    'The session as it hangs on the wall or goes to people, with the running clock.',
    'It prints on A4 and letter; who takes which option stands on it, and never why.',
    'Cautions and kit stand with it.',
  ],
  'side-by-side': [
    'The same work in other formats, one beside the other.',
    'Hold one figure, say what you wish for: formats that cannot meet it say what stands in the way.',
    'Take one into the session, or put each on each free day.',
  ],
  week: [
    'What stands on each day, and what the days make together.',
    'Move sessions by dragging or keys; clashes and ratios are told beside.',
    'Levelling proposes changes that one can read; each is taken or left.',
  ],
  season: [
    'The weeks of a season in one picture: rows by pattern, load against the phases.',
    'Point at a week to see what it came to.',
    'A week that nothing is planned in leaves the line open.',
  ],
  today: [
    'What is run today, and what was.',
    'A run that goes on is joined here from another phone.',
    'A screen on the wall shows your runs once its signs are typed here.',
  ],
  before: [
    'One page before the start: cautions, kit, who is here.',
    'Start is always there; nothing has to be answered.',
    'Who said something by their own link is marked with it.',
  ],
  floor: [
    'The session as it runs: what to do now, how long, what comes next.',
    'The large key is always what is due; everything can be taken back.',
    'It runs without a network, and sends what happened later.',
  ],
  scores: [
    'Scores of a session in one grid, on the screen or printed.',
    'Write rounds and reps as 5+12, a time as 7:40.',
    'What is typed here stands in the log at once.',
  ],
  log: [
    'What was done, week by week, and what waits to be logged.',
    'A day as planned is logged in one step; a run brings what differed.',
    'Estimates that were off three times running are told here.',
  ],
  logged: [
    'One session: planned against done, scores against what was expected.',
    'Type scores down the column; what people did otherwise opens by their name.',
    'Ratings move the day’s effort; notes of health are folded.',
  ],
  ratings: [
    'The tablet goes round: each taps their name, then how hard it was.',
    'Nobody sees what others said.',
    'Best asked ten minutes after the end.',
  ],
  'person-log': [
    'One person over time: scores of the same shape, ratings, weeks, movements.',
    'What is learned of their pace stands with its arithmetic, and can be put back.',
    'It is seen by coaches and the person.',
  ],
  movements: [
    'Every movement that sessions can name: find one, see what is easier and harder, where it is used.',
    'A change says which sessions it moves; what is planned and logged stays.',
    'Names that nobody knows wait in one list.',
  ],
  methods: [
    'How each figure comes about, in a coach’s words, with sources.',
    'Where coaches differ both sides argue, and one session shows the difference.',
    'Head coaches set schools and constants for the squad.',
  ],
  people: [
    'Everybody who trains here, with or without an account.',
    'Groups, limits and maxima choose options and loads by themselves.',
    'A list is brought in by pasting it.',
  ],
  person: [
    'What is known of one person, and what figures take of it.',
    'Limits choose options; why is seen by coaches and the person alone.',
    'Their check-in link, their file, and erasing them are here.',
  ],
  squad: [
    'What the squad has set: place, week, kit, what is asked of people.',
    'Accounts, invitations and links are made and ended here.',
    'Who did what, for a year, and how your words are read.',
  ],
  account: [
    'Your account: password, squads, the devices that are signed in.',
    'Sign out elsewhere from here.',
    'What is kept of you can be taken out, and erased.',
  ],
  me: [
    'Your own page: today’s session as you do it, and what you say of it.',
    'It works without a network and sends later.',
    'What you say of pain or freshness goes to your coaches, and is not shown again.',
  ],
})

/** Of a screen that has no words of its own. */
export const ANY_SCREEN: ThreeLines = texts('anyScreen', [
  'Plan sessions, see what they come to, compare formats.',
  'Level the week, run it on the floor, keep the log.',
  'Every number opens to how it came about.',
])
