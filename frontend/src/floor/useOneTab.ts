import { onScopeDispose, ref, type Ref } from 'vue'

/** A tab without locks says so often that it runs a run; one that was silent for longer has gone. */
const SAYS_EVERY_MS = 1_000
const GONE_AFTER_MS = 3_500

/**
 * Whether this tab runs the run: of one device only one does, the others show. Locks say it where the browser has them
 * (not where the page came without https), else what the tabs write down for each other.
 */
export function useOneTab(id: string): Ref<boolean> {
  return 'locks' in navigator ? byLock(id) : byWord(id)
}

function byLock(id: string): Ref<boolean> {
  const mine = ref(false)
  let letGo: () => void = () => undefined
  const held = new Promise<void>((resolve) => (letGo = resolve))
  const leaving = new AbortController()
  void navigator.locks
    .request(`floor run ${id}`, { signal: leaving.signal }, async () => {
      mine.value = true
      await held
    })
    .catch(() => undefined)
  onScopeDispose(() => {
    leaving.abort()
    letGo()
  })
  return mine
}

function byWord(id: string): Ref<boolean> {
  const key = `floor run ${id}`
  // No randomUUID without https.
  const tab = `${Date.now()} ${Math.random()}`
  const mine = ref(false)
  const look = (): void => {
    const { by, at } = said(key)
    // Time that was set back must not keep a run from every tab.
    const going = by !== '' && Math.abs(Date.now() - at) < GONE_AFTER_MS
    if (going && by !== tab) mine.value = false
    else localStorage.setItem(key, JSON.stringify({ by: tab, at: Date.now() }))
    // Of two that wrote at once the later one has it: the tab that finds its own note again runs the run.
    if (going && by === tab) mine.value = true
  }
  look()
  const asks = setInterval(look, SAYS_EVERY_MS)
  const soon = setTimeout(look, SAYS_EVERY_MS / 5)
  const leave = (): void => {
    if (said(key).by === tab) localStorage.removeItem(key)
  }
  addEventListener('pagehide', leave)
  onScopeDispose(() => {
    clearInterval(asks)
    clearTimeout(soon)
    removeEventListener('pagehide', leave)
    leave()
  })
  return mine
}

function said(key: string): { by: string; at: number } {
  try {
    const { by, at } = JSON.parse(localStorage.getItem(key) ?? '{}') as { by?: unknown; at?: unknown }
    return { by: typeof by === 'string' ? by : '', at: typeof at === 'number' ? at : 0 }
  } catch {
    return { by: '', at: 0 }
  }
}
