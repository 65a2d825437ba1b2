// Kinds of notes, and the sides of a place that hurts.
export const NOTE_KINDS: Readonly<Record<string, string>> = {
  free: 'anything',
  form: 'form',
  kit: 'kit',
  pain: 'pain',
  dizziness: 'dizziness',
  hurt: 'a hurt',
}
export const SIDES: Readonly<Record<string, string>> = { '': 'no side', left: 'left', right: 'right', both: 'both' }
