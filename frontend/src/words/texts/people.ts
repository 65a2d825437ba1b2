// Texts of people, by component: one key each. Figures come in written already (words/format.ts).
import { said, type Said } from './said'
import { texts } from './texts'

export const PEOPLE_SCREEN = texts('peopleScreen', {
  people: 'People',
  count: (count: Said) => said`${count} in all`,
  find: 'Find somebody',
  findPlaceholder: 'a name or a part of it',
  everybody: 'everybody',
  group: 'Group',
  addOne: 'Add somebody',
  aList: 'A list …',
  groups: 'Groups …',
  readingPeople: 'Reading the people …',
  nobodyYet: 'Nobody is here yet. Add somebody, or bring a list: a name on each line, with a group behind it.',
  nobodyCalledSo: 'Nobody here is called so.',
  onlyCoaches: 'Who is in the squad is seen by its coaches.',
})

export const PEOPLE_TABLE = texts('peopleTable', {
  name: 'Name',
  onTheWall: 'On the wall',
  groups: 'Groups',
  today: 'Today',
  account: 'Account',
  away: (until: Said) => said`away until ${until}`,
  limited: 'a limit holds',
  underAge: 'under age',
  noAccount: 'none',
})

export const ADD_PERSON = texts('addPerson', {
  addSomebody: 'Add somebody to the squad',
  name: 'Name',
  groups: 'Groups, parted by commas',
  groupsPlaceholder: 'North, South',
  add: 'Add',
  close: 'close',
})

export const PEOPLE_LIST = texts('peopleList', {
  bringAList: 'Bring a list',
  how: 'A name on each line, a group behind a comma. A file of a spreadsheet (CSV) does; so does what is copied from one.',
  list: 'The list',
  example: 'Wim Karsholt, North\nAda Merribeck, South',
  orAFile: 'from a file',
  look: 'See what it brings',
  take: (count: Said) => said`Take it in: ${count} new`,
  line: 'Line',
  name: 'Name',
  groups: 'Groups',
  what: 'What happens',
  isNew: 'is added',
  isThere: 'is here already; gets the groups',
  staysAsIs: 'is here already; stays as it is',
  done: (count: Said) => said`${count} were added.`,
  close: 'close',
  tooLarge: 'This file is too large for a list of people.',
})

export const GROUPS_PANEL = texts('groupsPanel', {
  groups: 'Groups',
  why: 'Sessions are planned for a group, a week is read for one. Who changes groups keeps what they did in the old one.',
  none: 'No group yet.',
  nameOf: (name: Said) => said`Name of ${name}`,
  markOf: (name: Said) => said`Mark of ${name}`,
  people: (count: Said) => said`${count} people`,
  end: 'End it',
  endWarning: 'It is chosen no more; what was planned for it stays.',
  newGroup: 'a new group',
  make: 'Make it',
  close: 'close',
})

export const PERSON_SCREEN = texts('personScreen', {
  toPeople: 'People',
  week: 'Their week',
  readingPerson: 'Reading what is known …',
  you: 'This is you. Your coaches see this page, too.',
  nobody: 'Nobody',
  noSuch: 'There is nobody here whom you may see.',
})

export const PERSON_DETAILS = texts('personDetails', {
  details: 'Who',
  name: 'Name',
  shortName: 'Name on the wall',
  groups: 'Groups',
  noGroups: 'in no group',
  account: (name: Said) => said`Signs in as ${name}.`,
  noAccount: 'Has no account; a head coach invites them on the page of the squad.',
  figures: 'What figures take',
  bodyMass: 'Body mass',
  pace: 'Pace factor',
  paceWhat: 'times what is usual; above 1 slower',
  effort: 'Effort offset',
  effortWhat: 'points of effort added; what is hard for others may be harder for them',
  save: 'Save',
  saved: 'Saved.',
})

export const LIMITS_PANEL = texts('limitsPanel', {
  limits: 'Limits',
  why: 'A limit chooses the options of a session by itself. All see the option; why is seen by coaches and the person.',
  none: 'None holds.',
  spare: 'spare',
  what: 'What is to be spared',
  aMovement: 'a movement …',
  movement: 'Movement to be spared',
  side: 'Side',
  from: 'from',
  until: 'until',
  openEnd: 'until it is ended',
  note: 'Note, for the head coach and the person',
  add: 'Add the limit',
  end: 'End it',
  over: 'over',
  ahead: 'not yet',
  since: (day: Said) => said`from ${day}`,
  to: (day: Said) => said` to ${day}`,
})

