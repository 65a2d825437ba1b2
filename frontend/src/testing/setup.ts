// A window's clock and listeners, for composables that are tested without a browser. Named by vite.config.ts.
import { vi } from 'vitest'

vi.stubGlobal('window', {
  setTimeout: (work: () => void, ms: number) => setTimeout(work, ms),
  clearTimeout: (timer: number) => clearTimeout(timer),
  setInterval: (work: () => void, ms: number) => setInterval(work, ms),
  clearInterval: (timer: number) => clearInterval(timer),
  addEventListener: () => undefined,
  removeEventListener: () => undefined,
})
vi.stubGlobal('requestAnimationFrame', (work: () => void) => setTimeout(work, 0))
