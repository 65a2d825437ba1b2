// Short notices over the page: a fault, or that something was done and can be taken back.
import { ElMessage, ElNotification } from 'element-plus'

import { NOTICES as say } from '@/words/texts/parts'

/** A fault: stays until it is closed. */
export function tellFault(): void {
  ElNotification({
    title: say.aFault,
    message: say.somethingWentWrong,
    type: 'error',
    duration: 0,
    position: 'bottom-right',
  })
}

/** Something that was not kept: stays until it is closed. */
export function tellLeftOut(text: string): void {
  ElMessage({ message: text, type: 'warning', grouping: true, plain: true, duration: 0, showClose: true })
}

/** What was done, in passing. */
export function tellDone(text: string): void {
  ElMessage({ message: text, type: 'success', grouping: true, plain: true })
}
