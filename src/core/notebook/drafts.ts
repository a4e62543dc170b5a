import type { Layer } from '../body/layers'
import { quoted } from '../entry/tokens'
import { fullLabelOfSpan, labelIn, labelOfTick, slotAt, TICKS_PER_COUNT, tick } from '../time/time'
import type { Again } from './lines'

/** Something of a page that has its place: what is danced on a layer, said, or noted. */
export interface Placed {
  readonly line: Layer | 'note' | 'say'
  /** Ticks from count 1 of its phrase as the page counts, which may go on over several eights. */
  readonly at: number
  /** Where a range was written, or follows from what is danced. */
  readonly length: number | undefined
  readonly text: string
  /** It leads into count 1. */
  readonly isEarly: boolean
  readonly optional: boolean
}

/** A phrase of a page while it is read. */
export interface PhraseDraft {
  readonly name: string
  title: string
  counts: number | undefined
  readonly placed: Placed[]
  /** Lines that are written as the sheet has them, and the tick the last of them is over. */
  readonly verbatim: string[]
  reach: number
  /** The tick at which what has no counts goes on. */
  next: number
  /** Counts it was last written for. */
  last: { readonly at: readonly number[]; readonly end: number | undefined }
}

export const newPhrase = (name: string, title = '', counts?: number): PhraseDraft => ({
  name,
  title,
  counts,
  placed: [],
  verbatim: [],
  reach: 0,
  next: 0,
  last: { at: [0], end: undefined },
})

const LINES = ['feet', 'legs', 'hips', 'torso', 'arms', 'head', 'say', 'note'] as const
const EIGHT = 8
const MOST_COUNTS = 16

const endOf = ({ at, length }: Placed): number => at + (length ?? slotAt(tick(at)))

/** How many counts a phrase has: as the page says, else as many as are danced, in fours and eights. */
function countsOf({ counts, placed, reach }: PhraseDraft): number {
  const used = Math.ceil(
    Math.max(1, reach, ...placed.filter(({ isEarly }) => !isEarly).map(endOf)) / TICKS_PER_COUNT,
  )
  if (counts !== undefined && counts >= used) return counts
  if (used <= 4 && (placed.some(({ line }) => line !== 'note') || reach > 0)) return 4
  return Math.ceil(used / EIGHT) * EIGHT
}

/** A phrase as the lines of a sheet; one that goes on over more than sixteen counts is several. */
function sheetLines(
  phrase: PhraseDraft,
  nameOf: (part: number) => string,
): {
  readonly names: readonly string[]
  readonly lines: readonly string[]
} {
  const counts = countsOf(phrase)
  const each = counts <= MOST_COUNTS ? counts : EIGHT
  const names: string[] = []
  const lines: string[] = []
  for (let from = 0; from < counts; from += each) {
    const name = nameOf(names.length)
    const own = Math.min(each, counts - from)
    names.push(name)
    const title = names.length === 1 && phrase.title ? ` ${quoted(phrase.title)}` : ''
    lines.push(`phrase ${name}${title} ${own}`)
    for (const line of LINES) {
      const entries = phrase.placed
        .filter((one) => one.line === line)
        .flatMap((one) => entryIn(one, from * TICKS_PER_COUNT, own))
        .sort((a, b) => a.at - b.at)
        .map(({ text }) => text)
      if (entries.length > 0) lines.push(`  ${line} ${entries.join('; ')}`)
    }
    if (names.length === 1) lines.push(...phrase.verbatim.map((line) => `  ${line}`))
  }
  return { names, lines }
}

/** An entry with its counts, where it begins within some counts of the page. */
function entryIn({ at, length, text, isEarly, optional }: Placed, from: number, counts: number) {
  const mark = optional ? '~' : ''
  if (isEarly) {
    if (from > 0) return []
    const early = tick(at - counts * TICKS_PER_COUNT)
    return [{ at: early, text: `${mark}${labelIn({ counts })(early)} ${text}` }]
  }
  const own = at - from
  if (own < 0 || own >= counts * TICKS_PER_COUNT) return []
  const span = length === undefined ? undefined : Math.min(length, counts * TICKS_PER_COUNT - own)
  const when =
    span === undefined
      ? labelOfTick(tick(own))
      : fullLabelOfSpan({ at: tick(own), length: tick(span) })
  return [{ at: own, text: `${mark}${when} ${text}` }]
}

/** All of a page while it is read. */
export interface PageDraft {
  readonly title: string | undefined
  readonly header: readonly string[]
  /** Notes before anything is danced. */
  readonly early: readonly string[]
  readonly phrases: readonly PhraseDraft[]
  readonly order: readonly Again[]
}

/** A page as a sheet. */
export function pageSheet({ title, header, early, phrases, order }: PageDraft): string {
  const names = new Map<string, readonly string[]>()
  const taken = new Set(phrases.map(({ name }) => name))
  const blocks = phrases.map((phrase) => {
    const { names: own, lines } = sheetLines(phrase, (part) => {
      if (part === 0) return phrase.name
      let name = `${phrase.name}${part + 1}`
      while (taken.has(name)) name += 'b'
      taken.add(name)
      return name
    })
    names.set(phrase.name, own)
    return lines.join('\n')
  })
  const notes = early.map((text) => `# ${text}`)
  const passes = order.flatMap(({ name, mirrored }) =>
    (names.get(name ?? '') ?? []).map((own) => `${own}${mirrored ? '~' : ''}`),
  )
  return [
    'sway 2',
    ...notes,
    `title ${quoted(title ?? '')}`,
    ...header,
    ...blocks,
    ...(passes.length > 0 ? [`order ${passes.join(' ')}`] : []),
    '',
  ].join('\n')
}
