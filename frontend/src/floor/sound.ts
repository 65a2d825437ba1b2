// How sound leaves this device: together with music, or though the phone is silent, where the browser lets a page say so.
import type { SoundWay } from './calls'

/** Of browsers that know it: whether this page's sound stops other sound, and heeds a switch to silence. */
interface AudioSession {
  type: 'auto' | 'ambient' | 'playback'
}
const SESSIONS: Record<SoundWay, AudioSession['type']> = { usual: 'auto', music: 'ambient', silent: 'playback' }

export function takeWay(way: SoundWay): void {
  const session = (navigator as Navigator & { audioSession?: AudioSession }).audioSession
  if (session) session.type = SESSIONS[way]
}

/** With music the tones are louder: it goes on beside them. */
export const loudnessOf = (way: SoundWay): number => (way === 'music' ? 0.95 : 0.5)
