// Texts of the first steps, one key each. Each step says what to do, and where.
import { said, type Said } from './said'
import { texts } from './texts'

export const FIRST_PATH = texts('firstPath', {
  heading: 'First steps',
  step: (number: Said) => said`Step ${number} of 4`,
  go: 'Go there',
  next: 'Next step',
  leave: 'Leave the steps',
  put: 'Put a text in',
  away: 'Take away what it made',
  keep: 'Keep it',
  taken: 'Taken away.',
  titles: {
    write: 'Write it as it stands on the wall',
    look: 'Look at what it comes to',
    compare: 'Compare it with other formats',
    plan: 'Put it on a day',
    done: 'That is the whole way',
  },
  says: {
    write:
      'Paste or write a session in your own words, and have it read. A line that could be meant otherwise says so.',
    look: 'The minutes, work against rest, reps and effort stand beside the blocks. Open any number with its + to see the arithmetic.',
    compare:
      'The same work in other formats, one beside the other: which is harder, which leaves more rest, which fits the time.',
    plan: 'Put the session on a day: its week then shows load, hard and easy days and clashes.',
    done: 'From here it is run on the floor, and logged. What these steps made can stay or go.',
  },
  example: `Ridge evening, 20 min
Warm up 3 min easy: march

3 rounds, 40 s on 20 s off
swings 16 kg
push-ups
step-ups
2 min rest between rounds

Cool down 2 min walk`,
})
