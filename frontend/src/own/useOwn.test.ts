import { effectScope, type EffectScope } from 'vue'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'

import { api, Refusal, UNREACHABLE } from '@/api/client'
import type { OwnPage, OwnSaid } from '@/api/types'
import { promised } from '@/testing/promised'

import { useOwn, type OwnLink } from './useOwn'

/** What the phone keeps, without its database. */
const kept = vi.hoisted(() => ({
  page: undefined as { page: { link: number }; mark: string } | undefined,
  said: [] as { link: number; name: string; said: { number: string } }[],
}))
vi.mock('./kept', () => ({
  markOf: (token: string) => token,
  pageKept: () => Promise.resolve(kept.page),
  keepPage: (page: { link: number }, mark: string) => Promise.resolve(void (kept.page = { page, mark })),
  dropPage: () => Promise.resolve(void (kept.page = undefined)),
  keepSaid: (link: number, said: { number: string }, name: string) =>
    Promise.resolve(void kept.said.push({ link, name, said })),
  saidKept: (link: number) => Promise.resolve(kept.said.filter((one) => one.link === link).map((one) => one.said)),
  othersKept: (link: number) =>
    Promise.resolve(kept.said.filter((one) => one.link !== link).map((one) => ({ name: one.name, count: 1 }))),
  dropSaid: (numbers: string[]) =>
    Promise.resolve(void (kept.said = kept.said.filter((one) => !numbers.includes(one.said.number)))),
  forgetOwn: (link: number) => Promise.resolve(void (kept.said = kept.said.filter((one) => one.link !== link))),
}))
const PAGE = { link: 1, entries: [], fresh_sent: false } as unknown as OwnPage
const HERE = { what: 'here', entry: 'a' } as const
/** All that can go on without a further answer has. */
const settled = (): Promise<void> => new Promise((done) => setTimeout(done))
let scope: EffectScope
let own: OwnLink
const opened = async (token = ''): Promise<void> => {
  let brought = token
  scope = effectScope()
  scope.run(
    () =>
      (own = useOwn(
        () => brought,
        () => (brought = ''),
      )),
  )
  await settled()
}

describe('what is said by an own link', () => {
  beforeEach(() => {
    kept.said = []
    kept.page = undefined
    vi.spyOn(api, 'say').mockImplementation((_link: number, said: readonly OwnSaid[]) =>
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
    expect(vi.mocked(api.say).mock.calls.map(([, said]) => said.map((one) => one.what))).toEqual([['here'], ['away']])
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

  it('waits for its own link where another one is opened on the phone, and is told as theirs', async () => {
    const lost = new Refusal(UNREACHABLE, 'about:unreachable')
    vi.spyOn(api, 'ownPage').mockResolvedValue({ ...PAGE, name: 'Ben' } as unknown as OwnPage)
    await opened()
    vi.mocked(api.say).mockRejectedValue(lost)
    await own.say(HERE)
    scope.stop()
    vi.mocked(api.say).mockResolvedValue({ taken: [], refused: [] })
    vi.mocked(api.say).mockClear()
    vi.spyOn(api, 'openOwnLink').mockResolvedValue(undefined)
    vi.mocked(api.ownPage).mockResolvedValue({ ...PAGE, link: 2, name: 'Cato' } as unknown as OwnPage)
    await opened('of cato')
    expect([own.page.value?.name, own.waiting.value, own.others.value]).toEqual([
      'Cato',
      [],
      [{ name: 'Ben', count: 1 }],
    ])
    expect(api.say).not.toHaveBeenCalled()
    scope.stop()
    vi.mocked(api.ownPage).mockResolvedValue({ ...PAGE, name: 'Ben' } as unknown as OwnPage)
    vi.mocked(api.say).mockImplementation((_link: number, said: readonly OwnSaid[]) =>
      Promise.resolve({ taken: said.map((one) => one.number), refused: [] }),
    )
    await opened('of ben')
    await settled()
    expect(vi.mocked(api.say).mock.calls.map(([link]) => link)).toEqual([1])
    expect(own.others.value).toEqual([])
  })

  it("shows nobody another one's page where a link is opened without a network", async () => {
    kept.page = { page: { ...PAGE, name: 'Ben' } as unknown as { link: number }, mark: 'of ben' }
    vi.spyOn(api, 'openOwnLink').mockRejectedValue(new Refusal(UNREACHABLE, 'about:unreachable'))
    vi.spyOn(api, 'ownPage').mockRejectedValue(new Refusal(UNREACHABLE, 'about:unreachable'))
    await opened('of cato')
    expect([own.page.value, own.state.value]).toEqual([null, 'alone'])
    scope.stop()
    await opened('of ben')
    expect([own.page.value?.name, own.state.value]).toEqual(['Ben', 'open'])
  })
})
