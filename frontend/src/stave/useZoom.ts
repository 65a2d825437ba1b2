import { computed, ref, watch, type Ref } from 'vue'

const CLOSEST_S = 60
const STEP = 1.6

/** The stretch of a session that the stave shows: all of it, or a part that can be moved along. */
export function useZoom(totalS: Ref<number>) {
  const from = ref(0)
  const span = ref(totalS.value)
  const zoomed = computed(() => span.value < totalS.value - 0.5)

  // A session that got longer or shorter is shown whole again, unless a part was looked at.
  watch(totalS, (total, before) => {
    if (span.value >= before - 0.5 || span.value > total) all()
    else from.value = Math.min(from.value, total - span.value)
  })

  function all(): void {
    from.value = 0
    span.value = totalS.value
  }
  function look(start: number, seconds: number): void {
    span.value = Math.min(totalS.value, Math.max(Math.min(CLOSEST_S, totalS.value), seconds))
    from.value = Math.max(0, Math.min(totalS.value - span.value, start))
  }
  function zoom(closer: boolean, around = from.value + span.value / 2): void {
    const seconds = closer ? span.value / STEP : span.value * STEP
    const share = span.value > 0 ? (around - from.value) / span.value : 0.5
    look(around - share * seconds, seconds)
  }
  const pan = (share: number): void => look(from.value + span.value * share, span.value)
  /** Move along until a moment is in sight. */
  function show(start: number, end: number): void {
    if (zoomed.value && (start < from.value || end > from.value + span.value)) look(start - span.value / 3, span.value)
  }
  return { from, span, zoomed, all, zoom, pan, show }
}
