import { watch } from 'vue'

import { keepRun, type KeptRun } from './kept'
import { dueToLeave, type LeaveOut } from './leaveOut'
import type { LiveRun } from './useRun'

/** Keeps what is to be left out with the run, and leaves it out when its turn comes. */
export function useLeaveOut(live: LiveRun, mayGive: () => boolean): { choose: (steps: LeaveOut[]) => void } {
  function keep(run: KeptRun, steps: LeaveOut[]): void {
    run.leaveOut = steps
    void keepRun(run)
  }
  watch(live.state, () => {
    const run = live.run.value
    if (!run?.leaveOut?.length || !mayGive()) return
    const due = dueToLeave(live.timer(), run.leaveOut)
    if (!due) return
    // Taken off first: whoever takes the skip back wants it done.
    keep(
      run,
      run.leaveOut.filter((one) => one !== due),
    )
    void live.give({ do: 'skip', what: 'block' })
  })
  return {
    choose: (steps) => {
      if (live.run.value) keep(live.run.value, steps)
    },
  }
}
