import { isHalfDegrees } from '../body/facing'
import { Direction, Primitive } from '../body/feet'
import { Via } from '../body/places'
import type { Side } from '../body/side'
import type { Move } from '../moves/move'
import { MOST_PHRASE_COUNTS, TICKS_PER_COUNT, type Tick, tick } from '../time/time'
import { dictionaryOf, nearest, squashed } from './names'
import { type EntryPlace, EntryProblem, hint, type Reader, sideIn } from './reader'
import type { Token } from './tokens'

/** A finding that stays as it is, and why. */
interface Left {
  readonly code: string
  readonly because: string
}

/** A form for another level, as it is said. */
export type FormSaid =
  | { readonly move: string }
  | { readonly none: true }
  /** An entry's words. */
  | { readonly tokens: readonly Token[] }

/** What options an entry has; each is kept only if it was written. */
export interface Options {
  side?: Side
  way?: 'cw' | 'ccw'
  /** What a ring goes through first. */
  by?: 'front' | 'back' | 'side'
  /** Danced on whichever side. */
  either?: true
  supported?: true
  every?: Tick
  alt?: true
  /** Only the arm that is named. */
  alone?: true
  on?: true
  turn?: number
  /** The count it is held to. */
  until?: Token
  /** Degrees that the steps of its range share. */
  share?: number
  via?: Via
  size?: number
  word?: 'small' | 'large'
  contact?: 'ball' | 'heel' | 'flat'
  /** The weight is on both feet after it. */
  shared?: true
  rate?: number
  as?: string
  easier?: readonly FormSaid[]
  harder?: readonly FormSaid[]
  cue?: string
  note?: string
  words?: string
  leave?: Left[]
  kept?: true
}

/** The words an entry may go on with. */
export const OPTION_WORDS = [
  'every',
  'alt',
  'alone',
  'on',
  'until',
  'turn',
  'share',
  'via',
  'size',
  'rate',
  'cw',
  'ccw',
  'by',
  'either',
  'supported',
  'small',
  'large',
  'ball',
  'heel',
  'flat',
  'both',
  'as',
  'easier',
  'harder',
  'cue',
  'note',
  'words',
  'leave',
  '!keep',
]

/**
 * Reads all that follows what is danced, in any order.
 * @param begins words another entry would begin with
 */
export function readOptions(
  reader: Reader,
  place: EntryPlace,
  move: Move | undefined,
  begins: readonly string[],
): Options {
  const options: Options = {}
  for (let token = reader.take(); token; token = reader.take()) {
    const side = sideIn(token)
    if (side) {
      options.side = side
      continue
    }
    switch (token.quoted ? '' : token.text.toLowerCase()) {
      case ',':
        break
      case 'every':
        options.every = everyIn(reader.need('how often: every 1, every 0.5 or every &'))
        break
      case 'alt':
        options.alt = true
        break
      case 'alone':
        options.alone = true
        break
      case 'on':
        options.on = true
        break
      case 'until':
        options.until = reader.need('the count it is held to: until 3')
        break
      case 'turn':
        options.turn = degreesIn(reader.need('how many degrees: turn 90'))
        break
      case 'share': {
        if (place.layer !== 'feet')
          throw new EntryProblem('Only the feet turn: write the share on their line.', token)
        options.share = sharedDegrees(reader)
        break
      }
      case 'via': {
        const way = reader.need(`a way: ${Via.options.join(', ')}`)
        const via = Via.safeParse(way.text.toLowerCase())
        if (!via.success)
          throw new EntryProblem(
            `“${way.text}” is no way for the arms. Write via ${Via.options.join(', ')}.`,
            way,
          )
        options.via = via.data
        break
      }
      case 'size': {
        const size = reader.need('how large: size 60%')
        options.size = numberIn({ ...size, text: size.text.replace(/%$/, '') }, 10, 300, 'per cent')
        break
      }
      case 'rate': {
        const rate = reader.need('how many a count: rate 2')
        const value = Number(rate.text)
        if (!(value > 0 && value <= 12))
          throw new EntryProblem('A rate is a number above 0, 12 a count at the most.', rate)
        options.rate = value
        break
      }
      case 'cw':
      case 'ccw':
        options.way = token.text.toLowerCase() as 'cw' | 'ccw'
        break
      case 'by':
        options.by = firstWayIn(reader.need('what it goes through first: front, back or side'))
        break
      case 'supported':
        options.supported = true
        break
      case 'either':
        options.either = true
        break
      case 'small':
      case 'large':
        options.word = token.text.toLowerCase() as 'small' | 'large'
        break
      case 'ball':
      case 'heel':
      case 'flat':
        options.contact = token.text.toLowerCase() as 'ball' | 'heel' | 'flat'
        break
      case 'both':
        if (place.layer !== 'feet')
          throw new EntryProblem('Write “both” before what the arms do.', token)
        options.shared = true
        break
      case 'as':
      case 'cue':
      case 'note':
      case 'words':
        options[token.text.toLowerCase() as 'as'] = textIn(reader, token)
        break
      case 'easier':
      case 'harder':
        {
          const which = token.text.toLowerCase() as 'easier'
          options[which] = [...(options[which] ?? []), formSaid(reader, token, place)]
        }
        break
      case 'leave':
        options.leave = [...(options.leave ?? []), leaveIn(reader)]
        break
      case '!keep':
        options.kept = true
        break
      default:
        if ((!token.quoted && begins.includes(token.text)) || startsAnew(token, place))
          throw new EntryProblem(
            `“${token.text}” begins something new: write “;” and its count before it.`,
            token,
          )
        throw new EntryProblem(
          `“${token.text}” is not known after ${move ? `“${move.name}”` : 'this'}.${hint(
            nearest(token.text, [
              ...OPTION_WORDS,
              ...(place.layer === 'feet' ? Direction.options : []),
            ]),
            `Write “;” before something new, or one of: ${OPTION_WORDS.slice(0, 8).join(', ')}…`,
          )}`,
          token,
        )
    }
  }
  return options
}

