// What is marked on the lines of a wall's text: places read one way of several, new names, lines in no figure.
import { LINE_MARKS as say } from '@/words/texts/board'
import { StateEffect, StateField } from '@codemirror/state'
import { Decoration, EditorView, WidgetType, type DecorationSet } from '@codemirror/view'

import type { Assumed, NewName, UnreadLine, UnusedNumber } from '@/api/types'

import { isOpen } from './assumed'

/** All that is marked on one line. */
export interface LineMarks {
  line: number
  assumed: readonly Assumed[]
  names: readonly NewName[]
  unused: readonly UnusedNumber[]
  unread: boolean
  note: boolean
}

export function marksByLine(told: {
  assumed: readonly Assumed[]
  names: readonly NewName[]
  unread: readonly UnreadLine[]
  unused: readonly UnusedNumber[]
  notes: readonly number[]
}): Map<number, LineMarks> {
  const found = new Map<number, LineMarks>()
  const at = (line: number): LineMarks =>
    found.get(line) ?? { line, assumed: [], names: [], unused: [], unread: false, note: false }
  for (const one of told.assumed) found.set(one.line, { ...at(one.line), assumed: [...at(one.line).assumed, one] })
  for (const one of told.names) found.set(one.line, { ...at(one.line), names: [...at(one.line).names, one] })
  for (const one of told.unused) found.set(one.line, { ...at(one.line), unused: [...at(one.line).unused, one] })
  for (const line of told.notes) found.set(line, { ...at(line), note: true })
  for (const one of told.unread) found.set(one.line, { ...at(one.line), unread: true })
  return found
}

const wordsClass = (one: Assumed): string => (one.settled ? 'kept-words' : one.habit ? 'habit-words' : 'open-words')

/** `40 not in the figures`, of the numbers of a line that no figure has. */
const unusedText = (marks: LineMarks): string =>
  marks.unused.length ? say.unused(marks.unused.map((one) => one.text).join(', ')) : ''

const LONGEST_LABEL = 26
/** What stands at the end of a marked line. */
export function labelOf(marks: LineMarks): string {
  const open = marks.assumed.filter(isOpen)
  const first = open[0] ?? marks.assumed[0]
  const words = marks.names.length
    ? say.guessed
    : first
      ? first.read_as
      : marks.unread
        ? say.unread
        : unusedText(marks) || say.note
  const count = marks.names.length + open.length
  const short = words.length > LONGEST_LABEL ? `${words.slice(0, LONGEST_LABEL - 1)}…` : words
  return count > 1 ? `${short} +${count - 1}` : short
}

class Label extends WidgetType {
  constructor(
    readonly marks: LineMarks,
    readonly open: (line: number) => void,
  ) {
    super()
  }
  override eq(other: Label): boolean {
    return (
      labelOf(this.marks) === labelOf(other.marks) && this.marks.line === other.marks.line && this.kind === other.kind
    )
  }
  get kind(): string {
    if (this.marks.names.length) return 'new'
    if (this.marks.assumed.some(isOpen)) return 'open'
    return this.marks.assumed.length ? 'kept' : 'unread'
  }
  toDOM(): HTMLElement {
    const made = globalThis.document.createElement('button')
    made.type = 'button'
    made.className = `mark-label ${this.kind}`
    made.textContent = this.kind === 'unread' ? labelOf(this.marks) : `${labelOf(this.marks)} ▾`
    made.tabIndex = -1
    if (this.kind === 'unread') made.disabled = true
    else made.setAttribute('aria-label', `Line ${this.marks.line}: ${labelOf(this.marks)}`)
    made.addEventListener('mousedown', (event) => {
      event.preventDefault()
      this.open(this.marks.line)
    })
    return made
  }
  override ignoreEvent(): boolean {
    return true
  }
}

export const setMarks = StateEffect.define<Map<number, LineMarks>>()

/** The marks of a text, drawn: words underlined, a label at the end of the line. */
export function marked(open: (line: number) => void) {
  return StateField.define<DecorationSet>({
    create: () => Decoration.none,
    update(drawn, change) {
      let now = drawn.map(change.changes)
      for (const effect of change.effects) {
        if (!effect.is(setMarks)) continue
        const ranges = []
        for (const marks of effect.value.values()) {
          if (marks.line < 1 || marks.line > change.state.doc.lines) continue
          const line = change.state.doc.line(marks.line)
          const within = (column: number, length: number): [number, number] => {
            const from = Math.min(line.to, line.from + Math.max(0, column - 1))
            return [from, Math.min(line.to, from + length)]
          }
          if (marks.unread || marks.note) ranges.push(Decoration.line({ class: 'unread-line' }).range(line.from))
          for (const one of marks.assumed) {
            const [from, to] = within(one.column, one.length)
            if (to > from) ranges.push(Decoration.mark({ class: wordsClass(one) }).range(from, to))
          }
          for (const one of marks.names) {
            const [from, to] = within(one.column, one.length)
            if (to > from) ranges.push(Decoration.mark({ class: 'new-words' }).range(from, to))
          }
          for (const one of marks.unused) {
            const [from, to] = within(one.column, one.text.length)
            if (to > from) ranges.push(Decoration.mark({ class: 'unused-number' }).range(from, to))
          }
          ranges.push(Decoration.widget({ widget: new Label(marks, open), side: 1 }).range(line.to))
        }
        now = Decoration.set(ranges, true)
      }
      return now
    },
    provide: (field) => EditorView.decorations.from(field),
  })
}
