// What is pointed at on the Bench, and what lights with it: windows of the stave, blocks, steps, figures.
import { computed, type ComputedRef, type Ref } from 'vue'

import type { Stave } from '@/api/types'
import { linesOf, type StaveLine } from '@/stave/line'

/** What is pointed at, or has the focus, beside the stave: a block, a step, a movement, a pattern's row, a way of counting. */
export type Lit = { block?: number; step?: string; movement?: string; row?: string; kind?: string }

/** Whether a window is one of what is pointed at. */
export function isOf(line: StaveLine, lit: Lit | null): boolean {
  if (!lit) return false
  if (lit.block !== undefined) return line.block === lit.block
  if (lit.step !== undefined) return line.step === lit.step
  if (lit.kind !== undefined) return line.counted === lit.kind && line.reps > 0
  if (lit.row !== undefined) return line.rows.includes(lit.row)
  return lit.movement !== undefined && (line.movement === lit.movement || line.name === lit.movement)
}

/** What lights: blocks by number, steps by id, rows by name, ways of counting by key. */
export interface Light {
  blocks: ReadonlySet<number>
  steps: ReadonlySet<string>
  rows: ReadonlySet<string>
  kinds: ReadonlySet<string>
}

/** One window that is pointed at on the stave, or all windows of what is pointed at elsewhere, light all that is theirs. */
export function useLight(
  stave: Ref<Stave | null>,
  lit: Ref<Lit | null>,
  pointed: Ref<StaveLine | null>,
): ComputedRef<Light> {
  // Only worked out while something is pointed at.
  const all = computed(() => (stave.value ? linesOf(stave.value) : []))
  return computed(() => {
    const lines = pointed.value ? [pointed.value] : lit.value ? all.value.filter((line) => isOf(line, lit.value)) : []
    // A block that is pointed at is marked as one: not each of its steps as well.
    const whole = !pointed.value && lit.value?.block !== undefined
    return {
      blocks: new Set(lines.map((line) => line.block)),
      steps: new Set(whole ? [] : lines.map((line) => line.step)),
      rows: new Set(lines.flatMap((line) => line.rows)),
      kinds: new Set(lines.filter((line) => line.reps > 0).map((line) => line.counted)),
    }
  })
}
