import type { Layer } from '../body/layers'
import { folded } from '../record/folded'

/** What a line of a page is. */
export const LINE_KINDS = ['title', 'header', 'phrase', 'danced', 'order', 'note'] as const
export type LineKind = (typeof LINE_KINDS)[number]

const LAYER_NAMES: ReadonlyMap<string, Layer> = new Map(
  Object.entries({
    feet: 'feet',
    foot: 'feet',
    steps: 'feet',
    step: 'feet',
    footwork: 'feet',
    base: 'feet',
    legs: 'legs',
    leg: 'legs',
    knees: 'legs',
    hips: 'hips',
    hip: 'hips',
    pelvis: 'hips',
    torso: 'torso',
    chest: 'torso',
    ribs: 'torso',
    body: 'torso',
    'upper body': 'torso',
    ribcage: 'torso',
    shoulders: 'torso',
    arms: 'arms',
    arm: 'arms',
    hands: 'arms',
    hand: 'arms',
    head: 'head',
    eyes: 'head',
    gaze: 'head',
    look: 'head',
  } satisfies Record<string, Layer>),
)

/** The layer a word names: `hips`, `footwork`, `upper body`. */
export const layerNamed = (word: string): Layer | undefined => LAYER_NAMES.get(folded(word))

/** A layer in front of a line or a piece, `hips: …` or `Arms 1-4 …`, and what is behind it. */
export function layerBefore(text: string): {
  readonly layer: Layer | undefined
  readonly rest: string
} {
  const [whole = '', word = ''] =
    /^(upper body|[a-z]+)\s*(?::|=|[-–—](?=\s)|(?=\s+[<\d]))\s*/i.exec(text) ?? []
  const layer = word ? layerNamed(word) : undefined
  return layer ? { layer, rest: text.slice(whole.length) } : { layer: undefined, rest: text }
}

/** A line without its bullet. */
export const withoutBullet = (line: string): string =>
  line.replace(/^\s*(?:[-*•·▪◦‣>–—]+|\[\s?\])\s+/, '').trim()

const PARTS = 'intro|verse|chorus|bridge|outro|interlude|refrain|break|tag|ending|hook|pre-?chorus'

/** The line that begins a phrase: its name where it has one, its title, its counts. */
export interface Heading {
  readonly name: string | undefined
  readonly title: string
  readonly counts: number | undefined
  /** How often it is danced. */
  readonly times: number
}

/** Reads a heading: `A: Lantern walk (8)`, `Phrase B`, `2nd eight`, `Chorus – 16 counts x2`; undefined where it is none. */
export function headingIn(line: string): Heading | undefined {
  const [, timesSaid] = /(?:\bx|×|\*)\s*(\d{1,2})\b\s*\)?\s*$/i.exec(line) ?? []
  const twice = /\btwice\b\s*\)?\s*$/i.test(line)
  const bare = line.replace(/\(?\s*(?:(?:\bx|×|\*)\s*\d{1,2}|\btwice)\s*\)?\s*$/i, '').trim()
  const [countsWord, inBrackets, behind] =
    /\(\s*(\d{1,2})(?:\s*(?:counts?|cts?))?\s*\)|[-–—:,]?\s*\b(\d{1,2})\s*(?:counts?|cts?)\b/i.exec(
      bare,
    ) ?? []
  const text = (countsWord ? bare.replace(countsWord, ' ') : bare).replace(/\s+/g, ' ').trim()
  const counts = Number(inBrackets ?? behind) || undefined
  const times = timesSaid ? Number(timesSaid) : twice ? 2 : 1
  const clean = (title: string) => title.replace(/^["“”'\s:.\-–—]+|["“”'\s:.\-–—]+$/g, '')
  const made = (name: string | undefined, title = ''): Heading => ({
    name: name?.toUpperCase(),
    title: clean(title),
    counts,
    times,
  })
  const [, lettered, rest] =
    /^(?:phrase|part|section|set|combo|combination|block)\s+([a-z]|\d{1,2})\b\s*(.*)$/i.exec(
      text,
    ) ?? []
  if (lettered !== undefined) return made(lettered, rest)
  const [, letter, title] = /^([A-Z])\s*(?:[:.)\-–—]\s*(.*))?$/.exec(text) ?? []
  if (letter !== undefined && (title === undefined || !/^\d/.test(title)))
    return made(letter, title)
  if (
    /^(?:(?:first|second|third|fourth|\d(?:st|nd|rd|th))\s+(?:eight|8|set|phrase)|eight\s+\d|8\s*#\s*\d)\b\s*:?$/i.test(
      text,
    )
  )
    return made(undefined, text)
  if (new RegExp(`^(?:${PARTS})(?:\\s+\\d)?\\s*(?:[:.\\-–—].*)?$`, 'i').test(text))
    return made(undefined, text)
  // A short line that ends with a colon, or that has its counts behind it.
  if (/:$/.test(text) && !/\d/.test(text) && text.split(' ').length <= 5)
    return made(undefined, text)
  if (counts !== undefined && text !== '' && !/\d/.test(text) && text.split(' ').length <= 5)
    return made(undefined, text)
  return undefined
}

