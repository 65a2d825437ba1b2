// Texts of the squad's own screen, by component: one key each. Figures come in written already (words/format.ts).
import { said, type Said } from './said'
import { texts } from './texts'

export const SQUAD_SCREEN = texts('squadScreen', {
  squad: 'Squad',
  readingTheSettings: 'Reading what the squad has set …',
  whatIsKept: 'What is kept about people, where and how long',
})

export const SQUAD_SETTINGS = texts('squadSettings', {
  settings: 'Name, place, week',
  name: 'Name',
  timeZone: 'Time zone',
  weekBegins: 'Weeks begin on',
  adultFrom: 'Under age below',
  years: 'years',
  localRules: 'What holds where you are comes first: set the age that your rules name.',
  emergency: 'In an emergency',
  whoAndWhere: 'Whom to call, the address for the ambulance, where the first-aid kit and the defibrillator are.',
  noEmergency: 'Nothing is written here yet.',
  asksHealth: 'Pain and dizziness may be noted in the log',
  asksFreshness: 'Check-ins ask how fresh people are, 1 to 5',
  healthWhy: 'Why, in one line for those who are asked',
  keptFor: 'What they say of it is kept for',
  months: 'months, of notes then only that there was one',
  save: 'Save',
  saved: 'Saved.',
})

export const KIT_FORM = texts('kitForm', {
  kit: 'Kit in the hall',
  why: 'What is counted here is held against each session: too little of it is told on the Bench and on the card.',
  howMany: (kit: Said) => said`How many of ${kit}`,
  add: 'add kit',
  remove: 'take out',
  none: 'Nothing is counted yet.',
  pick: 'kit …',
  other: 'another, by its name',
  put: 'Put it in',
})

export const MEMBERS_PANEL = texts('membersPanel', {
  members: 'Accounts',
  you: 'you',
  roleOf: (name: Said) => said`Role of ${name}`,
  takeOut: 'Take out',
  takeOutWarning: 'They see nothing of the squad then; the person stays in the list.',
  newPassword: 'New password …',
  readingMembers: 'Reading the accounts …',
})

export const INVITE_PANEL = texts('invitePanel', {
  invite: 'Invite somebody',
  as: 'as',
  asWhat: 'As what',
  for: 'for',
  forWhom: 'For whom',
  anybody: 'whoever has the link',
  email: 'E-mail (if it is to be sent)',
  make: 'Make the link',
  open: 'Open invitations',
  used: 'Used invitations',
  forOne: (role: Said, person: Said) => said`${role}, for ${person}`,
  by: (by: Said, until: Said) => said`by ${by}, until ${until}`,
  wasUsed: (name: Said, when: Said) => said`${name}, ${when}`,
  end: 'End it',
  gone: 'an account that is gone',
})

export const LINKS_PANEL = texts('linksPanel', {
  calendarLinks: 'Calendar links',
  made: (when: Said) => said`made ${when}`,
  of: (person: Said) => said`of ${person}`,
  revoke: 'Close it',
  none: 'None is open. They are made in the week, under “Export”.',
})

export const HABITS_PANEL = texts('habitsPanel', {
  habits: 'Habits of reading',
  what: 'What was chosen twice running in the squad’s texts is read so from then on. Each place still shows its other readings.',
  none: 'None yet.',
  readAs: (what: Said, reading: Said) => said`${what}: ${reading}`,
  not: (others: Said) => said`not ${others}`,
  or: ', not ',
  forget: 'Forget it',
  of: (what: Said) => said`: ${what}`,
})

export const SQUAD_FILE = texts('squadFile', {
  file: 'The squad as a file',
  what: 'Plan, sessions, people by name, who came: one JSON file. Backups of the whole database belong to whoever keeps the machine.',
  password: 'Your password',
  withHealth: 'with limits, measures, ratings and notes',
  take: 'Take it out',
})

export const HISTORY_PANEL = texts('historyPanel', {
  history: 'Who did what',
  readingIt: 'Reading the history …',
  none: 'Nothing yet.',
  older: 'Older',
  forAYear: 'Kept for a year.',
  gone: 'a former member',
})