/** The words between brackets, without them. */
function inBrackets(reader: Reader, first: Token): readonly Token[] {
  const tokens: Token[] = [{ ...first, text: first.text.slice(1), at: first.at + 1 }]
  for (;;) {
    const last = tokens.at(-1) as Token
    if (!last.quoted && last.text.endsWith(')')) {
      const inner = { ...last, text: last.text.slice(0, -1), end: last.end - 1 }
      return [...tokens.slice(0, -1), inner].filter(({ text, quoted }) => quoted || text !== '')
    }
    tokens.push(reader.need('“)” behind the form'))
  }
}

/** Whether a word is right, but only as the next entry of its line. */
const startsAnew = ({ text, quoted }: Token, { layer, vocabulary }: EntryPlace): boolean =>
  !quoted &&
  (/^~?<?\d/.test(text) ||
    (layer === 'feet' && Primitive.safeParse(text.toLowerCase()).success) ||
    dictionaryOf(vocabulary, layer).ids.has(squashed(text)))

/** `leave move.needs "we hold the barre"`: a finding that stays as it is, and why. */
export function leaveIn(reader: Pick<Reader, 'need'>): Left {
  const code = reader.need('the finding: leave move.needs "why"')
  const because = reader.need('why it stays: leave move.needs "why"')
  if (!/^[a-z]+[.][a-z-]+$/.test(code.text))
    throw new EntryProblem(
      `“${code.text}” is no finding. Write its code: leave move.needs "why".`,
      code,
    )
  if (because.text.trim() === '')
    throw new EntryProblem('Write why it stays: leave move.needs "why".', because)
  return { code: code.text, because: because.text }
}

function textIn(reader: Reader, word: Token): string {
  const token = reader.need(`a text in quotes: ${word.text} "…"`)
  if (token.text.trim() === '') throw new EntryProblem(`Write what it is: ${word.text} "…".`, token)
  return token.text
}

/** `step-touch`, `none`, or an entry's words in brackets: `(step R side)`. */
function formSaid(reader: Reader, word: Token, { layer, vocabulary }: EntryPlace): FormSaid {
  const token = reader.need(
    `the id of a move, (what is danced) in brackets, or none: ${word.text} step-touch`,
  )
  if (token.text.startsWith('(') && !token.quoted) return { tokens: inBrackets(reader, token) }
  if (token.text === 'none') return { none: true }
  const id = dictionaryOf(vocabulary, layer).ids.get(squashed(token.text))
  if (id) return { move: id }
  if (token.text.startsWith('?')) return { move: token.text.slice(1) }
  throw new EntryProblem(
    `“${token.text}” is no move of the ${layer}.${hint(nearest(token.text, dictionaryOf(vocabulary, layer).known), 'Write the id of a move.')}`,
    token,
  )
}

function everyIn(token: Token): Tick {
  const counts = token.text === '&' ? 0.5 : Number(token.text)
  const ticks = Math.round(counts * TICKS_PER_COUNT)
  if (
    !(ticks > 0 && ticks <= MOST_PHRASE_COUNTS * TICKS_PER_COUNT) ||
    Math.abs(ticks - counts * TICKS_PER_COUNT) > 0.01
  )
    throw new EntryProblem(
      `“${token.text}” is no spacing. Write every 1, every 2, every 0.5 or every &.`,
      token,
    )
  return tick(ticks)
}

/** The degrees that steps share. */
export function sharedDegrees(reader: Reader): number {
  const said = reader.need('how many degrees: share 270')
  const degrees = degreesIn(said)
  if (degrees === 0) throw new EntryProblem('A turn of 0° is none: write share 270.', said)
  return degrees
}

function firstWayIn(token: Token): 'front' | 'back' | 'side' {
  const word = token.text.toLowerCase()
  if (word === 'front' || word === 'back' || word === 'side') return word
  throw new EntryProblem('Write by front, by back or by side.', token)
}

/** Three turns either way at the most, in half degrees. */
export function degreesIn(token: Token): number {
  const value = Number(token.text)
  if (!isHalfDegrees(value) || Math.abs(value) > 1080)
    throw new EntryProblem(
      `“${token.text}” does not work here: write degrees, whole or half, -1080 to 1080.`,
      token,
    )
  return value
}

function numberIn(token: Token, low: number, high: number, unit: string): number {
  const value = Number(token.text)
  if (!Number.isInteger(value) || value < low || value > high)
    throw new EntryProblem(
      `“${token.text}” does not work here: write a whole number of ${unit}, ${low} to ${high}.`,
      token,
    )
  return value
}
