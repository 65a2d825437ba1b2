// Texts of one's own account, by component: one key each. Figures come in written already (words/format.ts).
import { said, type Said } from './said'
import { texts } from './texts'

export const ACCOUNT_SCREEN = texts('accountScreen', {
  yourAccount: 'Your account',
  signOut: 'Sign out here',
  whatIsKeptAboutYou: 'What is kept about people, where and how long',
})

export const PASSWORD_FORM = texts('passwordForm', {
  password: 'Password',
  now: 'The one that holds now',
  toHold: 'The one that is to hold',
  change: 'Change it',
  rule: '10 characters or more, none that many use. All other devices are signed out.',
  changed: 'It is changed, and all other devices are signed out.',
})

export const UNITS_FORM = texts('unitsForm', {
  units: 'Weights and distances',
  kept: 'Everything is told to you in these, on all your devices; what is planned and noted stays as it is.',
})

export const DEVICES = texts('devices', {
  signedInOn: 'Signed in on',
  thisOne: 'this device',
  since: (from: Said, to: Said) => said`since ${from}, until ${to}`,
  shared: 'shared',
  signOutThere: 'Sign out there',
  readingDevices: 'Reading where you are signed in …',
})

export const OWN_SQUADS = texts('ownSquads', {
  squads: 'Squads',
  as: (role: Said) => said`as ${role}`,
  yourPage: 'your page',
  leave: 'Leave',
  leaveWarning: 'You see nothing of it then; the person stays in its list, without an account.',
  found: 'Found another squad',
  name: 'Name of the squad',
  make: 'Found it',
  none: 'You are in no squad. An invitation of a head coach brings you into one.',
})

export const SECOND_FACTOR = texts('secondFactor', {
  heading: 'Second factor',
  what: 'With a second factor you sign in with your password and a code from an app on your phone. Somebody who has your password alone cannot sign in.',
  isOn: (spare: Said) => said`You sign in with your password and a code from your app. ${spare} spare codes are left.`,
  password: 'Your password',
  setUp: 'Set it up',
  end: 'Switch it off',
  scan: 'Scan this picture with your authenticator app.',
  picture: 'QR code of the secret, for an authenticator app',
  orType: 'Or type this into the app:',
  code: 'The code that the app shows',
  begin: 'Switch it on',
  keep: 'It is on. Write these spare codes down: each one lets you in once without your phone. They are shown only now.',
})

export const ERASE_ACCOUNT = texts('eraseAccount', {
  erase: 'Erase the account',
  what: 'Your account, and all that is kept about you in all your squads, goes. It cannot be undone, by no backup either.',
  passwordNow: 'Your password',
  eraseAll: 'Erase everything about me',
})
