import { beforeEach, expect, test, vi } from 'vitest'
import { reactive } from 'vue'

import { useToken } from './useToken'

const route = reactive({ hash: '', path: '/join' })
const replace = vi.fn()
vi.mock('vue-router', () => ({ useRoute: () => route, useRouter: () => ({ replace }) }))

beforeEach(() => {
  replace.mockReset()
  route.hash = ''
})

test('a token is taken from behind the sign, and the address is cleared', () => {
  route.hash = '#abc-DEF_1'
  const { token } = useToken('join')
  expect(token.value).toBe('abc-DEF_1')
  expect(replace).toHaveBeenCalledWith(expect.objectContaining({ path: '/join', hash: '' }))
})

test('once used it is forgotten', () => {
  route.hash = '#abc'
  const { token, used } = useToken('join')
  used()
  expect(token.value).toBe('')
})

test('an address without one has none, and is left as it is', () => {
  expect(useToken('reset').token.value).toBe('')
  expect(replace).not.toHaveBeenCalled()
})
