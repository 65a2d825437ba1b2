import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { effectScope, type Ref } from 'vue'

import { useOneTab } from './useOneTab'

const tab = (id = 'r') => {
  const scope = effectScope()
  const mine = scope.run(() => useOneTab(id))
  return { mine: mine as Ref<boolean>, close: () => scope.stop() }
}

beforeEach(() => {
  vi.useFakeTimers()
  const kept = new Map<string, string>()
  vi.stubGlobal('navigator', {})
  vi.stubGlobal('localStorage', {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => kept.set(key, value),
    removeItem: (key: string) => kept.delete(key),
  })
  for (const name of ['addEventListener', 'removeEventListener']) vi.stubGlobal(name, vi.fn())
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

test('without locks, too, one tab of a device runs a run, and the next one once it has gone', () => {
  const first = tab()
  vi.advanceTimersByTime(300)
  const second = tab()
  vi.advanceTimersByTime(10_000)
  expect([first.mine.value, second.mine.value]).toEqual([true, false])
  first.close()
  vi.advanceTimersByTime(2_500)
  expect(second.mine.value).toBe(true)
  second.close()
})

test('two that open at once do not both run it', () => {
  const tabs = [tab(), tab()]
  vi.advanceTimersByTime(5_000)
  expect(tabs.map((one) => one.mine.value).filter(Boolean)).toHaveLength(1)
  tabs.forEach((one) => one.close())
})

test('a tab that was killed, or a clock that was set, keeps nobody out', () => {
  localStorage.setItem('floor run r', JSON.stringify({ by: 'gone', at: Date.now() + 3_600_000 }))
  const one = tab()
  vi.advanceTimersByTime(2_500)
  expect(one.mine.value).toBe(true)
  one.close()
})
