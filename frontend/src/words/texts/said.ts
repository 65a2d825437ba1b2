/** What stands in a sentence: nothing is no word. */
export type Said = string | number | null | undefined

/** A sentence with what is filled in, as it is shown: what is not there leaves no trace. */
export function said(parts: TemplateStringsArray, ...filled: Said[]): string {
  return parts.reduce((text, part, index) => `${text}${filled[index - 1] ?? ''}${part}`)
}
