import { ref } from 'vue'

import { api, Refusal } from '@/api/client'
import type { Me } from '@/api/types'

/** The signed-in member; null for nobody. */
export const account = ref<Me | null>(null)

/** Ask the server who is signed in. */
export async function whoAmI(): Promise<void> {
  try {
    account.value = await api.me()
  } catch (error) {
    if (!(error instanceof Refusal)) throw error
    account.value = null
  }
}

/** Sign in; throws a Refusal with the server's words. */
export async function signIn(name: string, password: string): Promise<void> {
  account.value = await api.signIn(name, password)
}

/** Sign out here. */
export async function signOut(): Promise<void> {
  await api.signOut()
  account.value = null
}
