import { StorageSerializers, useLocalStorage, useSessionStorage } from '@vueuse/core'
import { computed, ref, watch } from 'vue'

import { api } from '@/api/client'
import { queryClient } from '@/api/query'
import { Refusal, UNREACHABLE } from '@/api/refusal'
import type { Me } from '@/api/types'
import { keepUnits } from '@/words/units'

/** The signed-in member; null for nobody. */
export const account = ref<Me | null>(null)
watch(account, (now) => now && keepUnits(now.units))

/** The squad that was chosen of several; 0 for one's first. Kept for this tab, until signing out. */
const chosen = useSessionStorage('squad', 0)

/** The squad that screens are about: the chosen one, if one belongs to it. */
export const squadNow = computed(() => {
  const squads = account.value?.squads ?? []
  return squads.find((one) => one.id === chosen.value)?.id ?? squads[0]?.id ?? 0
})

/** One's membership in the squad that screens are about. */
export const squadOwn = computed(() => account.value?.squads.find((one) => one.id === squadNow.value))
/** Whether one plans there; whether one is its head coach. */
export const plansHere = computed(() => squadOwn.value !== undefined && squadOwn.value.role !== 'athlete')
export const headHere = computed(() => squadOwn.value?.role === 'head-coach')

export function chooseSquad(id: number): void {
  chosen.value = id
}

/** Who was signed in when the server was last asked: on the floor there may be no network to ask again. */
const remembered = useLocalStorage<Me | null>('floor-account', null, { serializer: StorageSerializers.object })

/** Ask the server who is signed in; where it cannot be asked, whoever was is taken to be. */
export async function whoAmI(): Promise<void> {
  try {
    account.value = await api.me()
    remembered.value = account.value
  } catch (error) {
    if (!(error instanceof Refusal)) throw error
    account.value = error.status === UNREACHABLE ? remembered.value : null
    if (error.status === 401) remembered.value = null
  }
}

/** Sign in; throws a Refusal with the server's words. What was asked before was asked by nobody, or somebody else. */
export async function signIn(name: string, password: string, shared = false, code = ''): Promise<void> {
  account.value = remembered.value = await api.signIn(name, password, shared, code)
  queryClient.clear()
}

/** Sign out here. The page is loaded again: the next user sees nothing of what was shown. */
/** Until the page is loaded again: what is typed before that would be lost. */
export const signingOut = ref(false)

export async function signOut(): Promise<void> {
  await api.signOut()
  beginAnew()
}

/** What belongs to the device, to a screen on the wall, to check-in links, or to other accounts' runs. */
const OF_THE_DEVICE = [
  'server-offset',
  'runs-may-wait',
  'floor-device',
  'floor-heard',
  'wall-screen',
  'own-units',
] as const

/** Load the page again, with nothing kept of the account: the session is over already. */
export function beginAnew(): void {
  queryClient.clear()
  account.value = null
  sessionStorage.clear()
  const kept = OF_THE_DEVICE.map((key) => [key, localStorage.getItem(key)] as const)
  localStorage.clear()
  for (const [key, value] of kept) if (value !== null) localStorage.setItem(key, value)
  window.location.replace('/sign-in')
}
