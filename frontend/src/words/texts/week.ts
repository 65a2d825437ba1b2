// Texts of the week and the season, by component: one key each. Figures come in written already (words/format.ts).
import { said, type Said } from './said'
import { texts } from './texts'

export const ADD_ENTRY = texts('addEntry', {
  lastDone: (days: Said) => said`last done ${days} days ago`,
  doneToday: 'done today',
  putSomethingOn: (day: Said) => said`Put something on ${day}`,
  what: 'What',
  session: 'session …',
  title: 'Title',
  hikeMatch: 'hike, match …',
  minutes: 'Minutes',
  min: 'min',
  effort: 'Effort',
  effortSaid: 'effort',
  at: 'At',
  atSaid: 'at',
  putItThere: 'Put it there',
  close: 'close',
  otherTraining: 'other training',
})

export const AWAY_FORM = texts('awayForm', {
  whenTheSquadIsAway: 'When the squad is away',
  rest: 'rest',
  notKnownWhatWasDone: 'not known what was done',
  to: (first: Said, last: Said, known: Said) => said`${first} to ${last}, ${known}`,
  takeItBack: 'take it back',
  awayFrom: (first: Said) => said`: away from ${first}`,
  theSquadIsAwayFrom: 'The squad is away from',
  theSquadIsAwayFromSaid: 'the squad is away from',
  until: 'Until',
  untilSaid: 'until',
  whatIsDoneThen: 'What is done then',
  add: 'Add',
  restCountsAsDaysWithout: 'rest: counts as days without load',
  notKnownLeftOutOf: 'not known: left out of ratios',
})

export const BESIDE_PANEL = texts('besidePanel', {
  besideAnotherWeek: 'Beside another week',
  beside: 'Beside',
  besideSaid: 'beside',
  this: 'this',
  that: 'that',
  by: 'by',
  noOtherWeek: 'no other week',
  lastWeek: 'last week',
  nextWeek: 'next week',
  weeksAgo: (weeks: Said) => said`${weeks} weeks ago`,
})

export const DAY_COLUMN = texts('dayColumn', {
  intentOf: (day: Said) => said`Intent of ${day}`,
  shareOfTheWeekOn: (day: Said) => said`Share of the week on ${day}, per cent`,
  hall: 'hall',
  noHall: 'no hall',
  of: (load: Said) => said`of ${load}`,
  on: (day: Said) => said` on ${day}`,
  yetThisCounts: ', yet this counts',
  rest: 'rest',
  nothing: 'nothing',
  add: 'add',
  to: (day: Said) => said` to ${day}`,
  onePerson: 'one person',
  awayRest: 'away, rest',
  noIntent: 'no intent',
})

export const ENTRY_CARD = texts('entryCard', {
  dragItOrAltAnd: 'Drag it, or Alt and an arrow: to another day',
  min: (minutes: Said, effort: Said) => said`${minutes} min · ${effort}`,
  hard: '· hard',
  logged: 'logged',
  skipped: 'skipped',
  locked: 'locked',
  changedForThisDay: 'changed for this day',
  newerVersionExists: 'newer version exists',
  inAProposal: 'in a proposal',
})

