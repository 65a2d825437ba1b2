// Texts of the floor: today, before the start, running, the wall. One key each, by component.
import { said, type Said } from './said'
import { texts } from './texts'

export const CALLS = texts('calls', {
  of: (whose: Said, words: Said) => said`${whose}: ${words}`,
  next: (what: Said) => said`Next: ${what}`,
  half: 'Half-way',
  tenLeft: 'Ten left',
  switchSides: 'Other side',
  restNow: 'Rest until the next start',
  allRest: 'All rest',
  goOn: 'Go on',
  lastRound: 'Last round',
})

export const TODAY = texts('today', {
  heading: (squad: Said, day: Said) => said`${squad}, ${day}`,
  nothing: 'Nothing stands on today. Run something from a text, or plan it in the week.',
  comesTo: (minutes: Said, effort: Said) => said`${minutes} min · effort ${effort}`,
  away: (names: Said) => said`away: ${names}`,
  otherwise: (names: Said) => said`something to spare: ${names}`,
  kit: (kit: Said) => said`kit: ${kit}`,
  run: 'Run',
  runIt: (title: Said) => said`Run ${title}`,
  other: 'other training',
  rate: 'Rate and log',
  rateIt: (title: Said) => said`Rate and log ${title}`,
  logged: 'logged',
  waits: 'Not logged yet',
  goOn: 'Go on with it',
  goOnWith: (title: Said) => said`Go on with ${title}`,
  running: (time: Said) => said`running since ${time}`,
  wasRun: (time: Said) => said`run at ${time}`,
  scores: 'Scores',
  scoresOf: (title: Said) => said`Scores of ${title}`,
  look: 'Look at it',
  lookAt: (title: Said) => said`Look at the run of ${title}`,
  fromText: 'Run from a text',
  pasteIt: 'Paste what stands on the wall: it becomes an entry of today.',
  words: 'What stands on the wall',
  readAndRun: 'Read it and run it',
  offline: 'No network: what this device kept of today is below.',
  walls: 'A screen on the wall',
  wallHow: 'Open /wall on the screen, and type here the six signs that it shows.',
  code: 'Six signs',
  show: 'Show our runs there',
  shown: (until: Said) => said`A screen shows our runs until ${until}.`,
  end: 'End it',
})

export const BEFORE = texts('before', {
  saidHere: 'said they are here',
  saidAway: 'said they cannot come',
  fresh: (value: Said) => said`fresh ${value} of 5`,
  heading: 'Before the start',
  reading: 'Reading the session …',
  minutes: (minutes: Said) => said`${minutes} min`,
  start: 'Start',
  who: 'Who is here',
  here: (count: Said, all: Said) => said`${count} of ${all} here`,
  tickOut: 'Tick off who is not here. Nothing has to be answered.',
  otherwise: 'Done otherwise',
  takes: (names: Said, option: Said, movement: Said) => said`${names}: ${option} (${movement})`,
  kit: 'Kit',
  kitLine: (count: Said, kit: Said) => said`${count} × ${kit}`,
  weighing: (load: Said) => said`, ${load}`,
  cautions: 'Before anything else',
  together: 'One clock for all',
  apart: 'Each at own pace',
  pace: 'Blocks done until finished',
  offline: 'No network. The session is on this device: it runs all the same, and is sent later.',
  notSafe: 'This page did not come over https: without a network it cannot be opened again, and the screen may sleep.',
  whose: 'Whose run',
  everybody: 'everybody',
  ifHurt: 'If someone is hurt',
  noWords: 'The squad has no emergency words yet. Write them on the page Squad: address, defibrillator, whom to call.',
  foreseen: 'What is foreseen',
})

