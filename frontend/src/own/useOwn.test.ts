import { effectScope, type EffectScope } from 'vue'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'

import { api, Refusal, UNREACHABLE } from '@/api/client'
import type { OwnPage, OwnSaid } from '@/api/types'
import { promised } from '@/testing/promised'

import { useOwn, type OwnLink } from './useOwn'

/** What the phone keeps, without its database. */
const kept = vi.hoisted(() => ({ said: [] as { number: string }[] }))
vi.mock('./kept', () => ({
  pageKept: () => Promise.resolve(undefined),
  keepPage: () => Promise.resolve(),
  keepSaid: (_link: number, said: { number: string }) => Promise.resolve(void kept.said.push(said)),
  saidKept: () => Promise.resolve([...kept.said]),
  dropSaid: (numbers: string[]) =>
    Promise.resolve(void (kept.said = kept.said.filter((one) => !numbers.includes(one.number)))),
  forgetOwn: () => Promise.resolve(void (kept.said = [])),
}))
const PAGE = { link: 1, entries: [], fresh_sent: false } as unknown as OwnPage
const HERE = { what: 'here', entry: 'a' } as const
/** All that can go on without a further answer has. */
const settled = (): Promise<void> => new Promise((done) => setTimeout(done))
let scope: EffectScope
let own: OwnLink
const opened = async (): Promise<void> => {
  scope = effectScope()
  scope.run(
    () =>
      (own = useOwn(
        () => '',
        () => undefined,
      )),
  )
  await settled()
}

describe('what is said by an own link', () => {
  beforeEach(() => {
    kept.said = []
    vi.spyOn(api, 'say').mockImplementation((said: readonly OwnSaid[]) =>
      Promise.resolve({ taken: said.map((one) => one.number), refused: [] }),
    )
  })
  afterEach(() => {
    scope.stop()
    vi.restoreAllMocks()
  })

  it('is sent at once, also while the page is being looked at', async () => {
    const shown = promised<OwnPage>()
    vi.spyOn(api, 'ownPage').mockResolvedValueOnce(PAGE)
    await opened()
    vi.mocked(api.ownPage).mockReturnValueOnce(shown.promise).mockResolvedValue(PAGE)
    void own.say(HERE)
    await settled()
    expect(api.say).toHaveBeenCalledTimes(1)
    void own.say({ ...HERE, what: 'away' })
    await settled()
    shown.answer(PAGE)
    await settled()
    expect(vi.mocked(api.say).mock.calls.map(([said]) => said.map((one) => one.what))).toEqual([['here'], ['away']])
    expect(own.waiting.value).toEqual([])
  })

  it('stays shown between the moment it is sent and the answer of the page', async () => {
    const entry = { id: 'a', said: null, steps: [], windows: [] }
    const page = { ...PAGE, entries: [entry] } as unknown as OwnPage
    const shown = promised<OwnPage>()
    vi.spyOn(api, 'ownPage').mockResolvedValueOnce(page).mockReturnValueOnce(shown.promise)
    await opened()
    void own.say(HERE)
    await settled()
    expect([own.waiting.value, own.page.value?.entries[0]?.said]).toEqual([[], 'here'])
    shown.answer(page)
    await settled()
    expect(own.page.value?.entries[0]?.said, 'what the server says comes last').toBeNull()
  })

  it('waits where there is no network, and is said to', async () => {
    vi.spyOn(api, 'ownPage').mockResolvedValue(PAGE)
    await opened()
    vi.mocked(api.say).mockRejectedValue(new Refusal(UNREACHABLE, 'about:unreachable'))
    await own.say(HERE)
    expect([own.lost.value, own.waiting.value.map((one) => one.what), own.state.value]).toEqual([
      true,
      ['here'],
      'open',
    ])
  })
})
