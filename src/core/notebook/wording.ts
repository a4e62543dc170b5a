import { TICKS_PER_COUNT } from '../time/time'
import { type CountsRead, countsAt } from './counts'

/** Names that mean several things are not the sheet's to decide. */
export const SEVERAL_WORDS =
  /\b(?:hip circle|shimmy|figure[- ](?:8|eight)|body (?:wave|roll)|hip roll)\b(?!-)/i

/** What parts one thing that is danced from the next. */
export const SPLIT = /\s*(?:[,;/]|\s\+\s|\s&\s|\bthen\b|\bwith\b|\bw\/|\bwhile\b|\band\b|→|->)\s*/i

/** How long something is danced, and how often, as its words say; and the words without that. */
export function withoutLength(text: string): {
  readonly text: string
  readonly ticks: number | undefined
  readonly times: number | undefined
} {
  let ticks: number | undefined
  let times: number | undefined
  const bare = text
    .replace(
      /\b(?:for|over)\s+(\d{1,2}|four|eight|two|six)\b(?:\s*(?:counts?|cts?|beats?))?/i,
      (_, n: string) => {
        ticks = (NUMBERS[n.toLowerCase()] ?? Number(n)) * TICKS_PER_COUNT
        return ' '
      },
    )
    .replace(/\(?\b(\d{1,2})\s*(?:counts?|cts?)\b\)?/i, (_, n: string) => {
      ticks ??= Number(n) * TICKS_PER_COUNT
      return ' '
    })
    .replace(
      /\s*[x×]\s*(\d{1,2})\b|\b(\d{1,2})\s*(?:x|×|times)(?=\s|$)|\b(twice)\b/i,
      (_, a?: string, b?: string) => {
        times = Number(a ?? b ?? 2)
        return ' '
      },
    )
  return { text: bare.replace(/\s+/g, ' ').trim(), ticks, times }
}

const NUMBERS: Readonly<Record<string, number>> = { two: 2, four: 4, six: 6, eight: 8 }

export const SIDE = /^(?:r|l|right|left)$/i

/** `hip bump R L R` on three counts, and `walk R L R touch L`: each side and each step for itself. */
export function sidesApart(text: string, counts: CountsRead | undefined): readonly string[] {
  const steps = stepsApart(text).flatMap(runApart)
  const hasRoom =
    counts === undefined || counts.end !== undefined || counts.at.length === steps.length
  return hasRoom ? steps : [text]
}

const VERBS =
  /\b(?:step|walk|touch|tap|kick|close|hop|leap|stamp|brush|jump|hold|clap|hip|shimmy|turn)s?\b/gi

/** Parts of a text that each begin with a word of what is danced, where several of them say a side or are the same word. */
function stepsApart(text: string): readonly string[] {
  const at = [...text.matchAll(VERBS)].map(({ index }) => index)
  const parts = at.map((from, i) => text.slice(i === 0 ? 0 : from, at[i + 1]).trim())
  const isApart = parts.length > 1 && parts.every((part) => ONE_STEP.test(part))
  return isApart ? parts : [text]
}

/** A word of what is danced with a side or a way behind it: `touch L`, `walk fwd R L R`, `jump out`, `clap`. */
const ONE_STEP =
  /^(?:(?:step|walk|touch|tap|kick|close|hop|leap|stamp|brush)s?\b.*\b(?:R|L|right|left)\b|jump (?:out|in)|hold|clap)/i

/** `walk fwd R L R` as one for each side, where the sides stand one behind the other. */
function runApart(text: string): readonly string[] {
  const run = /\b(?:right|left|R|L)(?:[\s,]+(?:right|left|R|L)\b)+/.exec(text)
  const sides = run?.[0].match(/right|left|R|L/g) ?? []
  if (!run || sides.length < 2) return [text]
  const bare = `${text.slice(0, run.index)} ${text.slice(run.index + run[0].length)}`
    .replace(/\s+/g, ' ')
    .trim()
  return sides.map((side) => `${bare} ${side}`)
}

/** `grapevine w/ thumka on 4, shimmy (5-8)` with each count in front of what is danced on it. */
export function countsFirst(text: string): string {
  if (countsAt(text)) return text
  if (/\S\s*\(\d{1,2}(?:\s*[-–&,]\s*\d{1,2})*\)/.test(text)) return heldTogether(text)
  return text.replace(
    /(^|[,;]\s*|\b(?:with|w\/|and)\s+)([^,;]+?)\s+(?:on|at)\s+(?:counts?\s+)?(\d{1,2}(?:\s*(?:&|[-–]\s*\d{1,2}))?)(?=\s*(?:[,;]|$))/gi,
    (_, before: string, what: string, count: string) => {
      const [, first, last] = /^(.*)\b(?:with|w\/|and)\s+(.+)$/i.exec(what) ?? []
      const lead = /with|w\/|and/i.test(before) ? '; ' : before
      return last === undefined ? `${lead}${count} ${what}` : `${before}${first}; ${count} ${last}`
    },
  )
}

/** What stands before counts in brackets is danced on them, all of it back to the counts before. */
function heldTogether(text: string): string {
  let from = 0
  const parts: string[] = []
  for (const found of text.matchAll(/\((\d{1,2}(?:\s*[-–&,]\s*\d{1,2})*)\)/g)) {
    const what = text
      .slice(from, found.index)
      .replace(/^[\s,;]+/, '')
      .trim()
    if (what) parts.push(`${found[1]} ${what}`)
    from = found.index + found[0].length
  }
  const rest = text
    .slice(from)
    .replace(/^[\s,;]+/, '')
    .trim()
  return [...parts, rest].filter(Boolean).join('; ')
}

/** What a title line is called, without what stands behind it. */
export const titleOf = (line: string): string => line.split(/\s*[,;(–—]\s*|\s+-\s+|\.\s+/)[0] ?? ''

/** How often something is danced: `x2`, `twice`, `4 times`. */
export const timesIn = (line: string): number =>
  /\btwice\b/i.test(line)
    ? 2
    : Number(/[x×]\s*(\d)|\b(\d)\s*times\b/i.exec(line)?.slice(1).find(Boolean) ?? 1)

/** What stands aside of what is danced: notes in brackets, words to say in quotes, whether it may be left out. */
export function asidesIn(typed: string): {
  readonly bare: string
  readonly notes: readonly string[]
  readonly cues: readonly string[]
  readonly optional: boolean
} {
  const notes: string[] = []
  const cues: string[] = []
  let isOptional = false
  const bare = typed
    .replace(/\(([^)]*)\)/g, (_, inside: string) => {
      if (/^\s*(?:optional|opt\.?|if you like)\s*$/i.test(inside)) isOptional = true
      else if (
        /^\s*(?:big|large|wide|small|tiny|little|cw|ccw|clockwise|anticlockwise)\s*$/i.test(inside)
      )
        return ` ${inside} `
      else notes.push(inside.trim())
      return ' '
    })
    .replace(/["“”]([^"“”]+)["“”]/g, (_, inside: string) => {
      cues.push(inside.trim())
      return ' '
    })
    .replace(/^[\s,;]+/, '')
    .trim()
  return { bare, notes, cues, optional: isOptional }
}
