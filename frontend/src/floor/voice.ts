/** Words said aloud, by voices that need no network; nothing where there is none. */
export interface Voice {
  say: (words: string) => void
  stop: () => void
}

export function spokenAloud(): Voice {
  const speech = typeof speechSynthesis === 'undefined' ? null : speechSynthesis
  return {
    say(words) {
      const own = speech?.getVoices().filter((voice) => voice.localService && voice.lang.startsWith('en')) ?? []
      if (!speech || !own[0]) return
      const utterance = new SpeechSynthesisUtterance(words)
      utterance.voice = own[0]
      speech.speak(utterance)
    },
    stop: () => speech?.cancel(),
  }
}
