import { onScopeDispose, ref, type Ref } from 'vue'

/** Whether this tab runs the run: of one device only one does, the others show. Where locks are unknown, all may. */
export function useOneTab(id: string): Ref<boolean> {
  const mine = ref(!('locks' in navigator))
  if (mine.value) return mine
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
