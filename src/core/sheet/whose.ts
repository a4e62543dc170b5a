import type { Part } from '../combination/part'
import { SOLO, type Who } from '../combination/whose'
import { EntryProblem } from '../entry/reader'

/** `@1`, `@2`, `@solo`: who it is for. */
const MARK = /@([\p{L}\p{N}-]+)/gu
const AT_FRONT = /^(?:@[\p{L}\p{N}-]+(?=\s|$)\s*)+/u
const AT_END = /(?:\s+@[\p{L}\p{N}-]+)+$/u

/** A text without its marks of who it is for, and whom they name. */
interface Marked {
  readonly who: Who | undefined
  /** The rest, as long as the whole: a place in it is the same place. */
  readonly text: string
}

/** What a line is for, said behind its word: `feet @1 5 step R side`. @throws EntryProblem */
export const whoOfLine = (text: string, parts: readonly Part[]): Marked =>
  marked(text, AT_FRONT.exec(text), parts)

/** What an entry is for, said at its end: `3 R crown @2`. @throws EntryProblem */
export const whoOfEntry = (text: string, parts: readonly Part[]): Marked =>
  marked(text, AT_END.exec(text), parts)

/** The marks a line begins with, as they are typed. */
export const marksOf = (text: string): string => AT_FRONT.exec(text)?.[0].trim() ?? ''

function marked(text: string, found: RegExpExecArray | null, parts: readonly Part[]): Marked {
  if (!found) return { who: undefined, text }
  const [marks] = found
  const named = [...marks.matchAll(MARK)].map(([whole, id = ''], i, all) => {
    const at = found.index + (all[i]?.index ?? 0)
    if (id === SOLO ? parts.length === 0 : !parts.some((part) => part.id === id))
      throw new EntryProblem(noPart(id, parts), { at, end: at + whole.length })
    return id
  })
  return {
    who: inPartOrder([...new Set(named)], parts),
    text: `${text.slice(0, found.index)}${' '.repeat(marks.length)}${text.slice(found.index + marks.length)}`,
  }
}

/** What to write where a part is named that there is not. */
export const noPart = (id: string, parts: readonly Part[]): string =>
  parts.length === 0
    ? `There are no parts. Write them above: part @${id === SOLO ? '1' : id} "Name" at L 0.5, and a second one.`
    : `There is no part @${id}. There is ${parts.map((part) => `@${part.id}`).join(', ')}.`

/** Named in the order of the parts, and alone last. */
export const inPartOrder = (who: readonly string[], parts: readonly Part[]): Who => {
  const place = (id: string) =>
    id === SOLO ? parts.length : parts.findIndex((one) => one.id === id)
  return [...who].sort((a, b) => place(a) - place(b))
}

/** `@1 @2` */
export const whoText = (who: Who): string => who.map((id) => `@${id}`).join(' ')
