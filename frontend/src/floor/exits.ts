import type { FloorSheet } from '@/api/types'

import type { KeptRun } from './kept'
import type { RunState } from './runState'
import type { LiveRun } from './useRun'

export type ExitWay = FloorSheet['exits'][number]

/** The exit that a run stands before, waiting; null where it stands at none, or it was asked already. */
export function exitHere(run: KeptRun, state: RunState, live: LiveRun): ExitWay | null {
  if (state.mode !== 'waiting' || !state.beat) return null
  if (live.events.value.some(({ event }) => event.do === 'exit')) return null
  return run.with?.exits.find((one) => one.block === state.beat?.block) ?? null
}

/** End there: what is left is skipped, block by block, up to the cool-down. */
export async function takeExit(run: KeptRun, live: LiveRun): Promise<void> {
  await live.give({ do: 'exit', taken: true })
  for (let block = 0; block < run.sheet.blocks.length; block++) {
    const state = live.state.value
    if (!state?.beat || state.mode === 'over' || run.sheet.blocks[state.beat.block]?.part === 'cool-down') return
    await live.give({ do: 'skip', what: 'block' })
  }
}
