import { useLocalStorage, useWakeLock } from '@vueuse/core'
import { onScopeDispose, ref, watch, type Ref } from 'vue'

import { spokenAloud, type Voice } from './voice'
import { tonesDue, wordsDue, type CallsWanted } from './calls'
import { Tones } from './tones'
import type { LiveRun } from './useRun'

export interface Calls {
  wanted: Ref<CallsWanted>
  /** Whether tones may sound: only after a touch on this page. */
  ready: Ref<boolean>
  wake: () => void
  silence: () => void
}

/** What is heard of a run: tones set on the audio clock, words by a voice of this device; the screen stays awake. */
export function useCalls(live: LiveRun, quiet: () => boolean): Calls {
  const wanted = useLocalStorage<CallsWanted>('floor-calls', { tones: true, voice: true, marks: true })
  const ready = ref(false)
  const screen = useWakeLock()
  const voice: Voice = spokenAloud()
  let context: AudioContext | null = null
  let tones: Tones | null = null
  let words: ReturnType<typeof setTimeout>[] = []

  function wake(): void {
    context ??= new AudioContext()
    tones ??= new Tones(context, () => 0.5)
    void context.resume().then(() => {
      ready.value = true
      setAnew()
    })
    if (screen.isSupported.value) void screen.request('screen').catch(() => undefined)
  }

  function silence(): void {
    tones?.silence()
    words.forEach(clearTimeout)
    words = []
    voice.stop()
  }

  function setAnew(): void {
    silence()
    const state = live.state.value
    if (!state?.beat || state.mode !== 'playing' || quiet()) return
    const t = live.now()
    if (wanted.value.tones) tones?.setAnew(tonesDue(live.timer(), state.beat, t, wanted.value))
    if (wanted.value.voice) {
      words = wordsDue(live.timer(), state.beat, t).map((due) => setTimeout(() => voice.say(due.words), due.inS * 1000))
    }
  }

  watch([live.turn, wanted, quiet], setAnew, { deep: true })
  onScopeDispose(() => {
    silence()
    void context?.close()
  })
  return { wanted, ready, wake, silence }
}
