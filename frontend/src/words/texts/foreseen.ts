// Texts of what is foreseen; by themselves, as the Bench comes with them.
import { said, type Said } from './said'
import { texts } from './texts'

export const FORESEEN = texts('foreseen', {
  label: 'What is foreseen, and by whose pace',
  group: (title: Said, least: Said, middle: Said, most: Said) =>
    said`${title}: this group makes ${least} (slowest) to ${most} (quickest), ${middle} in the middle`,
  eightInTen: (least: Said, most: Said) => said`8 in 10 there between ${least} and ${most}`,
  person: (title: Said, score: Said, least: Said, most: Said) =>
    said`${title}: ${score}, 8 in 10 between ${least} and ${most}`,
  targets: (title: Said, each: Said) => said`${title}, last made: ${each}`,
  target: (name: Said, last: Said, best: Said) => said`${name} ${last} (best ${best})`,
  took: (title: Said, each: Said) => said`${title}, last time otherwise: ${each}`,
  tookOne: (name: Said, options: Said) => said`${name} ${options}`,
  last: (score: Said, days: Said) => said`last ${score}, ${days} days ago`,
  lastToday: (score: Said) => said`last ${score}, today`,
  best: (score: Said) => said`best ${score}`,
})

export const PACES = texts('paces', {
  squad: 'at the squad’s paces',
  anyone: 'Laid out at the squad’s paces, for anyone.',
  set: (factor: Said) => said`at the pace set for them (${factor})`,
  learned: (factor: Said, scores: Said) => said`at their own pace (${factor}, ${scores} scores)`,
})

export const PACE_CHOICE = texts('paceChoice', {
  label: 'At whose pace',
  squad: 'the squad’s, for anyone',
  slowest: 'the slowest here',
  middle: 'the middle here',
  quickest: 'the quickest here',
  me: 'my own',
})
