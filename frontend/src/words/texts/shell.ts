// Texts of the shell, by component: one key each. Figures come in written already (words/format.ts).
import { texts } from './texts'

export const NOWHERE_SCREEN = texts('nowhereScreen', {
  nothingHere: 'Nothing here',
  thereIsNoSuchPage: 'There is no such page, or it is of a squad that you are not in.',
  toTheSessions: 'To the sessions',
})
