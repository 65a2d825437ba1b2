// Texts of signing in, by component: one key each. Figures come in written already (words/format.ts).
import { texts } from './texts'

export const SIGN_IN = texts('signIn', {
  fineTally: 'Fine Tally',
  whatASessionComesTo: 'What a session comes to, before anyone has to do it.',
  name: 'Name',
  password: 'Password',
  code: 'Code',
  codeRule: 'The six digits that your app shows, or one of your spare codes.',
  signIn: 'Sign in',
  signingOut: 'Signing out …',
  shared: 'This device is shared: sign me out after 12 hours',
  noPassword: 'No account, or no password any more? A head coach of your squad makes you a link.',
  whatIsKept: 'What is kept about people',
})