export const FLOOR = texts('floor', {
  reading: 'Opening the run …',
  hold: 'Hold',
  goOn: 'Go on',
  tenMore: '+10 sec',
  back: 'Back',
  more: 'More',
  less: 'Less',
  undo: 'Undo',
  next: 'Next',
  done: 'Done',
  roundDone: 'Round done',
  begin: 'Start',
  clockRuns: 'The clock runs',
  waitsFor: (title: Said) => said`Waiting: ${title}`,
  paused: 'Time stands',
  work: 'Work',
  rest: 'Rest',
  talk: 'Talk',
  after: (what: Said) => said`then ${what}`,
  afterRest: (time: Said) => said`then rest ${time}`,
  lastOne: 'then it is over',
  nowPlace: 'What is done now',
  oneRound: 'one round counted',
  rounds: (count: Said) => said`${count} rounds counted`,
  sinceStart: 'since its start',
  left: 'left',
  splits: (splits: Said) => said`in ${splits}`,
  planNow: (round: Said) => said`planned: in round ${round} now`,
  lastTime: (last: Said, best: Said) => said`last time ${last} · best ${best}`,
  target: (name: Said, last: Said, best: Said) => said`${name} ${last} (best ${best})`,
  unsent: (count: Said) => said`${count} not sent yet`,
  otherTab: 'This run is open in another tab of this device. It is shown here, and run there.',
  exit: (ended: Said, endedLoad: Said, all: Said, load: Said) =>
    said`May end here: ${ended}, load ${endedLoad}. With what follows: ${all}, load ${load}.`,
  stopHere: 'Stop here',
  refused: 'The server did not take this run. It stays on this device.',
  soundOff: 'No sound yet: touch here',
  hurt: 'Someone is hurt',
})

export const MORE = texts('more', {
  label: 'More',
  skipRound: 'Skip this round',
  skipBlock: 'Skip this block',
  againRound: 'This round again',
  againBlock: 'This block again',
  endNow: 'End this now',
  tenLess: '−10 sec',
  stop: 'Stop the run',
  holdIt: 'Hold for a moment',
  pocket: 'Into the pocket',
})

export const HURT = texts('hurt', {
  heading: 'Someone is hurt',
  stands: 'The clock and the sound stand.',
  caution:
    'Stop. Look after them first, and call for help if there is any doubt. This is no medical advice: local rules and licensed practice come first.',
  whoIsIt: 'Who',
  nobody: 'not said',
  what: 'What happened',
  notNoted: 'Notes of health are off in this squad: what happened is not saved here.',
  keep: 'Note it',
  goOn: 'Go on',
  goOnWithout: (name: Said) => said`Go on without ${name}`,
  end: 'End here',
})

export const ENDED = texts('ended', {
  heading: 'Done',
  played: (time: Said) => said`${time} from start to end`,
  workRest: (work: Said, rest: Said) => said`work ${work} · rest ${rest}`,
  waited: (waited: Said, paused: Said) => said`waited ${waited} · stood ${paused}`,
  leftOut: (count: Said) => said`${count} beats left out`,
  sent: 'The run is kept on the server.',
  notSent: 'The run is on this device. It is sent as soon as there is a network.',
  onceMore: 'One more round',
  backOne: 'Back to the last one',
  rate: 'Ratings: hand it round',
  log: 'To its page in the log',
  today: 'To today',
})

export const POCKET = texts('pocket', {
  locked: 'In the pocket. Hold for a second to open.',
  open: 'Hold to open',
})

export const HOLD = texts('hold', {
  hint: (label: Said) => said`${label}: press and hold`,
})

export const WALL = texts('wall', {
  label: 'The wall',
  reading: 'Asking for a code …',
  typeIt: 'Type these six signs on the phone, under Today.',
  code: (signs: Said) => said`Code: ${signs}`,
  nothing: 'Nothing runs yet.',
  next: 'Next:',
  rest: 'Rest',
  briefing: 'Briefing',
  round: (round: Said, of: Said) => said`round ${round} of ${of}`,
  waiting: 'waiting',
  stands: 'time stands',
  over: 'done',
  lost: 'no network: it goes on as it was',
  strip: 'The session, work and rest',
})

export const SIGN_OUT = texts('signOut', {
  heading: 'A run is not sent yet',
  unsent:
    'Runs on this device wait for a network. They stay here for 30 days, closed to other accounts and without names, until you sign in here again.',
  out: 'Sign out',
  stay: 'Stay',
})