export const ENTRY_DRAWER = texts('entryDrawer', {
  runIt: 'Run it',
  change: (title: Said) => said`Change ${title}`,
  on: 'on',
  at: 'at',
  group: 'group',
  everyone: 'everyone',
  all: 'all of them',
  person: 'person',
  copyTo: 'copy to',
  day: 'day …',
  repeatFor: 'repeat for',
  weeks: 'weeks …',
  doneMin: 'done, min',
  effort: 'effort',
  log: 'log',
  bench: 'Bench',
  whatStandsOnThisDay: 'What stands on this day, as a session of its own',
  asANewSession: 'as a new session',
  takeTheNewer: 'take the newer',
  unlock: 'unlock',
  lock: 'lock',
  doItAfterAll: 'do it after all',
  skip: 'skip',
  takeOff: 'take off',
  noted: (kind: string, count: Said) =>
    kind === 'logged'
      ? 'what was logged'
      : kind === 'results'
        ? said`scores (${count})`
        : kind === 'ratings'
          ? said`ratings (${count})`
          : kind === 'log_notes'
            ? said`notes (${count})`
            : kind === 'runs'
              ? said`runs (${count})`
              : kind === 'recordings'
                ? said`pulse (${count})`
                : said`who was there (${count})`,
  goesWithIt: (what: Said) =>
    said`This also removes: ${what}. You can put it all back for 30 days: here with Undo, later from the Log.`,
  comesTo: (minutes: Said, effort: Said, load: Said) => said`${minutes} min, effort ${effort}, load ${load}`,
  when: 'When',
  forWhom: 'For whom',
  session: 'Session',
  newestVersion: 'As its session stands now.',
  newerVersion: 'Its session has been changed since: there is a newer version.',
  changedForThisDay: 'Changed for this day.',
  done: 'Done',
  isLogged: 'logged: open it',
  inTheLog: 'to its log',
  notes: 'Notes',
  forThoseWhoPlan: 'for those who plan',
  onceMore: 'Once more',
  oneWeek: '1 week',
  forWeeks: (weeks: Said) => said`${weeks} weeks`,
})

export const WEEK_DONE = texts('weekDone', {
  scheduled: 'Scheduled.',
  changed: (title: Said) => said`Changed ${title}.`,
  copied: (title: Said) => said`Copied ${title}.`,
  removed: (title: Said) => said`Removed ${title}.`,
  dayChanged: (day: Said) => said`Changed the day: ${day}.`,
  phaseAdded: 'Phase added.',
  phaseDeleted: 'Phase deleted.',
  targetsSet: 'Targets changed.',
  awayAdded: 'Time off added.',
  awayRemoved: 'Time off removed.',
})

export const LEVEL_PANEL = texts('levelPanel', {
  waysToLevelIt: 'Ways to level it',
  rulesForLevelling: 'Rules for levelling',
  atMostADay: 'at most a day',
  atMost: 'at most',
  aDay: 'a day',
  noTwoHardDaysIn: 'no two hard days in a row',
  daysGoneByMayBe: 'days gone by may be changed, too',
  mediumAndHighLandingsAt: 'medium and high landings at most',
  any: 'any',
  lockedAndLoggedEntriesRest:
    'Locked and logged entries, rest days, days without the hall and the hours between clashes always hold.',
  lookingForWaysToLevel: 'Looking for ways to level the week …',
  beforeItInTheQueue: (before: Said) => said`${before} before it in the queue`,
  theBestSoFarEdits: (edits: Said, unmet: Said) => said`the best so far: ${edits} edits, ${unmet} aims unmet`,
  levelling: 'Levelling',
  stopTakeTheBestSo: 'stop, take the best so far',
  theseRulesCannotAllHold: (join: Said) =>
    said`These rules cannot all hold this week: ${join}. Give one up, or unlock something.`,
  noWeekThatKeepsThe:
    'No week that keeps the rules was found in the time there was. Nothing is proposed; level again, or give up a rule.',
  nothingToChangeTheWeek: 'Nothing to change: the week is as it should be, as far as it can.',
  nothingBetterThanThePlan: 'Nothing better than the plan was found.',
  beforeAndAfterWithWhat: 'Before and after, with what is ticked',
  now: 'now',
  withThese: 'with these',
  noFigureChanges: 'changes none of these figures by itself',
  withWhatIsTickedThis: (line: Said) => said`With what is ticked this rule is broken: ${line}.`,
  brokenByWhatStaysAs: (line: Said) => said`Broken by what stays as it is: ${line}.`,
  firstTheRulesThenThe: (weightsText: Said) =>
    said`First the rules, then the aims, then the fewest edits; of equals the lightest: ${weightsText}.`,
  all: 'all',
  it: 'it',
  take: (picked: Said) => said`Take ${picked}`,
  leaveIt: 'leave it',
  taken: 'Taken',
  undo: 'undo',
  undone: ' (undone)',
  theDayBefore: 'the day before',
  nothingBetterIsPossibleUnder: 'Nothing better is possible under these rules.',
  theBestFoundInThe: 'The best found in the time there was; there may be better.',
  theBestFoundUntilIt: 'The best found until it was stopped; there may be better.',
  move: (session: Said, day: Said) => said`Move ${session} to ${day}`,
  moved: (session: Said, day: Said) => said`${session} moved to ${day}`,
  theDayAfter: 'the day after',
  and: ' and ',
  noAim: 'There is no aim to meet',
  aimsMet: (met: Said, all: Said) => said`${met} of ${all} aims met`,
  notMet: (aims: Said) => said`; not met: ${aims}`,
})

