import { ref } from 'vue'

/** Whether a newer release waits on this device until the page is opened anew. */
export const renewed = ref(false)
let waiting: ServiceWorker | null = null

/** Keep the shell on this device, where the page came by https or from this machine: asked for by the floor's pages. */
export async function keepShell(): Promise<void> {
  if (!('serviceWorker' in navigator) || !window.isSecureContext || import.meta.env.DEV) return
  // A browser may refuse to keep anything: then the floor runs as long as the page is open.
  const registration = await navigator.serviceWorker.register('/sw.js', { scope: '/' }).catch(() => null)
  if (!registration) return
  const look = (): void => {
    if (!registration.waiting || !navigator.serviceWorker.controller) return
    waiting = registration.waiting
    renewed.value = true
  }
  look()
  registration.addEventListener('updatefound', () => registration.installing?.addEventListener('statechange', look))
}

/** Open the page anew, of the newest release. */
export function renew(): void {
  navigator.serviceWorker.addEventListener('controllerchange', () => window.location.reload(), { once: true })
  waiting?.postMessage('take over')
}