export const MAXIMA_PANEL = texts('maximaPanel', {
  maxima: 'One-rep maxima',
  how: 'A set to the last rep that was possible. Of one rep it is the maximum itself; of more both formulas make an estimate.',
  young: 'Under age: no maxima are tested; sets of five and more make an estimate.',
  none: 'No set is kept.',
  movement: 'Movement',
  set: 'Set',
  day: 'Day',
  epley: 'Epley',
  brzycki: 'Brzycki',
  measured: 'measured',
  dayUnknown: 'day not known',
  remove: 'Take away',
  weight: 'Weight',
  reps: 'Reps',
  on: 'on',
  add: 'Keep the set',
  pick: 'movement …',
  times: (weight: Said, reps: Said) => said`${weight} × ${reps}`,
})

export const CAPACITY_PANEL = texts('capacityPanel', {
  capacity: 'Capacity',
  isMet: (met: Said) => said`${met} MET`,
  from: (test: Said, result: Said) => said`from ${test}: ${result}`,
  on: (day: Said) => said`on ${day}`,
  notKnown: 'Not known: the usual one is taken.',
  test: 'Test',
  day: 'Day of the test',
  keep: 'Keep it',
  forget: 'Take it away',
})

export const AWAY_PANEL = texts('awayPanel', {
  away: 'Away',
  none: 'No time away is noted.',
  from: 'From',
  until: 'Until',
  add: 'Note it',
  takeBack: 'Take it back',
  span: (first: Said, last: Said) => said`${first} to ${last}`,
  rest: 'rest',
  unknown: 'not known what was done',
  then: 'What is done then',
})

export const UNDER_AGE = texts('underAge', {
  underAge: 'Under age',
  isUnderAge: 'is under age',
  what: 'No body mass, no capacity and no tested maxima are kept until a guardian has agreed, and nobody is ranked. Local rules come first.',
  guardian: 'Who agreed',
  day: 'On',
  agreed: 'A guardian agreed',
  takeBack: 'Take it back',
  noted: (who: Said, day: Said) => said`${who} agreed on ${day}.`,
  headNotes: 'A head coach notes that a guardian agreed.',
})

export const PERSON_NAMED = texts('personNamed', {
  heading: 'Scores by name',
  mine: 'My scores may stand with my name on cards and on the floor',
  theirs: 'Agreed that scores stand with the name on cards and on the floor',
  since: (day: Said) => said`Since ${day}. Without it the squad reads a span of the group.`,
  underAge: 'Nobody under age stands beside others by name.',
})

export const CHECK_IN = texts('checkIn', {
  heading: 'Check-in link',
  what: 'A page for a phone, without an account: today’s session as they do it, whether they come, options, scores, how hard it was.',
  none: 'There is no link.',
  make: 'Make a link',
  anew: 'Make a new one',
  anewWarning: 'The link that there is ends at once, on every device.',
  handOn: 'Give it to this person alone: whoever opens it is them.',
  made: (when: Said, by: Said) => said`Made ${when} by ${by}.`,
  gone: 'an account that is gone',
  until: (when: Said) =>
    said`Good until ${when} (the end of the season’s last phase, or 180 days), on two devices at most.`,
  unused: 'Nobody has opened it yet.',
  used: (called: Said, when: Said) => said`${called}, last used ${when}`,
  end: 'End the link',
  endWarning: 'It opens nothing any more, and what their phone kept of it goes the next time it asks.',
  headNotes: 'Under age: a link once a head coach has noted that a guardian agreed.',
})

export const PERSON_PRIVACY = texts('personPrivacy', {
  privacy: 'What is kept',
  password: 'Your password',
  passwordFirst: 'Needed to export or to erase this data.',
  takeOut: 'All of it as one file',
  toThePage: 'What is kept of everybody, where and how long',
  look: 'See where the name stands in texts',
  none: 'The name stands in no text.',
  stands: 'The name stands in these texts:',
  in: (title: Said, says: Said) => said`${title}: “${says}”`,
  takeOutOfTexts: 'take the name out of these texts, too',
  erase: 'Erase',
  eraseWarning: 'Everything about this person goes, their account with it. No backup brings it back.',
})
