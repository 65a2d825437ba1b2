/** What the timer needs of a beat of the sheet (docs/sheet.schema.json). Seconds. */
export interface TimerBeat {
  kind: 'work' | 'rest' | 'talk'
  ends: 'clock' | 'tap' | 'cap'
  s: number
  self_paced: boolean
  block: number
  run: number
  set: number | null
  entry: string
  passage: string
}

export type Hold = 'entries' | 'blocks' | 'never'
export type What = 'block' | 'round'

/** A beat in the queue. `number`: on its sheet; `s`: what it lasts now; copies have a `run` and `set` of their own. */
export interface QueuedBeat {
  readonly beat: TimerBeat
  readonly sheet: number
  readonly number: number
  readonly run: number
  readonly set: number | null
  readonly s: number
  readonly copy: boolean
}

/**
 * A session laid out anew while it runs: its passes through blocks in `order`, by name, and for those that
 * `changed` their beats, each with its number on the new sheet.
 */
export interface Layout {
  order: readonly string[]
  changed: readonly string[]
  beats: readonly { number: number; beat: TimerBeat }[]
  /** The blocks as they now are, where they are others; of which of them each pass of `order` is. */
  blocks?: readonly LaidBlock[]
  numbers?: readonly number[]
}

/** What is said of a block of the session. */
export interface LaidBlock {
  title: string
  part: string
  optional?: string
}

/** Whether time waits for the coach between two beats. */
export function waits(hold: Hold, before: QueuedBeat, item: QueuedBeat): boolean {
  if (hold === 'never' || item.beat.kind === 'talk' || item.run === before.run) return false
  return hold === 'blocks' || item.copy || item.beat.entry !== before.beat.entry
}