export const PHASE_FORM = texts('phaseForm', {
  phase: 'Phase',
  weeksFromLoadToA: (kind: Said, weeks: Said, begins: Said, loadLow: Said, loadHigh: Said) =>
    said`${kind}, ${weeks} weeks from ${begins}: load ${loadLow} to ${loadHigh} a week`,
  takeThePhaseAway: 'take the phase away',
  kindOfPhase: 'Kind of phase',
  from: (begins: Said) => said`from ${begins}:`,
  weeks: 'weeks',
  loadFrom: 'load from',
  to: 'to',
  set: 'Set',
  close: 'close',
})

export const SEASON_SCREEN = texts('seasonScreen', {
  season: 'Season',
  seasonOf: (whose: Said) => said`Season: ${whose}`,
  whoseSeason: 'Whose season',
  toTheWeek: 'To the week',
  earlier: 'Earlier',
  later: 'Later',
  howManyWeeks: 'How many weeks',
  readingTheSeason: 'Reading the season …',
  staveOfWeeksTheTable: (season: Said) => said`Stave of ${season} weeks; the table below has the same figures`,
  load: 'load',
  theSeasonInFigures: 'The season in figures',
  weekOf: 'Week of',
  loadColumn: 'Load',
  band: 'Band',
  change: 'Change',
  monotony: 'Monotony',
  rolling: '7 : 28 rolling',
  before: '7 : 21 before',
  weighted: '7 : 28 weighted',
  hardDays: 'Hard days',
  clashes: 'Clashes',
  thisWeek: '· this week',
  over: 'over',
  under: 'under',
  overTheBand: (band: Said) => said`over its band of ${band}`,
  underTheBand: (band: Said) => said`under its band of ${band}`,
  withinTheBand: (band: Said) => said`within its band of ${band}`,
  weekOfIs: (day: Said, load: Said) => said`Week of ${day}: load ${load}`,
  nothingPlanned: 'none, nothing is planned',
  againstBefore: (change: Said) => said`${change} against the week before`,
  rollingIs: (ratio: Said) => said`7 : 28 days ${ratio}`,
  hardDaysAre: (days: Said) => said`hard days ${days}`,
  clashesAre: (clashes: Said) => said`clashes ${clashes}`,
})

export const SHARE_PANEL = texts('sharePanel', {
  export: 'Export',
  thisWeekAs: 'This week as',
  calendarFile: 'calendar file',
  csv: '.csv',
  xlsx: '.xlsx',
  close: 'close',
  calendarLinkFor: 'Calendar link for',
  name: 'name',
  whatItIsFor: 'what it is for',
  makeALink: 'Make a link',
  subscribeTo: 'Subscribe to',
  itIsShownThisOnce: '. It is shown this once; whoever has it sees the plan, until it is revoked.',
  revoke: 'revoke',
  theSquad: 'the squad',
})

export const TARGET_FORM = texts('targetForm', {
  weekSTargets: "Week's targets",
  atLeast: (name: Said) => said`${name}: at least`,
  from: 'from',
  atMost: (name: Said) => said`${name}: at most`,
  to: 'to',
  in: (name: Said) => said`${name}: in`,
  setTheTargets: 'Set the targets',
  close: 'close',
  aShareIsFromTo: 'a share is from 0 to 1; empty is no target',
  min: 'min',
  share: 'share',
})

