// Short names for the generated types; nothing is defined here.
import type { components } from './schema'

type S = components['schemas']

export type SessionDoc = S['Session']
export type Block = S['Block']
export type Section = S['Section']
export type Step = S['Step']
export type Station = S['Station']
export type Figures = S['Figures']
export type TimeFigures = S['TimeFigures']
export type Stave = S['Stave']
export type StaveKind = S['StaveKind']
export type StaveMark = Stave['marks'][number]
export type Thumbnail = S['Thumbnail']
export type Explanation = S['Explanation']
export type Term = S['Term']
export type BlockFormat = S['BlockFormat']
export type FiguresOut = S['FiguresOut']
export type CheckResult = S['CheckResult']
export type ProblemItem = S['ProblemItem']
export type SessionItem = S['SessionItem']
export type SessionOut = S['SessionOut']
export type SavedOut = S['SavedOut']
export type RevisionItem = S['RevisionItem']
export type MovementDef = S['MovementDef']
export type MovementsOut = S['MovementsOut']
export type Me = S['MeOut']
export type Problem = S['ProblemOut']
export type BoardOut = S['BoardOut']
export type BoardProblem = S['BoardProblemOut']
export type Assumed = S['AssumedOut']
export type NewName = S['NewNameOut']
export type UnreadLine = S['UnreadOut']
export type OutlineBlock = S['OutlineBlockOut']
export type Card = S['Card']
export type CardOut = S['CardOut']
export type Difference = S['Difference']
export type DifferencesOut = S['DifferencesOut']
export type FitWay = S['FitWay']
export type Format = S['FormatOut']
export type FormatsOut = S['FormatsOut']
export type FormatParam = S['ParamOut']
export type Given = S['Given']
export type Option = S['Option']
export type PersonOut = S['PersonOut']
export type RevisionOut = S['RevisionOut']
export type Column = S['Column']
export type Comparison = S['Comparison']
export type ComparisonOut = S['ComparisonOut']
export type SessionComparison = S['SessionComparison']
export type CompareIn = Partial<S['CompareIn']>
export type CompareRow = S['RowOut']
export type NamedWish = S['NamedWishOut']
export type Wish = S['WishIn']
export type Pick = S['Pick']
export type Reason = S['Reason']
export type Ranked = S['Ranked']
export type Judged = S['Judged']
export type Matter = S['MatterOut']
export type ReadMovements = S['ReadOut']
export type Placing = S['Placing']
export type Placed = S['Placed']
export type Turn = S['Turn']
export type SweepPoint = S['SweepPoint']
export type Shape = S['ShapeOut']
export type Edit = S['UseOut']['edits'][number]
export type CompareTables = S['CompareTablesOut']
export type Week = S['WeekOut']
export type PlanEntry = S['EntryOut']
export type PlanDay = S['DayOut']
export type PlanDetails = Partial<Omit<S['ChangeIn'], 'version'>>
export type WeekRow = S['WeekRow']
export type WeekLoad = S['WeekLoad']
export type LoadFigure = S['Figure']
export type Clash = S['Clash']
export type Proposal = S['ProposalOut']
export type LevelAsked = Partial<S['LevelIn']> & { day: string }
export type LevelProgress = S['ProgressOut']
export type Job = S['JobOut']
export type LevelEdit = S['LevelEditOut']
export type LevelBreak = S['BreakOut']
export type Outcome = S['OutcomeOut']
export type SessionsPage = S['SessionsOut']
export type SessionName = S['SessionName']
/** What a list is asked for; what is not said is as the server has it. */
export interface SessionsAsked {
  archived?: boolean
  words?: string
  tag?: string
  by?: string
  down?: boolean
  page?: number
}
export type TimeAway = S['AwayOut']
export type SeasonWeek = S['SeasonWeek']
export type Beside = S['BesideOut']
export type CalendarLink = S['LinkOut']
export type Attending = S['AttendanceOut']
export type PlanChange = S['ChangeOut']
/** What is sent with a document: everything but the document has a default. */
export type DocumentIn = { document: SessionDoc; squad: number; given?: Given; methods?: Record<string, unknown> }
export type FiguresIn = DocumentIn & { against?: { document?: SessionDoc; given?: Given } }
/** What was chosen for places of a text that could be meant otherwise, by assumption. */
export type Settled = Record<string, number>
export type WrittenText = S['TextOut']
