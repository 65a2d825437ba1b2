// A window's clock and listeners, for composables that are tested without a browser. Named by vite.config.ts.
import { afterEach, vi } from 'vitest'

vi.stubGlobal('window', {
  location: { replace: vi.fn(), origin: 'http://localhost' },
  setTimeout: (work: () => void, ms: number) => setTimeout(work, ms),
  clearTimeout: (timer: number) => clearTimeout(timer),
  setInterval: (work: () => void, ms: number) => setInterval(work, ms),
  clearInterval: (timer: number) => clearInterval(timer),
  addEventListener: () => undefined,
  removeEventListener: () => undefined,
})
const store = () => {
  const kept = new Map<string, string>()
  return {
    getItem: (name: string) => kept.get(name) ?? null,
    setItem: (name: string, value: string) => kept.set(name, value),
    clear: () => kept.clear(),
  }
}
vi.stubGlobal('sessionStorage', store())
vi.stubGlobal('localStorage', store())
vi.stubGlobal('requestAnimationFrame', (work: () => void) => setTimeout(work, 0))
// Nobody answers, but who a test says does.
vi.stubGlobal('fetch', () => new Promise(() => undefined))

// What one test asked for is not there for the next. Imported late: it needs the window from above.
const { queryClient } = await import('@/api/query')
// Only now: what finds a document while it is loaded draws on it.
vi.stubGlobal('document', { cookie: '' })
afterEach(() => queryClient.clear())
