// Texts of what is foreseen; by themselves, as the Bench comes with them.
import { said, type Said } from './said'

export const FORESEEN = {
  label: 'What is foreseen, and by whose pace',
  group: (title: Said, least: Said, middle: Said, most: Said) =>
    said`${title}: this group makes ${least} (slowest) to ${most} (quickest), ${middle} in the middle`,
  person: (title: Said, score: Said, least: Said, most: Said) =>
    said`${title}: ${score}, 8 in 10 between ${least} and ${most}`,
  squadPace: 'at the squad’s paces',
  setPace: (factor: Said) => said`at the pace set for them (${factor})`,
  learnedPace: (factor: Said, scores: Said) => said`at their own pace (${factor}, ${scores} scores)`,
  last: (score: Said, days: Said) => said`last ${score}, ${days} days ago`,
  lastToday: (score: Said) => said`last ${score}, today`,
  best: (score: Said) => said`best ${score}`,
} as const
