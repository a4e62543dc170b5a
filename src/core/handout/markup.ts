import { escaped } from '../record/escaped'

/** Markup that is whole: what was written by somebody is in it as text only. */
export interface Markup {
  readonly html: string
}

type Part = Markup | string | number | undefined | false | readonly Part[]

const textOf = (part: Part): string => {
  if (part === undefined || part === false) return ''
  if (typeof part === 'string' || typeof part === 'number') return escaped(String(part))
  return 'html' in part ? part.html : part.map(textOf).join('')
}

/** Markup with parts put in; text among them is escaped. */
export const markup = (strings: TemplateStringsArray, ...parts: readonly Part[]): Markup => ({
  html: strings.reduce((all, own, i) => `${all}${textOf(parts[i - 1])}${own}`),
})

/** Markup that was made elsewhere and has nobody's text in it. */
export const made = (html: string): Markup => ({ html })
