// What a beat says to do: doses, sides, loads.
import { said, type Said } from './said'
import { texts } from './texts'

export const TODO_SIDES: Readonly<Record<string, string>> = texts('todoSides', {
  each: 'each side',
  alternate: 'sides take turns',
  swap: 'sides swap',
  left: 'left',
  right: 'right',
})

export const TODO = texts('todo', {
  resting: 'rest here',
  toFailure: 'as many as can be done',
  orFor: ' or ',
  growing: (dose: Said, more: Said) => said`${dose}, ${more} more each round`,
  times: (times: Said, dose: Said) => said`${times} × ${dose}`,
  once: 'one',
  pair: (count: Said, load: Said) => said`${count} × ${load}`,
  percent: (share: Said) => said`${share} % of the maximum`,
})
