import { TICKS_PER_COUNT } from '../time/time'

/** Counts at the beginning of a text, in any common writing, and what stands behind them. */
export interface CountsRead {
  /** Ticks from count 1, in the order they are said; of a range its first one. */
  readonly at: readonly number[]
  /** The end of a range: the tick its last count is over. */
  readonly end: number | undefined
  /** A word before the number: `and 8`, which leads in where nothing was danced before. */
  readonly isLead: boolean
  readonly rest: string
}

const tickOf = (count: number, part = ''): number =>
  (count - 1) * TICKS_PER_COUNT + ({ e: 3, '&': 6, and: 6, '+': 6, a: 9 }[part] ?? 0)

/** The most counts a page goes on with before it is counted anew. */
const MOST = 64

const BEFORE = /^(?:(?:on\s+)?(?:counts?|cts?|beats?)\.?|on)\s*:?\s*(?=[\d&])/i
const RANGE =
  /^(\d{1,2})\s*(&|e(?![a-z])|a(?![a-z]))?\s*(?:-|–|—|‒|−|\.\.+|\bto\b|\bthru\b|\bthrough\b|\btill?\b|\buntil\b)\s*(\d{1,2})\s*(&|e(?![a-z])|a(?![a-z]))?(?!\d)/i
const LEAD = /^(?:and|&|\+)\s*(?:a\s*)?(\d{1,2})(?!\d)/i
const ONE = /^(\d{1,2})(?!\d)(?:\s*(&|\+|and\b|e(?![a-z])|a(?![a-z])))?/i
/** What ends the counts: `1:`, `1)`, `1.`, `1 -`, `1 =`. */
const END = /^\s*(?:[:).=]|[-–—](?=\s))\s*/

/** Reads the counts a text begins with; undefined where it begins with none. */
export function countsAt(text: string): CountsRead | undefined {
  const [word = ''] = BEFORE.exec(text) ?? []
  const body = text.slice(word.length)
  const range = RANGE.exec(body)
  if (range) {
    const [whole, from = '', fromPart, to = '', toPart] = range
    const at = tickOf(Number(from), fromPart)
    const part = toPart?.toLowerCase()
    const end = tickOf(Number(to), part) + (part ? ({ '&': 6, e: 3, a: 3 }[part] ?? 6) : 12)
    if (Number(from) < 1 || end <= at || Number(to) > MOST) return undefined
    return { at: [at], end, isLead: false, rest: rest(body, whole) }
  }
  const lead = LEAD.exec(body)
  if (lead) {
    const count = Number(lead[1])
    if (count < 1 || count > MOST) return undefined
    return { at: [tickOf(count)], end: undefined, isLead: true, rest: rest(body, lead[0]) }
  }
  return listAt(body)
}

const rest = (text: string, taken: string): string =>
  text.slice(taken.length).replace(END, ' ').trim()

/** `5 6`, `7, 8`, `1&2`, `3&`: counts one after the other. */
function listAt(body: string): CountsRead | undefined {
  const at: number[] = []
  let place = 0
  let last = 0
  for (;;) {
    const found = ONE.exec(body.slice(place))
    if (!found) break
    const [whole, digits = '', part] = found
    const count = Number(digits)
    if (count < 1 || count > MOST || count <= last) break
    const behind = body.slice(place + whole.length)
    const goesOn = /^\s*\d{1,2}(?!\d)/.test(behind)
    const named = part?.toLowerCase()
    // Between two numbers `&` is a moment of its own; behind the last one it is that moment alone.
    if (!named || goesOn) at.push(tickOf(count))
    if (named) at.push(tickOf(count, named))
    last = count
    place += whole.length
    const sign = /^\s*(?:,\s*|\s+|&\s*|\+\s*)(?=\d{1,2}(?!\d))|^(?=\d)/.exec(body.slice(place))
    if (!sign) break
    // Only what goes on counting belongs to it: 5 6, and not 4 90.
    const next = Number(/^\d{1,2}/.exec(body.slice(place + sign[0].length))?.[0])
    if (!(next > count) || next > count + 4) break
    place += sign[0].length
  }
  if (at.length === 0) return undefined
  return { at, end: undefined, isLead: false, rest: rest(body, body.slice(0, place)) }
}

/** Words a number behind which is no count. */
const NO_COUNT =
  /(?:\b(?:for|x|times|turn|pivot|figure|fig|every|of|by|facing|wall|share|size|rate|until|hold|last|next|bpm|tempo|to|about)|[/.°#(×x])\s*$/i

/**
 * Where a text goes on with other counts, which are later than those before: the places of its pieces.
 */
export function piecesOf(text: string, after = -1): readonly string[] {
  const pieces: string[] = []
  let begin = 0
  let last = after
  const first = countsAt(text)
  if (first) last = first.at.at(-1) ?? last
  const skip = first ? text.length - first.rest.length : 0
  for (const found of text.matchAll(/(?:^|[\s,.;]+)(?=(?:and\s+|&\s*)?\d{1,2}(?!\d))/g)) {
    const at = found.index + found[0].length
    if (at <= Math.max(begin, skip) || NO_COUNT.test(text.slice(0, at))) continue
    if (isInBrackets(text, at)) continue
    const counts = countsAt(text.slice(at))
    const [next] = counts?.at ?? []
    const isPlain = /^(?:x|×|times|counts?|bpm|%|°)/i.test(counts?.rest ?? '')
    if (!counts || next === undefined || next <= last || isPlain || counts.rest === '') continue
    pieces.push(text.slice(begin, found.index))
    begin = at
    last = Math.max(counts.at.at(-1) ?? next, (counts.end ?? 0) - TICKS_PER_COUNT)
  }
  return [...pieces, text.slice(begin)].map((piece) => piece.trim()).filter(Boolean)
}

/** Whether a place of a text is within brackets or quotes. */
function isInBrackets(text: string, at: number): boolean {
  const before = text.slice(0, at)
  const open = (before.match(/\(/g) ?? []).length - (before.match(/\)/g) ?? []).length
  return open > 0 || (before.match(/["“”]/g) ?? []).length % 2 === 1
}
