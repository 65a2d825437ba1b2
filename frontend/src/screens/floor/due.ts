import type { RunState } from '@/floor/runState'
import type { Given } from '@/floor/useRun'
import { FLOOR as say } from '@/words/texts/floor'

/** What is due: its word, what a tap gives; nothing while a clock runs. `also`: a second thing that may be tapped. */
export interface Due {
  label: string
  given: Given | null
  also: { label: string; given: Given } | null
}

const quiet = (label: string): Due => ({ label, given: null, also: null })
const LAP: Given = { do: 'lap' }

/** What the one big place is for, where a run stands so. */
export function dueOf(state: RunState): Due {
  const { mode, beat } = state
  if (mode === 'before') return { label: say.begin, given: { do: 'start' }, also: null }
  if (mode === 'paused') return { label: say.goOn, given: { do: 'resume' }, also: null }
  if (!beat || mode === 'over') return quiet('')
  if (mode === 'waiting') return { label: say.begin, given: { do: 'next' }, also: null }
  if (beat.kind === 'talk') return { label: say.goOn, given: { do: 'next' }, also: null }
  if (beat.kind === 'rest' || !beat.self_paced) return quiet(say.clockRuns)
  if (beat.ends === 'clock') return { label: say.roundDone, given: LAP, also: null }
  const rounds = beat.set === null ? { label: say.roundDone, given: LAP } : null
  return { label: say.done, given: { do: 'next' }, also: rounds }
}
