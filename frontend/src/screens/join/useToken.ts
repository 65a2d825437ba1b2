import { useSessionStorage } from '@vueuse/core'
import { computed, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'

/**
 * The token of a link: taken from behind the sign of the address, which is cleared at once. Kept in this tab, so that who
 * signs in on the way comes back with it; `used` forgets it.
 */
export function useToken(kind: 'join' | 'reset' | 'me') {
  const route = useRoute()
  const router = useRouter()
  const kept = useSessionStorage(`token-${kind}`, '')
  // Another link that is opened in the same tab changes what stands behind the sign, and nothing else.
  watch(
    () => route.hash,
    (hash) => {
      if (hash.length < 2) return
      kept.value = hash.slice(1)
      void router.replace({ ...route, hash: '' })
    },
    { immediate: true },
  )
  return { token: computed(() => kept.value), used: () => (kept.value = '') }
}
