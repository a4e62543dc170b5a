import type { FloorPoint } from '../body/places'
import { Side } from '../body/side'
import { type Part, Part as PartSchema } from '../combination/part'
import { defaultStart } from '../combination/start'
import { PartId } from '../combination/whose'
import { EntryProblem } from '../entry/reader'
import { quoted, type Token, tokensIn } from '../entry/tokens'
import { laterIn, laterText } from './voiceLine'

/** A part as its line says it; what its start means hangs on its lead. */
export interface TypedPart {
  readonly part: Omit<Part, 'at'> & { readonly at?: Part['at'] }
  /** The words behind `start`, and where they begin in the line. */
  readonly start?: { readonly text: string; readonly at: number }
}

const EXAMPLE = 'part @1 "Amber" at L 0.5'

/** Reads `@1 "Amber" at L 0.5 F 0.3 and R 1.5 lead L mirrored height 1.72 start weight R`. @throws EntryProblem */
export function readPartLine(text: string): TypedPart {
  const tokens = tokensIn(text)
  const whole = { at: 0, end: Math.max(1, text.length) }
  const [mark, name] = tokens
  const id = PartId.safeParse(mark?.text.replace(/^@/, '')).data
  if (!mark?.text.startsWith('@') || id === undefined)
    throw new EntryProblem(`Write a part as ${EXAMPLE}.`, mark ?? whole)
  const isNamed = name?.quoted === true && name.text.trim() !== ''
  const part: { -readonly [K in keyof TypedPart['part']]: TypedPart['part'][K] } = {
    id,
    name: isNamed ? name.text : id,
  }
  let start: TypedPart['start']
  for (let i = isNamed ? 2 : 1; i < tokens.length; ) {
    const word = tokens[i] as Token
    const value = tokens[i + 1]
    switch (word.text) {
      case 'at': {
        const { places, words } = placesIn(tokens.slice(i + 1), word)
        part.at = places
        i += 1 + words
        break
      }
      case 'lead': {
        const side = Side.safeParse(value?.text).data
        if (!side) throw new EntryProblem('Write the foot she leads with: lead L.', value ?? word)
        part.lead = side
        i += 2
        break
      }
      case 'mirrored':
        part.mirrored = true
        i++
        break
      case 'height': {
        const height = PartSchema.unwrap().shape.height.safeParse(Number(value?.text)).data
        if (height === undefined)
          throw new EntryProblem('Write how tall she is, in metres: height 1.72.', value ?? word)
        part.height = height
        i += 2
        break
      }
      case 'delay':
        if (!value) throw new EntryProblem('Write how many counts later: delay 4.', word)
        part.delay = laterIn(value)
        if (part.delay === 0) delete part.delay
        i += 2
        break
      case 'start':
        start = { text: text.slice(word.end).trimStart(), at: value?.at ?? word.end }
        i = tokens.length
        break
      default:
        throw new EntryProblem(
          `“${word.text}” is not known here. Behind the name of a part stand at, lead, mirrored, delay, height and start: ${EXAMPLE}.`,
          word,
        )
    }
  }
  return { part, ...(start && { start }) }
}

const WAYS: ReadonlyMap<string, readonly [keyof FloorPoint, 1 | -1]> = new Map([
  ['R', ['right', 1]],
  ['L', ['right', -1]],
  ['F', ['forward', 1]],
  ['B', ['forward', -1]],
])

/** `L 0.5 F 0.3 and R 1.5`: where the dancers of a part stand. */
function placesIn(
  tokens: readonly Token[],
  word: Token,
): { readonly places: readonly FloorPoint[]; readonly words: number } {
  const places: { right: number; forward: number }[] = []
  let isNew = true
  let i = 0
  for (; i < tokens.length; ) {
    const token = tokens[i] as Token
    if (token.text === 'and' && !isNew) {
      isNew = true
      i++
      continue
    }
    const way = WAYS.get(token.text)
    if (!way) break
    const metres = Number(tokens[i + 1]?.text)
    if (!tokens[i + 1] || !Number.isFinite(metres) || metres < 0 || metres > 30)
      throw new EntryProblem(
        'Write metres from the middle: at L 0.5 F 0.3.',
        tokens[i + 1] ?? token,
      )
    if (isNew) places.push({ right: 0, forward: 0 })
    isNew = false
    const [axis, sign] = way
    const last = places.at(-1)
    if (last) last[axis] = sign * metres + 0
    i += 2
  }
  const { data } = PartSchema.unwrap().shape.at.safeParse(places)
  if (isNew || !data)
    throw new EntryProblem(
      'Write where she stands: at L 0.5 F 0.3, R for right and B for back.',
      word,
    )
  return { places: data, words: i }
}

/** Where parts stand of whom nobody said it: beside each other, a metre apart. */
export const standingApart = (index: number, of: number): readonly FloorPoint[] => [
  { right: index - (of - 1) / 2, forward: 0 },
]

const metres = (value: number): string => String(Math.round(Math.abs(value) * 1000) / 1000)

function placeText({ right, forward }: FloorPoint): string {
  const across = right !== 0 || forward === 0 ? `${right < 0 ? 'L' : 'R'} ${metres(right)}` : ''
  const deep = forward !== 0 ? `${forward < 0 ? 'B' : 'F'} ${metres(forward)}` : ''
  return [across, deep].filter(Boolean).join(' ')
}

/**
 * A part as its line says it.
 * @param startText the words of a start, against the usual one
 */
export const partText = (
  part: Part,
  lead: Side,
  startText: (start: NonNullable<Part['start']>, usual: NonNullable<Part['start']>) => string,
): string =>
  [
    `@${part.id}`,
    quoted(part.name),
    `at ${part.at.map(placeText).join(' and ')}`,
    part.lead && `lead ${part.lead}`,
    part.mirrored && 'mirrored',
    part.delay && `delay ${laterText(part.delay)}`,
    part.height !== undefined && `height ${part.height}`,
    part.start && `start ${startText(part.start, defaultStart(leadOfTyped(part, lead)))}`,
  ]
    .filter(Boolean)
    .join(' ')

/** The foot a part leads with: her own, or the others' as her image. */
export const leadOfTyped = (
  { lead, mirrored }: Pick<Part, 'lead' | 'mirrored'>,
  others: Side,
): Side => lead ?? (mirrored ? (others === 'R' ? 'L' : 'R') : others)
