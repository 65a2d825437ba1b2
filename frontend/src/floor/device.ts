const KEY = 'floor-device'

/** What this device is known by among those that run the same session; made up at its first run. */
export function deviceName(): string {
  const known = localStorage.getItem(KEY)
  if (known) return known
  const made = newId()
  localStorage.setItem(KEY, made)
  return made
}

/** A random id. By hand where the page came without https, where the browser has no `randomUUID`. */
export function newId(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(16))
  bytes[6] = ((bytes[6] ?? 0) & 0x0f) | 0x40
  bytes[8] = ((bytes[8] ?? 0) & 0x3f) | 0x80
  const hex = [...bytes].map((byte) => byte.toString(16).padStart(2, '0')).join('')
  return [hex.slice(0, 8), hex.slice(8, 12), hex.slice(12, 16), hex.slice(16, 20), hex.slice(20)].join('-')
}
