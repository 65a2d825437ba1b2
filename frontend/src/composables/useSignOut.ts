import { useRouter } from 'vue-router'

import { account, signingOut, signOut, whoAmI } from './useAccount'

/** Leave, then sign out: what is being written is saved on the way, which only somebody signed in can do. */
export function useSignOut(): () => Promise<void> {
  const router = useRouter()
  return async () => {
    // The page may have just come: whose runs wait here is not known before it is known who this is.
    if (!account.value) await whoAmI()
    // Fetched when it is needed: nobody signs out often.
    const { leavesFloor } = await import('@/floor/leaving')
    if (!(await leavesFloor(account.value?.name ?? ''))) return
    signingOut.value = true
    try {
      const stayed = await router.push({ name: 'sign-in' })
      if (!stayed) await signOut()
      else signingOut.value = false
    } catch (error) {
      signingOut.value = false
      throw error
    }
  }
}
