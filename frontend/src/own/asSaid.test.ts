import { describe, expect, it } from 'vitest'

import type { OwnPage, OwnSaid } from '@/api/types'

import { withSaid } from './asSaid'

const window = { block: 0, section_pass: 0, index: 0, score: null }
const page = {
  fresh_sent: false,
  entries: [
    { id: 'a', said: '', effort: null, steps: [{ step: 's', taken: '' }], windows: [window, { ...window, index: 1 }] },
    { id: 'b', said: 'here', effort: 4, steps: [], windows: [] },
  ],
} as unknown as OwnPage
const say = (more: object): OwnSaid => ({ number: 'n', at: '2026-12-07T18:00:00Z', entry: 'a', ...more }) as OwnSaid

describe('what was said and is not sent yet', () => {
  it('stands on the page, the last word last', () => {
    const shown = withSaid(page, [
      say({ what: 'here' }),
      say({ what: 'away' }),
      say({ what: 'effort', effort: 6 }),
      say({ what: 'option', step: 's', label: 'box dip' }),
      say({ what: 'score', block: 0, section_pass: 0, index: 1, score: { rounds: 5 } }),
    ])
    expect(shown.entries[0]).toMatchObject({ said: 'away', effort: 6, steps: [{ taken: 'box dip' }] })
    expect(shown.entries[0]?.windows.map((one) => one.score)).toEqual([null, { rounds: 5 }])
    expect(shown.entries[1]).toBe(page.entries[1])
  })
  it('shows nothing of health but that it was said', () => {
    const shown = withSaid(page, [say({ what: 'note', kind: 'pain', text: 'knee' }), say({ what: 'fresh', value: 2 })])
    expect(JSON.stringify(shown)).not.toContain('knee')
    expect(shown.fresh_sent).toBe(true)
    expect(page.fresh_sent).toBe(false)
  })
  it('takes an effort and a score back', () => {
    const shown = withSaid(withSaid(page, [say({ what: 'effort', effort: 6 })]), [say({ what: 'effort' })])
    expect(shown.entries[0]?.effort).toBeNull()
  })
})
