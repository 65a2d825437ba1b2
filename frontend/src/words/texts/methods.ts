// Texts of the page on methods, by component: one key each. Paragraphs, settings and arguments come from the core.
import { said, type Said } from './said'
import { texts } from './texts'

export const METHODS_SCREEN = texts('methodsScreen', {
  methods: 'Methods',
  what: 'How each figure comes about, where coaches differ, and what this squad has set.',
  reading: 'Reading the methods …',
  parts: 'Parts of this page',
  history: 'Who changed what',
  headSets: 'A head coach sets these.',
  reach: (sessions: Said, planned: Said, logged: Said) =>
    said`A change figures anew: the lists of ${sessions} sessions and ${planned} planned days, in the background. ${logged} logged ones stay as they are.`,
  changed: 'Kept. What goes by it is figured anew in the background.',
  noHistory: 'Nothing was ever changed.',
  gone: 'a former member',
  onlyCoaches: 'Coaches see who changed what.',
})

export const SCHOOL = texts('school', {
  differ: 'Coaches differ',
  squads: 'this squad’s',
  take: (label: Said) => said`Take: ${label}`,
  sample: 'The same session both ways',
  default: 'as shipped',
  ofOwn: 'The squad has set something else here: it is none of these.',
})

export const SETTING = texts('setting', {
  constantsOf: (heading: Said) => said`Constants: ${heading}`,
  between: (low: Said, high: Said) => said`${low} to ${high}`,
  shipped: (value: Said) => said`as shipped ${value}`,
  source: (source: Said) => said`Source: ${source}`,
  atShare: (share: Said) => said`effort at ${share}`,
  reset: 'Put it back',
  resetOf: (label: Said) => said`put back: ${label}`,
  keep: 'Keep it',
  leave: 'Leave it',
  nothing: 'none',
})
