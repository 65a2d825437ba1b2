// Texts of the page behind a person's own link, by component: one key each.
import { said, type Said } from './said'
import { texts } from './texts'

export const ME_SCREEN = texts('meScreen', {
  reading: 'Opening your page …',
  heading: 'Check-in',
  hello: (name: Said, squad: Said) => said`${name} · ${squad}`,
  noToken: 'Nothing is open here. Open the link that your coach gave you, as it was sent.',
  closed: 'Your link is ended, and nothing of it is kept on this phone. Ask your coach for a new one.',
  alone: 'No network: your page cannot be opened yet. What you open here once stays readable without one.',
  tryAgain: 'Try again',
  waits: (count: Said) => said`No network: ${count} of what you said waits on this phone and is sent later.`,
  others: (name: Said, count: Said) =>
    said`${name}: ${count} not sent yet. Sent when ${name} opens the link on this phone.`,
  othersHeading: 'Waiting on this phone for others',
  someoneElse: 'Someone else',
  lost: 'No network: this is as it was last seen. What you say is kept and sent later.',
  sent: 'All you said is sent.',
  nothingOn: 'Nothing is planned for you today.',
  yesterday: 'Yesterday',
  notTaken: 'Not taken:',
  ok: 'Understood',
  ownResults: 'What you made before',
  yourLink: 'Your link',
  until: (when: Said) => said`Good until ${when}, on two devices at most.`,
  thisPhone: (called: Said) => said`${called}, this one`,
  lastUsed: (when: Said) => said`last used ${when}`,
  endHere: 'End it here',
  endHereWarning: 'This device forgets you. The link opens again as long as it is good.',
  endOther: 'End it there',
  endAll: 'End the link everywhere',
  endAllWarning: 'It opens nothing any more, anywhere; your coach can give you a new one.',
  ifHurt: 'If somebody is hurt',
  kept: 'What is kept about you',
})

export const ME_ENTRY = texts('meEntry', {
  atTime: (time: Said) => said`at ${time}`,
  minutes: (minutes: Said) => said`about ${minutes} min`,
  comes: 'Are you there?',
  here: 'I am here',
  away: 'I cannot come',
  saidHere: 'You said that you are here.',
  saidAway: 'You said that you cannot come.',
  logged: 'This session is logged by now.',
  plan: 'The session',
  otherwise: 'What you do otherwise',
  asPlanned: 'as planned',
  instead: (step: Said) => said`instead of ${step}`,
  agreed: (option: Said) => said`${option}, as agreed with your coaches`,
  scores: 'Your scores',
  target: (score: Said, least: Said, most: Said) => said`yours should be about ${score} (${least} to ${most})`,
  last: (score: Said) => said`last time ${score}`,
  best: (score: Said) => said`best ${score}`,
  scoreOf: (title: Said) => said`Score in ${title}`,
  how: 'How to write it: 5+12 for rounds and reps, 7:40 for a time.',
  effort: 'How hard was it?',
  chosen: (word: Said) => said`You said: ${word}.`,
  change: 'Say it anew',
  cautions: 'Before you start',
})

export const ME_HEALTH = texts('meHealth', {
  heading: 'Does anything hurt?',
  only: 'Only your coaches read it. It is shown nowhere else, and not here again.',
  write: 'Tell your coaches',
  what: 'What it is',
  where: 'Where',
  side: 'Side',
  howMuch: 'How much, 0 to 10',
  more: 'What else they should know',
  send: 'Send it',
  close: 'Do not send',
  sent: 'Sent to your coaches.',
  waits: 'Waits on this phone until there is a network, then goes to your coaches.',
})

export const ME_FRESH = texts('meFresh', {
  heading: 'How fresh are you today?',
  only: 'For your coaches. It is not shown here again.',
  sent: 'Sent to your coaches.',
  waits: 'Goes to your coaches once there is a network.',
})
