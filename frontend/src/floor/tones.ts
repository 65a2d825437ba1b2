// Tones on the audio clock: all of a beat are set as it begins, and set anew by any order. Three shapes, told apart by
// their rhythm: a count-in (three short, the beat's own begins on the fourth), a change (one long), a mark (two short).
// While time waits, one short and low.

export type Shape = 'count-in' | 'change' | 'mark' | 'waiting'

/** Notes of a shape: seconds from its moment, length, pitch. A count-in ends at its moment. */
const NOTES: Record<Shape, readonly (readonly [at: number, length: number, hertz: number])[]> = {
  'count-in': [
    [0, 0.09, 660],
    [1, 0.09, 660],
    [2, 0.09, 660],
  ],
  change: [[0, 0.55, 880]],
  mark: [
    [0, 0.08, 740],
    [0.16, 0.08, 740],
  ],
  waiting: [[0, 0.12, 330]],
}
const QUIET = 0.3

/** A tone that is to sound: its shape, and when, in seconds from now. */
export interface DueTone {
  shape: Shape
  inS: number
}

/** What of an audio context tones need; a stand-in in tests. */
export type AudioDesk = Pick<AudioContext, 'currentTime' | 'createOscillator' | 'createGain' | 'destination'>

export class Tones {
  private sounding: { stop: (when?: number) => void }[] = []
  /** When tones were set to begin, on the audio clock; read by the bench. */
  readonly set: number[] = []

  constructor(
    private readonly desk: AudioDesk,
    private readonly loudness: () => number,
  ) {}

  /** Take back what was set, and set these. What lies behind is left out. */
  setAnew(due: readonly DueTone[]): void {
    this.silence()
    for (const { shape, inS } of due) {
      for (const [at, length, hertz] of NOTES[shape])
        if (inS + at >= 0) this.note(this.desk.currentTime + inS + at, length, hertz, shape === 'waiting' ? QUIET : 1)
    }
  }

  silence(): void {
    for (const one of this.sounding) one.stop()
    this.sounding = []
  }

  private note(when: number, length: number, hertz: number, share: number): void {
    const oscillator = this.desk.createOscillator()
    const gain = this.desk.createGain()
    oscillator.frequency.value = hertz
    const loud = this.loudness() * share
    gain.gain.setValueAtTime(0, when)
    gain.gain.linearRampToValueAtTime(loud, when + 0.006)
    gain.gain.setValueAtTime(loud, when + length - 0.02)
    gain.gain.linearRampToValueAtTime(0, when + length)
    oscillator.connect(gain)
    gain.connect(this.desk.destination)
    oscillator.start(when)
    oscillator.stop(when + length)
    this.sounding.push(oscillator)
    this.set.push(when)
  }
}
