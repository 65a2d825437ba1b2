// The one door of all texts: each room tells its English here, and gets it back in the language that is spoken.
import { ENGLISH, i18n, type Catalogue, type Filled, type Messages } from '../language'
import type { Said } from './said'

type Sentence = (...filled: never[]) => string
type Text = string | Sentence | Texts | readonly Text[]
export interface Texts {
  readonly [key: string]: Text
}

/** The same keys: words as words, sentences as what is filled in makes them. */
export type Spoken<T> = {
  readonly [K in keyof T]: T[K] extends string ? string : T[K] extends Sentence ? T[K] : Spoken<T[K]>
}

const nested = <Made>(texts: Texts | readonly Text[], leaf: (text: string | Sentence) => Made): Record<string, Made> =>
  Object.fromEntries(
    Object.entries(texts).map(([key, text]) => [
      key,
      typeof text === 'object' ? (nested(text, leaf) as Made) : leaf(text as string | Sentence),
    ]),
  )

/** English as vue-i18n takes it: a sentence is its own message. */
const messagesOf = (english: Texts | readonly Text[]): Messages =>
  nested(english, (text) =>
    typeof text === 'string'
      ? () => text
      : ({ list }: Filled) => text(...(Array.from({ length: text.length }, (_, place) => list(place)) as never[])),
  )

/** English for whoever translates: `{0}`, `{1}` … where something is filled in. */
export const catalogueOf = (english: Texts | readonly Text[]): Catalogue =>
  nested(english, (text) =>
    typeof text === 'string'
      ? text
      : text(...(Array.from({ length: text.length }, (_, place) => `{${place}}`) as never[])),
  )

/** What each room told, by its name. */
export const ROOMS = new Map<string, Texts | readonly Text[]>()

function spoken(path: string, english: Texts | readonly Text[]): object {
  const made = Array.isArray(english) ? [] : {}
  for (const [key, text] of Object.entries(english)) {
    const at = `${path}.${key}`
    if (typeof text === 'object') Object.defineProperty(made, key, { value: spoken(at, text), enumerable: true })
    else if (typeof text === 'string') Object.defineProperty(made, key, { get: () => i18n.t(at), enumerable: true })
    else {
      const value = (...filled: Said[]): string =>
        i18n.t(
          at,
          filled.map((one) => one ?? ''),
        )
      Object.defineProperty(made, key, { value, enumerable: true })
    }
  }
  return made
}

/** Tell the texts of a room, by a name that no other has; what comes back speaks the language that is spoken. */
export function texts<const T extends Texts | readonly Text[]>(room: string, english: T): Spoken<T> {
  ROOMS.set(room, english)
  i18n.mergeLocaleMessage(ENGLISH, { [room]: messagesOf(english) })
  return spoken(room, english) as Spoken<T>
}
