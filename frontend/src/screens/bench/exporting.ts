import { api } from '@/api/client'
import type { SessionDoc } from '@/api/types'
import { saveFile } from '@/composables/useFiles'

/**
 * Hand a session out as a file. `pinned`: its id where it is kept as it stands; the file refers to that version, so
 * nothing is saved over it from now on.
 */
export async function exportSession(
  document: SessionDoc,
  kind: 'json' | 'txt',
  squad: number,
  pinned: string | null,
): Promise<void> {
  const name =
    document.title
      .toLowerCase()
      .replace(/[^\p{L}\p{N}]+/gu, '-')
      .replace(/^-|-$/g, '') || 'session'
  const text =
    kind === 'json' ? `${JSON.stringify(document, null, 1)}\n` : (await api.writeBoard(document, squad, true)).text
  if (pinned) await api.pinSession(pinned)
  saveFile(`${name}.${kind}`, text, kind === 'json' ? 'application/json' : 'text/plain')
}
