import { useRouter } from 'vue-router'

import { signOut } from './useAccount'

/** Leave, then sign out: what is being written is saved on the way, which only somebody signed in can do. */
export function useSignOut(): () => Promise<void> {
  const router = useRouter()
  return async () => {
    const stayed = await router.push({ name: 'sign-in' })
    if (!stayed) await signOut()
  }
}
