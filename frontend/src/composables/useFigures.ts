import { computed, onScopeDispose, shallowRef, watch, type Ref } from 'vue'

import { api, Refusal } from '@/api/client'
import type { BlockFormat, Figures, FiguresIn, Given, ProblemItem, SessionDoc, Stave } from '@/api/types'

const PAUSE_MS = 15

/** What figures are asked with, besides the document; `against` asks for differences. */
export interface Asked {
  squad: Ref<number>
  given: Ref<Given>
  methods: Ref<Record<string, unknown>>
  against: Ref<FiguresIn['against']>
}

/** Figures of a document, asked anew shortly after each change; late answers are dropped. */
export function useFigures(document: Ref<SessionDoc | null>, asked: Asked) {
  const figures = shallowRef<Figures | null>(null)
  const stave = shallowRef<Stave | null>(null)
  const formats = shallowRef<readonly BlockFormat[]>([])
  const deltas = shallowRef<Record<string, number> | null>(null)
  const problems = shallowRef<readonly ProblemItem[]>([])
  const trouble = shallowRef('')
  let timer = 0
  let asking: AbortController | null = null

  async function ask(body: FiguresIn): Promise<void> {
    asking?.abort()
    const mine = new AbortController()
    asking = mine
    try {
      const answer = await api.figures(body, mine.signal)
      if (asking !== mine) return
      figures.value = answer.figures
      stave.value = answer.stave
      formats.value = answer.formats
      deltas.value = answer.deltas ?? null
      problems.value = []
      trouble.value = ''
    } catch (error) {
      if (asking !== mine || !(error instanceof Refusal)) return
      problems.value = error.problems
      trouble.value = error.problems.length > 0 ? '' : error.message
    }
  }

  const question = computed<FiguresIn | null>(() =>
    document.value === null
      ? null
      : {
          document: document.value,
          squad: asked.squad.value,
          given: asked.given.value,
          methods: asked.methods.value,
          ...(asked.against.value ? { against: asked.against.value } : {}),
        },
  )
  watch(
    question,
    (changed, before) => {
      window.clearTimeout(timer)
      if (changed === null) return
      timer = window.setTimeout(() => void ask(changed), before ? PAUSE_MS : 0)
    },
    { immediate: true },
  )
  onScopeDispose(() => {
    window.clearTimeout(timer)
    asking?.abort()
  })
  return { figures, stave, formats, deltas, problems, trouble }
}
