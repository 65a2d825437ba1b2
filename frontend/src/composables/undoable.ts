/** A change that was made: what was done, in words, and what undoes it. */
export interface Undoable {
  done: string
  undo: () => Promise<unknown>
}
