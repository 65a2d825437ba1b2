import type { FloorSheet } from '@/api/types'

import { blocksNow, blocksOfSheet } from './blocksNow'
import type { KeptRun } from './kept'
import type { RunState } from './runState'
import type { LiveRun } from './useRun'

export type ExitWay = FloorSheet['exits'][number]

/** The exit that a run stands before, waiting; null where it stands at none, or it was asked already. */
export function exitHere(run: KeptRun, state: RunState, live: LiveRun): ExitWay | null {
  if (state.mode !== 'waiting' || !state.beat) return null
  if (live.events.value.some(({ event }) => event.do === 'exit')) return null
  const block = blocksOfSheet(run.sheet).passes.find(([passage]) => passage === state.beat?.passage)?.[1]
  return run.with?.exits.find((one) => one.block === block) ?? null
}

/** End there: what is left is skipped, block by block, up to the cool-down. */
export async function takeExit(run: KeptRun, live: LiveRun): Promise<void> {
  await live.give({ do: 'exit', taken: true })
  for (let left = live.timer().queue.items.length; left > 0; left--) {
    const state = live.state.value
    const now = blocksNow(run.sheet, live.timer().queue)
    if (!state?.beat || state.mode === 'over') return
    if (now.blocks[now.numberOf(state.beat) ?? -1]?.part === 'cool-down') return
    await live.give({ do: 'skip', what: 'block' })
  }
}
