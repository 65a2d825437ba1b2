// Texts of what is behind "More" on the floor, and of what is chosen before the start. One key each, by component.
import { said, type Said } from './said'
import { texts } from './texts'

export const LEFT = texts('left', {
  minutes: 'Minutes left',
  planned: (time: Said) => said`As planned it goes on for ${time}.`,
  ask: 'How to fit them',
  finding: 'Looking for ways …',
  ends: (time: Said, load: Said) => said`over in ${time} · load ${load}`,
  endsIn: (time: Said) => said`over in ${time}`,
  take: 'Take this one',
  fits: 'What is left fits as it is.',
  none: 'That is not enough: what has begun takes longer. Skip it, or stop.',
  alone: 'No network: whole steps only.',
  out: (title: Said) => said`leave out ${title}`,
  fewer: (title: Said) => said`fewer rounds of ${title}`,
  chosen: 'It is left out when its turn comes. Nothing more to do.',
  taken: 'Taken. What has not begun is laid out anew.',
})

export const CHANGE = texts('change', {
  reading: 'Looking what can be changed …',
  noNetwork: 'Changes of the plan need a network.',
  nothing: 'Nothing is left that could be changed.',
  kinds: { 'rounds-more': 'One round more', 'rounds-fewer': 'One round fewer', 'leave-out': 'Leave it out' },
  instead: (name: Said) => said`Instead of ${name}`,
  forAll: 'For all',
  asIs: 'as planned',
  text: 'Add, as on a wall',
  add: 'Put it in next',
  done: 'Changed. What has not begun is laid out anew.',
})

export const PRESENT = texts('present', {
  here: 'here',
  away: 'away',
  came: (name: Said) => said`${name}: has come`,
  left: (name: Said) => said`${name}: has gone`,
  hasCome: 'Has come',
  hasGone: 'Has gone',
  nobody: 'Nobody is known for this entry.',
  otherwise: 'Does it otherwise',
  who: 'Who does it otherwise',
  what: 'What instead',
  option: (name: Said, label: Said) => said`${name}: ${label}`,
  keep: 'Keep that',
})

export const SCORES = texts('scores', {
  window: 'Window',
  nth: (title: Said, number: Said) => said`${title}, ${number}`,
  none: 'Nothing in this session takes a score.',
  all: 'All together',
  team: (number: Said) => said`Team ${number}`,
  counted: (who: Said, count: Said) => said`${who}: ${count}, one round more`,
  split: (time: Said) => said`last at ${time}`,
  of: (who: Said) => said`Score of ${who}`,
  example: 'as 5+12',
  last: (score: Said) => said`last ${score}`,
  best: (score: Said) => said`best ${score}`,
  bad: 'Rounds and reps as 5+12, or a time as 7:40.',
  way: 'How scores are taken',
  tap: 'Count by tapping',
  list: 'Type them',
  sheet: 'Score sheet',
})

export const SHEET = texts('sheet', {
  heading: (title: Said) => said`Scores: ${title}`,
  reading: 'Reading the score sheet …',
  name: 'Name',
  print: 'Print it',
  back: 'To today',
  nothing: 'Nothing in this session takes a score: there is no sheet to print.',
  cell: (who: Said, window: Said) => said`Score of ${who}, ${window}`,
  how: 'Rounds and reps as 5+12, a time as 7:40. What is typed is kept at once.',
  otherTab: 'The run is open in another tab of this device: scores are typed there.',
})

export const NOTE = texts('note', {
  kind: 'What it is about',
  kinds: { free: 'free', form: 'form', kit: 'kit', pain: 'pain', dizziness: 'dizziness' },
  person: 'Of whom',
  nobody: 'of the session',
  text: 'What to remember',
  keep: 'Keep it',
  kept: 'Kept.',
  caution:
    'Let them stop and rest. With chest pain, fainting, or pain that does not pass, call for help. This is no medical advice: local rules and licensed practice come first.',
})

export const SOUNDS = texts('sounds', {
  what: 'What is called',
  tones: 'Tones',
  voice: 'Voice',
  vibration: 'Vibration',
  outdoors: 'Outdoors: black on white',
  way: 'Together with what else sounds',
  ways: { usual: 'as usual', music: 'with music', silent: 'over the silent switch' },
  each: 'Each call',
  kinds: {
    'count-in': 'count-in before work',
    half: 'half-way',
    'ten-left': 'ten left',
    'last-five': 'last five',
    switch: 'other side',
    'work-until': 'rest in a minute',
    'pulse-rest': 'all rest',
    'pulse-work': 'all go on',
    minute: 'minutes of a window',
    'last-round': 'last round',
    own: 'own calls',
    next: 'what comes next',
    waiting: 'while time waits',
  },
  hear: 'Try the sound',
  heard: 'That can be heard',
  once: 'Sound, once on this device',
  tried: 'This is how it sounds',
})

export const STATIONS = texts('stations', {
  heading: 'Stations',
  reading: 'Laying stations out …',
  people: (count: Said) => said`for ${count} people`,
  way: (kind: Said, minutes: Said) => said`${kind}, ${minutes} min`,
  kinds: {
    'as-planned': 'As planned',
    twice: 'A station twice',
    wait: 'With a place to wait',
    'leave-out': 'Without the last ones',
  },
  full: 'more people than fit',
  groups: (groups: Said) => said`groups of ${groups}`,
  noNetwork: 'Laying stations out anew needs a network. As planned they stand.',
})

export const OTHER = texts('other', {
  strip: (name: Said) => said`Change over to ${name}`,
  over: 'done',
})

export const PANELS = texts('panels', {
  left: 'Minutes left',
  change: 'Change the plan',
  people: 'People',
  scores: 'Scores',
  note: 'Note',
  calls: 'Calls',
})
