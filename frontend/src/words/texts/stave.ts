// Texts of the stave, by component: one key each. Figures come in written already (words/format.ts).
import { said, type Said } from './said'
import { texts } from './texts'

export const STAVE_VIEW = texts('staveView', {
  staveOfTheSessionArrow:
    'Stave of the session. Arrow keys walk through its windows, plus and minus zoom, shift and arrows move along.',
  uptake: 'uptake',
  workAllRows: 'work, all rows',
  pointAtAWindowTo: 'Point at a window to read its line.',
  rangesLeaveOpenTo: (low: Said, high: Said) => said`ranges leave open ${low} to ${high}`,
})

export const STAVE_LEGEND = texts('staveLegend', {
  darkerIsHarder: 'darker: harder',
  upperAndLowerHalf: 'upper half: left side, lower half: right side',
  iSee: 'I see',
})

export const STAVE_ZOOM = texts('staveZoom', {
  zoomOfTheStave: 'Zoom of the stave',
  earlier: 'Earlier',
  later: 'Later',
  closer: 'Closer',
  further: 'Further',
  all: 'all',
})