/** Whether a line is no more than a part of a song: `Intro`, `Verse 2:`. */
export const isSongPart = (line: string): boolean =>
  new RegExp(`^(?:${PARTS})(?:\\s+\\d)?\\s*[:.]?$`, 'i').test(line.trim())

/** A heading with what is danced behind it on its line: `[A] 1-4 …`, `8 count 2: …`, `V1: …`. */
export function openedIn(
  line: string,
): { readonly heading: Heading; readonly rest: string } | undefined {
  const [, bracket, behind = ''] = /^\[([^\]\d][^\]]*)\]\s*(.*)$/.exec(line) ?? []
  if (bracket !== undefined) {
    const [counts = '', number] = /^(\d{1,2})\s*(?:counts?|cts?)\b[\s:–-]*/i.exec(behind) ?? []
    const isLetter = /^[A-Za-z]$/.test(bracket)
    return {
      heading: {
        name: isLetter ? bracket.toUpperCase() : undefined,
        title: isLetter ? '' : bracket,
        counts: Number(number) || undefined,
        times: 1,
      },
      rest: behind.slice(counts.length),
    }
  }
  const [, eight, rest = ''] =
    /^((?:8|eight)[- ]?counts?\s*#?\s*\d{1,2})\s*:\s*(.*)$/i.exec(line) ?? []
  const [, short] = /^([A-Za-z]{1,3}\s?\d{1,2})\s*:\s*$/.exec(line) ?? []
  const title = eight ?? short
  return title === undefined
    ? undefined
    : { heading: { name: undefined, title, counts: undefined, times: 1 }, rest }
}

/** A phrase danced again, `repeat on the left`, `A again`, `other side`: which, and whether from the other side. */
export interface Again {
  readonly name: string | undefined
  readonly mirrored: boolean
  /** How often more. */
  readonly times?: number
}

export function againIn(line: string): Again | undefined {
  const text = line.replace(/[.!]+$/, '').trim()
  const isOther =
    /\b(?:other|opposite|left|second) side\b|\bon the left\b|\bleft\b|\bmirror(?:ed)?\b|\bL$/i.test(
      text,
    )
  const [, named] =
    /^(?:[Rr]epeat|[Aa]gain|[Rr]pt|[Tt]hen)\s+([A-Z])\b/.exec(text) ??
    /^([A-Z])\s+again\b/i.exec(text) ??
    []
  if (
    /^(?:repeat|rpt\.?|again|same again|do it again|all again|and again|[A-Z] again)\b/i.test(
      text,
    ) &&
    text.length < 48
  )
    return {
      name: named?.toUpperCase(),
      mirrored: isOther,
      // “Repeat 4 times” is four in all.
      times: Math.max(1, Number(/\b(\d)\s*(?:times|x)\b/i.exec(text)?.[1] ?? 2) - 1),
    }
  if (
    /^(?:same\s+)?(?:on\s+(?:the\s+)?)?(?:other|opposite|left)\s+side\b/i.test(text) &&
    text.length < 40
  )
    return { name: undefined, mirrored: true }
  return undefined
}

