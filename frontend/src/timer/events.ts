import type { What } from './beats'

/** What happens while a session runs (docs/run.schema.json); `t`: seconds since its start. */
export type RunEvent = { t: number } & (
  | { do: 'start' | 'lap' | 'undo' }
  | Order
  | {
      do: 'score'
      block: number
      pass?: number
      index?: number
      rounds?: number
      reps?: number
      rung?: number
      time_s?: number
      person?: string
    }
  | { do: 'note'; text: string; person?: string; kind?: string }
  | { do: 'option'; person: string; step: string; label: string }
  | { do: 'here' | 'away'; person: string; why?: 'late' | 'left' | 'hurt' }
  | { do: 'exit'; taken: boolean }
  | { do: 'change'; edits: unknown[]; from?: string }
)

/** An order; with `on`, the number of beats played when it was given: meant for a beat that runs no more, it does nothing. */
export type Order = { on?: number } & (
  | { do: 'pause' | 'resume' | 'next' | 'back' | 'stop' }
  | { do: 'more'; s: number }
  | { do: 'set'; kind: 'work' | 'rest'; s: number }
  | { do: 'skip' | 'again'; what?: What }
)

const ORDERS = new Set(['pause', 'resume', 'next', 'back', 'stop', 'more', 'set', 'skip', 'again'])

export function isOrder(event: RunEvent): event is { t: number } & Order {
  return ORDERS.has(event.do)
}
