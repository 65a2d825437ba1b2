import { onScopeDispose, shallowRef, watch, type Ref } from 'vue'

import { api, Refusal } from '@/api/client'
import type { BlockFormat, Figures, ProblemItem, SessionDoc, Stave } from '@/api/types'

const PAUSE_MS = 60

/** Figures of a document, asked anew shortly after each change; late answers are dropped. */
export function useFigures(document: Ref<SessionDoc | null>, squad: Ref<number>) {
  const figures = shallowRef<Figures | null>(null)
  const stave = shallowRef<Stave | null>(null)
  const formats = shallowRef<readonly BlockFormat[]>([])
  const problems = shallowRef<readonly ProblemItem[]>([])
  const trouble = shallowRef('')
  let timer = 0
  let asking: AbortController | null = null

  async function ask(asked: SessionDoc): Promise<void> {
    asking?.abort()
    const mine = new AbortController()
    asking = mine
    try {
      const answer = await api.figures(asked, squad.value, mine.signal)
      if (asking !== mine) return
      figures.value = answer.figures
      stave.value = answer.stave
      formats.value = answer.formats
      problems.value = []
      trouble.value = ''
    } catch (error) {
      if (asking !== mine || !(error instanceof Refusal)) return
      problems.value = error.problems
      trouble.value = error.problems.length > 0 ? '' : error.message
    }
  }

  watch(
    document,
    (changed, before) => {
      window.clearTimeout(timer)
      if (changed === null) return
      timer = window.setTimeout(() => void ask(changed), before === null ? 0 : PAUSE_MS)
    },
    { immediate: true },
  )
  onScopeDispose(() => {
    window.clearTimeout(timer)
    asking?.abort()
  })
  return { figures, stave, formats, problems, trouble }
}