/** An order of phrases: `Order: A B A left`, `A A B A~`. */
export function orderIn(line: string): readonly Again[] | undefined {
  const [, said] = /^(?:order|form|structure)\s*[:=-]?\s*(.+)$/i.exec(line) ?? []
  if (said === undefined) return undefined
  const passes = [
    ...said.matchAll(
      /\b([A-Z])\b(~|\s*\(?\s*(?:left|other side|mirrored)\s*\)?)?(?:\s*[x×*]\s*(\d))?/g,
    ),
  ]
  if (passes.length === 0) return undefined
  return passes.flatMap(([, name, turned, times]) =>
    Array.from({ length: Number(times ?? 1) }, () => ({ name, mirrored: turned !== undefined })),
  )
}

const LEVELS: ReadonlyMap<string, string> = new Map(
  Object.entries({
    beginner: 'new',
    beginners: 'new',
    new: 'new',
    improver: 'improver',
    improvers: 'improver',
    intermediate: 'intermediate',
    advanced: 'advanced',
  }),
)

/** What a line says of all of it, as a line of the sheet: tempo, lead, level, families, song. */
export function headerIn(line: string, families: readonly string[]): readonly string[] | undefined {
  const text = line.replace(/[.]+$/, '').trim()
  const found: string[] = []
  const [, before, behind] =
    /(?:\b(\d{2,3})\s*(?:bpm|counts a minute|counts\/min))|(?:\b(?:tempo|bpm|speed)\s*[:=]?\s*(\d{2,3})\b)/i.exec(
      text,
    ) ?? []
  const tempo = Number(before ?? behind)
  if (tempo >= 40 && tempo <= 220) found.push(`tempo ${tempo}`)
  const [, foot] =
    /\b(?:starts?|starting|begins?|beginning|leads?|leading)\b(?:\s*(?:foot|side|on|with|the|is))*\s*[:=]?\s*(?:the\s+)?(right|left|R|L)\b/i.exec(
      text,
    ) ??
    /\b(right|left)\s+foot\s+(?:first|starts|leads|free)\b/i.exec(text) ??
    /^on\s+(?:the\s+)?(right|left)\s+foot$/i.exec(text) ??
    []
  if (foot) found.push(`lead ${foot[0]?.toUpperCase()}`)
  const [, level] = /\b(?:level|for)\s*[:=]?\s*([a-z]+)/i.exec(text) ?? []
  const known =
    LEVELS.get((level ?? text).toLowerCase()) ??
    text
      .split(/[\s,/]+/)
      .map((word) => (word.length > 3 ? LEVELS.get(word.toLowerCase()) : undefined))
      .find((one) => one !== undefined && text.split(/\s+/).length < 7)
  if (known) found.push(`level ${known}`)
  const [, song] = /^(?:song|music|track)\s*[:=-]\s*(.+)$/i.exec(text) ?? []
  if (song) found.push(`song ${song}`)
  const [, by] = /^(?:by|choreo(?:graphy|grapher)?)\s*[:=-]\s*(.+)$/i.exec(text) ?? []
  if (by) found.push(`by ${by}`)
  const [, style] = /^(?:style|family|dance)\s*[:=-]\s*(.+)$/i.exec(text) ?? []
  const words = (style ?? text)
    .toLowerCase()
    .split(/[\s,/]+/)
    .map((word) => word.replace(/^bellydance$/, 'belly'))
  const named = words.filter((word) => families.includes(word))
  if (named.length > 0 && (style !== undefined || words.length <= 3 || found.length > 0))
    found.push(`family ${named.join(', ')}`)
  return found.length > 0 ? found : undefined
}
