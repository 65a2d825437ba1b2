import { ElMessageBox } from 'element-plus'

import { SIGN_OUT as say } from '@/words/texts/floor'

import { forgetAccount, unsentRuns } from './kept'

/** Before signing out: whether to go on, where runs of this account wait to be sent. Nothing else of it stays here. */
export async function leavesFloor(account: string): Promise<boolean> {
  const waiting = await unsentRuns(account)
  if (waiting.length > 0 && !(await sure())) return false
  await forgetAccount(account)
  return true
}

const sure = (): Promise<boolean> =>
  ElMessageBox.confirm(say.unsent, say.heading, { confirmButtonText: say.out, cancelButtonText: say.stay }).then(
    () => true,
    () => false,
  )
