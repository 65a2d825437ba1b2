// Why the first of a comparison is first, what it costs, and what stands in the way of the others.
import { said, type Said } from './said'
import { texts } from './texts'

export const WAYS = texts('ways', {
  'at-most': 'at most',
  'at-least': 'at least',
  low: 'as little as can be',
  high: 'as much as can be',
  even: 'even',
})

export const PICKS = texts('picks', {
  left: (what: Said) => said`${what} left over`,
  nothingLeft: 'nothing left over',
  wish: (row: Said, way: Said) => said`${row} ${way}`,
  wishWithin: (row: Said, way: Said, bound: Said) => said`${row} ${way} ${bound}`,
  against: (row: Said, first: Said, other: Said) => said`${row} ${first} against ${other}`,
  and: (most: Said, last: Said) => said`${most} and ${last}`,
  planAsItStands: 'The plan as it stands',
  thePlan: 'the plan',
  nearest: (broken: Said) => said`Nothing keeps every hard wish; it comes nearest but breaks ${broken}.`,
  meets: (wishes: Said) => said`It meets ${wishes}.`,
  notBest: (wishes: Said) => said`Not the best in ${wishes}.`,
  oneOut: '1 of the others breaks a hard wish that it keeps.',
  moreOut: (count: Said) => said`${count} of the others break a hard wish that it keeps.`,
  gains: (base: Said, what: Said) => said`Beside ${base} it gains ${what}.`,
  costs: (what: Said) => said`It costs ${what}.`,
  next: (name: Said) => said`${name} comes next.`,
  nextHas: (name: Said, what: Said) => said`${name} comes next: there it has ${what}.`,
  judged: (row: Said, value: Said) => said`${row} ${value}`,
  judgedBy: (row: Said, value: Said, wish: Said) => said`${row} ${value} (${wish})`,
  isFirst: 'It is the first.',
  rank: (rank: Said, of: Said) => said`Place ${rank} of ${of}.`,
  breaks: (what: Said) => said`It breaks what must be: ${what}.`,
  behind: (what: Said) => said`By your wishes it is behind in ${what}.`,
  has: (name: Said, what: Said) => said`${name} has ${what}.`,
  speaks: (what: Said) => said`For it speaks: ${what}.`,
})
