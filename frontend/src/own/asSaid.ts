// The page as it stands with what was said and is not sent yet. Health is not on it: it goes in and not out.
import type { OwnEntry, OwnPage, OwnSaid } from '@/api/types'

/** The page with what waits on top, in the order in which it was said. */
export function withSaid(page: OwnPage, waiting: readonly OwnSaid[]): OwnPage {
  return {
    ...page,
    fresh_sent: page.fresh_sent || waiting.some((one) => one.what === 'fresh'),
    entries: page.entries.map((entry) =>
      waiting.reduce((now, one) => ('entry' in one && one.entry === entry.id ? saidOf(now, one) : now), entry),
    ),
  }
}

function saidOf(entry: OwnEntry, one: OwnSaid): OwnEntry {
  switch (one.what) {
    case 'here':
    case 'away':
      return { ...entry, said: one.what }
    case 'effort':
      return { ...entry, effort: one.effort ?? null }
    case 'option':
      return {
        ...entry,
        steps: entry.steps.map((step) => (step.step === one.step ? { ...step, taken: one.label ?? '' } : step)),
      }
    case 'score':
      return {
        ...entry,
        windows: entry.windows.map((window) =>
          window.block === one.block && window.section_pass === one.section_pass && window.index === one.index
            ? { ...window, score: one.score ?? null }
            : window,
        ),
      }
    default:
      return entry
  }
}
