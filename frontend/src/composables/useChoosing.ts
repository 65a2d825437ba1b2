import { nextTick, onMounted, ref, useTemplateRef } from 'vue'

/**
 * A list that a field narrows: arrows walk through it, Enter takes, Escape closes. `last` is its last index, -1 if
 * empty. The template names them `field` and `list`.
 */
export function useChoosing(last: () => number, take: () => void, close: () => void) {
  const chosen = ref(0)
  const field = useTemplateRef<HTMLInputElement>('field')
  const list = useTemplateRef<HTMLElement>('list')
  onMounted(() => field.value?.focus())

  function keys(event: KeyboardEvent): void {
    if (event.key === 'ArrowDown') chosen.value = Math.max(0, Math.min(last(), chosen.value + 1))
    else if (event.key === 'ArrowUp') chosen.value = Math.max(0, chosen.value - 1)
    else if (event.key === 'Enter') take()
    else if (event.key === 'Escape') close()
    else return
    event.preventDefault()
    event.stopPropagation()
    void nextTick(() => list.value?.querySelector('[aria-selected="true"]')?.scrollIntoView({ block: 'nearest' }))
  }
  return { chosen, keys }
}
