// The one page on what is kept about people, in plain words. What it says is held to the code by tests/web/test_privacy_page.py.
import { texts } from './texts'

export const PRIVACY_SCREEN = texts('privacyScreen', {
  title: 'What is kept about people',
  back: 'back',
})

/** Each section: its heading, and its sentences. */
export const KEPT: readonly (readonly [string, readonly string[]])[] = texts('kept', [
  [
    'Where',
    [
      'Everything stands in one database, on the machine that your squad’s server runs on. Nothing is sent anywhere else; there is no tracking, and nothing is loaded from other servers.',
      'Whoever keeps that machine can read the database and makes its backups.',
    ],
  ],
  [
    'What is kept of you',
    [
      'Your name, the name on the wall, your groups, times you are away.',
      'What figures take, where your coaches noted it: body mass, sets and the maxima that follow from them, capacity with the test it is from, a factor for pace, an offset for effort.',
      'Limits: a joint or a movement that you are to be spared, from when to when, and a note.',
      'Whether you came to a session, and your own minutes and effort where they were noted.',
      'What a coach noted of you while a session ran: that you came late, left, were hurt, what you did otherwise, your scores, a note. Once sent, a note is not kept on the coach’s phone; who is expected and what was scored before is, until the next day.',
      'What the log keeps of you: scores in windows and what was expected of them, how hard you found a session, what follows from that for your pace and effort; notes of form or kit and, where your squad asks for it, of pain or dizziness, and your pulse where a recording was brought (time and pulse alone; the curve can be deleted). Your name stands beside your scores, where others read, only once you agreed to it.',
      'If a coach gave you a link of your own: that you have one, and the browsers that opened it (two at most, browser and system, when last used); what you said by it of coming, options, scores and how hard it was. What you said of pain, dizziness or how fresh you are goes to your coaches; it is not shown on that page again, and stays on your phone only until it is sent.',
      'If you have an account: the name you sign in with, your password as a hash that cannot be turned back, the browsers that are signed in (browser and system, since when), and whether you read kilograms or pounds.',
      'No date of birth, no address, no e-mail address: an address that an invitation is sent to is used once and not kept.',
    ],
  ],
  [
    'Who sees it',
    [
      'Everybody in the squad sees the plan, names as they stand on the wall, and which option somebody takes; never why. At stations your name stands on the wall while a session runs.',
      'The coaches of your squad see what is kept of you. The note of a limit is for head coaches and you.',
      'Other athletes see none of your measures, limits, ratings and notes. Nothing of that stands on a card, on a wall, in a calendar, or in an export of the squad unless a head coach ticks it.',
      'You see your own scores, ratings and notes; on the tablet that goes round nobody sees what others said. Notes of health are folded on every page that may be shown round.',
      'Other squads see nothing.',
    ],
  ],
  [
    'Under age',
    [
      'For whoever is marked as under age there is no link of their own, and no body mass, no capacity and no tested maxima are kept until a head coach has noted that a guardian agreed; estimates come from sets of five and more; nobody is ranked. The rules of the place where you train come first.',
    ],
  ],
  [
    'How long',
    [
      'What is kept of you stays until it is taken away or you are erased. A session that was taken off the plan can come back with its log for 30 days, then it is deleted. Who did what in the squad is kept for a year.',
      'Notes of pain, dizziness and hurts are kept for 12 months, or from 1 to 36 as a head coach sets it; then only that there was one.',
      'A sign-in ends after 14 days without use, on a shared device after 12 hours. Wrong passwords are remembered for 30 days, by name and address. A browser that was signed in keeps a cookie that says so for 180 days; it opens nothing. The secret of a second factor is kept until it is switched off.',
      'A link of your own ends with the season, after 180 days at most, or at once when you or a coach end it; your phone forgets what it kept the next time it asks. How fresh you said you were is kept as long as notes of pain.',
      'Invitations are good for 7 days (for a head coach one), links for a new password for a day; they open something once.',
    ],
  ],
  [
    'Your rights here',
    [
      'On your own page you take all of it out as one file, and you can erase it; a head coach can do both for you, and your guardian may have the file.',
      'Erasing takes your name, account, links, limits, measures, notes and ratings. That somebody came to a session, and a score, stay without a name only where ten or more people have such there. Your name is looked for in titles, notes and all other words of the squad, shown to you, and taken out.',
      'An id without a name is kept beside the database, so that no backup brings you back. The database file is then written anew. Backups made before hold you until whoever keeps the machine deletes them.',
    ],
  ],
])
