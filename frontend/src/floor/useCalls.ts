import { useLocalStorage, useWakeLock } from '@vueuse/core'
import { onScopeDispose, ref, watch, type Ref } from 'vue'

import { ALL_CALLS, tonesDue, waitingTones, wordsDue, type CallsWanted } from './calls'
import { loudnessOf, takeWay } from './sound'
import { Tones, type DueTone } from './tones'
import type { LiveRun } from './useRun'
import { spokenAloud, type Voice } from './voice'

export interface Calls {
  wanted: Ref<CallsWanted>
  /** Whether tones may sound: only after a touch on this page. */
  ready: Ref<boolean>
  wake: () => void
  silence: () => void
}

export function useCallsWanted(): Ref<CallsWanted> {
  return useLocalStorage<CallsWanted>('floor-calls', ALL_CALLS, { mergeDefaults: true })
}

/**
 * What is heard of a run: tones set on the audio clock, words by a voice of this device; the screen stays awake.
 * `whose`: what its calls begin with, where two runs go on one phone.
 */
export function useCalls(live: LiveRun, quiet: () => boolean, whose: () => string = () => ''): Calls {
  const wanted = useCallsWanted()
  const ready = ref(false)
  const screen = useWakeLock()
  const voice: Voice = spokenAloud()
  let context: AudioContext | null = null
  let tones: Tones | null = null
  let due: ReturnType<typeof setTimeout>[] = []

  function wake(): void {
    context ??= new AudioContext()
    tones ??= new Tones(context, () => loudnessOf(wanted.value.way))
    void context.resume().then(() => {
      ready.value = true
      setAnew()
    })
    if (screen.isSupported.value) void screen.request('screen').catch(() => undefined)
  }

  function silence(): void {
    tones?.silence()
    due.forEach(clearTimeout)
    due = []
    voice.stop()
  }

  function setAnew(): void {
    silence()
    const state = live.state.value
    if (!state?.beat || quiet()) return
    const { tones: sounds, voice: speaks, vibration } = wanted.value
    if (state.mode === 'waiting') {
      if (sounds) tones?.setAnew(waitingTones(wanted.value))
      return
    }
    if (state.mode !== 'playing') return
    const t = live.now()
    const set = tonesDue(live.timer(), state.beat, t, wanted.value)
    if (sounds) tones?.setAnew(set)
    if (vibration) due.push(...set.filter(({ shape }) => shape === 'change').map(shaken))
    if (speaks) {
      const said = wordsDue(live.timer(), state.beat, t, wanted.value, whose())
      due.push(...said.map((one) => setTimeout(() => voice.say(one.words), one.inS * 1000)))
    }
  }

  watch(() => wanted.value.way, takeWay, { immediate: true })
  watch([live.turn, wanted, quiet, whose], setAnew, { deep: true })
  onScopeDispose(() => {
    silence()
    void context?.close()
  })
  return { wanted, ready, wake, silence }
}

const SHAKE_MS = 250
function shaken({ inS }: DueTone): ReturnType<typeof setTimeout> {
  return setTimeout(() => 'vibrate' in navigator && navigator.vibrate(SHAKE_MS), inS * 1000)
}
