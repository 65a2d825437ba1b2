import { useLocalStorage } from '@vueuse/core'

/** Whether runs on this device may wait to be sent: what looks for them is fetched only then. */
export const mayWait = useLocalStorage('runs-may-wait', false)
