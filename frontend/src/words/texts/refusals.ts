// What is said of saving, of what would be lost, and of refusals that have no sentence of the server's.
import { said, type Said } from './said'
import { texts } from './texts'

export const SAVING = texts('saving', {
  saved: 'Saved',
  waiting: 'Not saved yet',
  saving: 'Saving …',
  refused: 'Not saved: see the marked place',
  conflict: 'Saved beside the other version',
  unreachable: 'Server out of reach, trying again',
  full: 'Not saved: the server has no room left, trying again',
  signedOut: 'Not saved: sign in again in another tab',
  notSaved: (place: Said) => said`Not saved: ${place}.`,
})

export const LOST = texts('lost', {
  board: 'The board text has something that cannot be read, so it is not part of the session.',
  full: 'What was changed last could not be saved: the server has no room left.',
  other: 'What was changed last could not be saved.',
})

export const REFUSED = texts('refused', {
  unreachable: 'The server cannot be reached.',
  unreadable: 'The server gave no readable answer.',
  brokenOff: 'It was broken off before there was an answer. Ask again.',
  place: (path: Said, found: Said, allowed: Said) => said`${path}: found ${found}; allowed: ${allowed}`,
})
