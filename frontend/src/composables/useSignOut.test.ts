// Signing out asks first where a run waits: also on a page that has just come.
import { describe, expect, it, vi } from 'vitest'

const leaving = vi.hoisted(() => ({ leavesFloor: vi.fn(() => Promise.resolve(false)) }))
vi.mock('@/floor/leaving', () => leaving)
vi.mock('vue-router', () => ({ useRouter: () => ({ push: vi.fn() }) }))
const mine = vi.hoisted(() => {
  const account = { value: null as { name: string } | null }
  return { account, signingOut: { value: false }, signOut: vi.fn(), whoAmI: vi.fn() }
})
vi.mock('./useAccount', () => mine)

import { useSignOut } from './useSignOut'

describe('signing out', () => {
  it('asks about the runs of whoever this is, once that is known', async () => {
    mine.whoAmI.mockImplementation(() => {
      mine.account.value = { name: 'marit' }
      return Promise.resolve()
    })
    await useSignOut()()
    expect(leaving.leavesFloor).toHaveBeenCalledWith('marit')
    expect(mine.signOut).not.toHaveBeenCalled()
  })
})
