// Texts about restrictions of people, wherever they are asked for.
import { said, type Said } from './said'
import { texts } from './texts'

export const RESTRICTIONS = texts('restrictions', {
  unknown: (reason: Said) => said`Restrictions could not be checked: nobody is shown as restricted. ${reason}`,
})
