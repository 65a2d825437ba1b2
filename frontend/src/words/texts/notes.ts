// Kinds of notes, and the sides of a place that hurts.
import { texts } from './texts'
export const NOTE_KINDS: Readonly<Record<string, string>> = texts('noteKinds', {
  free: 'anything',
  form: 'form',
  kit: 'kit',
  pain: 'pain',
  dizziness: 'dizziness',
  hurt: 'a hurt',
})
export const SIDES: Readonly<Record<string, string>> = texts('sides', {
  '': 'no side',
  left: 'left',
  right: 'right',
  both: 'both',
})
