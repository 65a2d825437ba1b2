// Texts of signing in, by component: one key each. Figures come in written already (words/format.ts).

export const SIGN_IN = {
  fineTally: 'Fine Tally',
  whatASessionComesTo: 'What a session comes to, before anyone has to do it.',
  name: 'Name',
  password: 'Password',
  signIn: 'Sign in',
} as const
