// The language that the front end speaks. English ships; another one is a file of the same keys in languages/.
import { createI18n } from 'vue-i18n'

/** The language that ships, and that stands in for what another one lacks. */
export const ENGLISH = 'en'

/** What a message is handed: what is filled in, by its place. */
export interface Filled {
  list: (place: number) => unknown
}
/** A function, also where nothing is filled in: so no sign in words means anything to vue-i18n. */
export type Message = (filled: Filled) => string
/** Messages by room and key, as vue-i18n takes them. */
export interface Messages {
  [key: string]: Message | Messages
}
/** A language's file: texts with `{0}`, `{1}` … where something is filled in, in any order. */
export interface Catalogue {
  [key: string]: string | Catalogue
}

const made = createI18n({
  legacy: false,
  locale: ENGLISH,
  fallbackLocale: ENGLISH,
  messages: { [ENGLISH]: {} },
  missingWarn: false,
  fallbackWarn: false,
})

/** vue-i18n, by what is used of it: languages are known by their names, which come with their files. */
export const i18n = made.global as unknown as {
  t: (key: string, filled?: unknown[]) => string
  locale: { value: string }
  mergeLocaleMessage: (language: string, more: Messages) => void
}

const PLACE = /\{(\d+)\}/

/** A language's file as messages. */
export function messagesFrom(file: Catalogue): Messages {
  return Object.fromEntries(
    Object.entries(file).map(([key, text]) => {
      if (typeof text === 'object') return [key, messagesFrom(text)]
      const parts = text.split(PLACE)
      // Every second part is the number of a place.
      return [
        key,
        ({ list }: Filled) => parts.map((part, index) => (index % 2 ? String(list(Number(part))) : part)).join(''),
      ]
    }),
  ) as Messages
}

const files = import.meta.glob<Catalogue>(['../../languages/*.json', '!../../languages/en.json'], { import: 'default' })

/** The languages there are beside English, by the names of their files. */
export const LANGUAGES = Object.keys(files).map((path) => path.replace(/^.*\/|\.json$/g, ''))

/** Of the languages that somebody reads, the first that is spoken here. */
export const spokenOf = (read: readonly string[]): string =>
  read.map((one) => one.slice(0, 2).toLowerCase()).find((one) => one === ENGLISH || LANGUAGES.includes(one)) ?? ENGLISH

/** Speak a language from now on; one that there is no file of changes nothing. Before anything is drawn. */
export async function speak(language: string): Promise<void> {
  const read = files[`../../languages/${language}.json`]
  if (!read) return
  i18n.mergeLocaleMessage(language, messagesFrom(await read()))
  i18n.locale.value = language
  document.documentElement.lang = language
}
