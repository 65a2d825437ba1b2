// Texts of health reports: who reported pain or dizziness, or was hurt, before the next training.
import { said, type Said } from './said'
import { texts } from './texts'

/** What is said of somebody, by kind of report. */
export const REPORT_KINDS: Readonly<Record<string, string>> = texts('reportKinds', {
  pain: 'reported pain',
  dizziness: 'reported dizziness',
  hurt: 'was hurt',
})

export const REPORTS = texts('reports', {
  heading: 'Before training',
  line: (name: Said, kind: Said) => said`${name} ${kind}`,
  where: (day: Said, title: Said) => said`${day}, ${title}`,
  details: 'Details',
  detailsOf: (name: Said, title: Said) => said`Details: ${name}, ${title}`,
})
