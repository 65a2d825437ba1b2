// Texts of what a link opens, by component: one key each. Figures come in written already (words/format.ts).
import { said, type Said } from './said'
import { texts } from './texts'

export const JOIN_SCREEN = texts('joinScreen', {
  join: (squad: Said) => said`Join ${squad}`,
  anInvitation: 'An invitation',
  invitesYou: (by: Said, squad: Said, role: Said) => said`${by} invites you to ${squad} as ${role}.`,
  youAreInvited: (squad: Said, role: Said) => said`You are invited to ${squad} as ${role}.`,
  youAreInTheList: (person: Said) => said`In the squad’s list you are ${person}.`,
  goodUntil: (when: Said) => said`Good until ${when}.`,
  joinAs: (account: Said) => said`Join as ${account}`,
  notYou: 'Not you? Sign out, and open the link again.',
  nameToSignInWith: 'Name to sign in with',
  password: 'Password',
  tenCharacters: '10 characters or more, none that many use.',
  makeAnAccount: 'Make an account and join',
  haveAnAccount: 'I have an account already',
  shared: 'This device is shared: sign me out after 12 hours',
  reading: 'Reading the invitation …',
  noToken: 'This address is no invitation: the part behind the # is missing. Open the link as it was sent.',
  whatIsKept: 'What is kept about you, and where',
  toSignIn: 'To the sign-in',
  toYourSquad: 'Back to your squad',
})

export const RESET_SCREEN = texts('resetScreen', {
  newPassword: 'A new password',
  forAccount: (account: Said) => said`For the account ${account}.`,
  thatIsToHold: 'Password that is to hold',
  set: 'Set it',
  signedOut: 'All devices of this account are signed out by that.',
  done: (account: Said) => said`The password of ${account} is set. Sign in with it.`,
  noTokenHere: 'This address sets no password: the part behind the # is missing. Open the link as it was sent.',
  readingTheLink: 'Reading the link …',
})