export const WEEK_HEADER = texts('weekHeader', {
  weekOf: (begins: Said) => said`Week of ${begins}`,
  whoseWeek: 'Whose week',
  groupCalled: (name: Said) => said`group ${name}`,
  weekOfPhase: (kind: Said, week: Said, weeks: Said) => said` · ${kind}, week ${week} of ${weeks}`,
  theWeekBefore: 'The week before',
  thisWeek: 'This week',
  theWeekAfter: 'The week after',
  levelTheWeek: 'Level the week',
  moreForThisWeek: 'More for this week',
  export: 'Export',
  print: 'Print',
  phaseAndTimesAway: 'Phase and times away',
  targets: 'Targets',
  season: 'Season',
  asIfAllCame: (squad: Said) => said`${squad}, as if all came`,
})

export const WEEK_PANEL = texts('weekPanel', {
  whatTheWeekComesTo: 'What the week comes to',
  weekLoad: 'Week load',
  monotony: 'Monotony',
  strain: 'Strain',
  noMonotony: (why: Said) => said`No monotony: ${why}.`,
  monotonyOf: (monotony: Said) => said`Monotony: ${monotony}`,
  ofLoggedTheRestAs: (logged: Said, bouts: Said) =>
    said`${logged} of ${bouts} logged; the rest as planned. Whole sessions and other training.`,
  targetBand: 'Target band',
  loggedWeek: 'logged week',
  againstTheLastMeanLeast: (weeks: Said, mean: Said, least: Said, most: Said) =>
    said`Against the last ${weeks}: mean ${mean}, least ${least}, most ${most}.`,
  inOtherCurrencies: 'In other currencies',
  clashes: 'Clashes',
  more: (mOST: Said) => said`${mOST} more`,
  noClashesWhatIsWorked: 'No clashes: what is worked gets its hours.',
  againstLastWeek: 'Against last week',
  daysRolling: '7 : 28 days, rolling',
  daysBefore: '7 : 21 days before',
  daysWeighted: '7 : 28 days, weighted',
  withinIt: 'within it',
  underIt: 'under it',
  overIt: 'over it',
  weekOf: (phase: Said, week: Said, weeks: Said) => said`${phase}, week ${week} of ${weeks}`,
  loggedWeeks: (weeks: Said) => said`${weeks} logged weeks`,
})

export const WEEK_SCREEN = texts('weekScreen', {
  undone: 'Undone.',
  readingTheWeek: 'Reading the week …',
  ofTheseEntriesAreBeing: (aged: Said) => said`${aged} of these entries are being figured anew.`,
  plannedEntriesWereFiguredAnew: (count: Said, refigured: Said) =>
    said`${count} planned entries were figured anew at ${refigured}: the methods or this program had changed. What is logged stayed.`,
  staveOfTheWeek: 'Stave of the week',
})

export const WEEK_STAVE = texts('weekStave', {
  staveOfTheWeek: (told: Said) => said`Stave of the week. ${told}`,
  load: 'load',
  hardDay: 'hard day',
  was: (load: Said) => said`was ${load}`,
  beforePaleAfterInInk: 'Proposed: as it is pale and dashed, as it would be in ink.',
  within: 'within',
  under: 'under',
  over: 'over',
  dayHas: (day: Said, load: Said, hard: Said) => said`${day}: load ${load}${hard}`,
  hard: ', hard',
})

export const TEAM_SPLIT = texts('teamSplit', {
  splitIntoTeams: 'Split into teams',
  splitInto: 'split into',
  teams: 'teams',
  howTheyAreEven: 'How they are made even',
  split: 'Split',
  splitAnew: 'Split anew',
  noTeams: 'no teams',
})

export const WHO_CAME = texts('whoCame', {
  isAway: 'away',
  team: (team: Said) => said`team ${team}`,
  whoCame: 'Who came',
  minutesOf: (name: Said) => said`Minutes of ${name}`,
  min: 'min',
  effortOf: (name: Said) => said`Effort of ${name}`,
  effort: 'effort',
})

export const CLASHES = texts('clashes', {
  clash: (first: Said, second: Said, hours: Said, what: Said) =>
    said`${first} and ${second}, ${hours} h apart: both work ${what}`,
})
