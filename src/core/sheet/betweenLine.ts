import { Side } from '../body/side'
import {
  type Between,
  Grip,
  type Hand,
  HoldHeight,
  isHand,
  type Meeting,
  type MeetingOf,
  type Met,
  Relation,
  SpotName,
  Through,
  TouchAs,
} from '../combination/between'
import type { Prop } from '../combination/carried'
import type { Part } from '../combination/part'
import { CENTRE } from '../combination/whose'
import { nearest } from '../entry/names'
import { EntryProblem, hint, Reader } from '../entry/reader'
import { type Token, tokensIn } from '../entry/tokens'
import { fullLabelOfSpan, labelIn, type Numbering, tick } from '../time/time'
import { readSaid, saidTexts } from './said'
import { readWhen } from './when'
import { noPart } from './whose'

const KINDS: readonly Meeting['kind'][] = [
  'hold',
  'touch',
  'place',
  'orbit',
  'support',
  'led',
  'look',
  'pass',
  'wait',
]

const EXAMPLE: Readonly<Record<Meeting['kind'], string>> = {
  hold: 'hold @1.R @2.L palm waist',
  touch: 'touch @1.R @2.R palm',
  place: 'place @1 right @2 0.9',
  orbit: 'orbit @1 round @2 cw 360 0.7 face in',
  support: 'support @2 of @1 25%',
  led: 'led @1 by @2.R',
  look: 'look @1 @2',
  pass: 'pass veil @1.R @2.L',
  wait: 'wait @2',
}

interface BetweenPlace extends Numbering {
  readonly parts: readonly Part[]
  readonly carried: readonly Prop[]
}

/** Reads `1-4 hold @1.R @2.L fingers low cue "hands"`: one meeting for each of its times. @throws EntryProblem */
export function readBetween(text: string, place: BetweenPlace): readonly Omit<Between, 'id'>[] {
  const tokens = tokensIn(text)
  const unclosed = tokens.find(({ open }) => open)
  if (unclosed) throw new EntryProblem('This quote is never closed: write " at its end.', unclosed)
  const reader = new Reader(tokens)
  const times = readWhen(reader.need('a count'), place)
  if (reader.peek()?.text === 'chain') {
    const links = readChain(reader, place.parts)
    const said = readSaid(reader, waysOf('hold'))
    return times.flatMap(({ at, length }) =>
      links.map((what) => ({ at: tick(at), length: tick(length), what, ...said })),
    )
  }
  const word = reader.need(`what they do: ${Object.values(EXAMPLE).join('; ')}`)
  const kind = KINDS.find((one) => one === word.text)
  if (!kind)
    throw new EntryProblem(
      `“${word.text}” is nothing two dancers do here.${hint(nearest(word.text, KINDS), `Write ${KINDS.join(', ')} or chain.`)}`,
      word,
    )
  const what = readMeeting(kind, reader, place, word)
  const said = readSaid(reader, waysOf(kind))
  return times.map(({ at, length }) => ({ at: tick(at), length: tick(length), what, ...said }))
}

const waysOf = (kind: Meeting['kind']) =>
  `Write it as ${EXAMPLE[kind]}, with cue, note, leave or !keep behind it.`

const CHAIN = 'chain @1 @2 @3 palm low'

/** `chain @1 @2 @3 palm low`: each holds the next one, by the hands that are next to each other at the start. */
function readChain(reader: Reader, parts: readonly Part[]): readonly MeetingOf<'hold'>[] {
  const word = reader.need(CHAIN)
  const ids: string[] = []
  while (reader.peek()?.text.startsWith('@')) {
    const token = reader.need(CHAIN)
    const id = partIn(token, parts)
    if (ids.includes(id)) throw new EntryProblem(`@${id} is in it already.`, token)
    ids.push(id)
  }
  if (ids.length < 2)
    throw new EntryProblem(`Write who holds whom, one after another: ${CHAIN}.`, word)
  const read = <T extends string>(all: readonly T[]): T | undefined => {
    const found = all.find((one) => one === reader.peek()?.text)
    if (found) reader.take()
    return found
  }
  const grip = read(Grip.options) ?? 'palm'
  const height = read(HoldHeight.options)
  const right = (id: string) => parts.find((part) => part.id === id)?.at[0]?.right ?? 0
  return ids.slice(1).flatMap((next, i): readonly MeetingOf<'hold'>[] => {
    const one = ids[i]
    if (one === undefined) return []
    const isLeft = right(one) <= right(next)
    return [
      {
        kind: 'hold',
        from: { part: one, side: isLeft ? 'R' : 'L' },
        to: { part: next, side: isLeft ? 'L' : 'R' },
        grip,
        ...(height && { height }),
      },
    ]
  })
}

function readMeeting(
  kind: Meeting['kind'],
  reader: Reader,
  { parts, carried }: BetweenPlace,
  word: Token,
): Meeting {
  const missing = `write it as ${EXAMPLE[kind]}`
  const part = (): string => partIn(reader.need(missing), parts)
  const option = <T extends string>(all: readonly T[]): T | undefined => {
    const found = all.find((one) => one === reader.peek()?.text)
    if (found) reader.take()
    return found
  }
  const needed = <T extends string>(found: T | undefined, all: readonly T[]): T => {
    if (found) return found
    const next = reader.peek()
    throw new EntryProblem(`Write one of ${all.join(', ')}: ${EXAMPLE[kind]}.`, next ?? word)
  }
  const two = <T>(one: T, other: T, ids: readonly [string, string]): readonly [T, T] => {
    if (ids[0] === ids[1]) throw new EntryProblem('Nobody meets herself: name two parts.', word)
    return [one, other]
  }
  switch (kind) {
    case 'hold':
    case 'touch': {
      const from = handIn(reader.need(missing), parts)
      const to = metIn(reader.need(missing), parts)
      two(from, to, [from.part, to.part])
      if (kind === 'touch') return { kind, from, to, as: option(TouchAs.options) ?? 'palm' }
      const grip = isHand(to)
        ? needed(option(Grip.options), Grip.options)
        : (option(Grip.options) ?? 'flat')
      const height = option(HoldHeight.options)
      const through = option(Through.options)
      return { kind, from, to, grip, ...(height && { height }), ...(through && { through }) }
    }
    case 'place': {
      const of = part()
      const rel = needed(option(Relation.options), Relation.options)
      const next = reader.need(missing)
      const to = next.text === CENTRE ? CENTRE : partIn(next, parts)
      two(of, to, [of, to])
      const apart = metresIn(reader)
      return { kind, of, rel, to, ...(apart !== undefined && { apart }) }
    }
    case 'orbit': {
      const of = part()
      sign(reader, 'round', EXAMPLE.orbit)
      const round = part()
      two(of, round, [of, round])
      const way = needed(option(['cw', 'ccw'] as const), ['cw', 'ccw'])
      const degrees = numberIn(reader, 1, 1080, 'degrees: cw 360', word)
      const apart = metresIn(reader)
      let face: (typeof FACES)[number] | undefined
      if (reader.peek()?.text === 'face') {
        reader.take()
        face = needed(option(FACES), FACES)
      }
      return {
        kind,
        of,
        round,
        degrees: way === 'cw' ? degrees : -degrees,
        ...(apart !== undefined && { apart }),
        ...(face && { face }),
      }
    }
    case 'support': {
      const by = part()
      sign(reader, 'of', EXAMPLE.support)
      const of = part()
      two(by, of, [by, of])
      const share = numberIn(reader, 5, 60, 'per cent of her weight: 25%', word)
      return { kind, by, of, share }
    }
    case 'led': {
      const of = part()
      sign(reader, 'by', EXAMPLE.led)
      const by = handIn(reader.need(missing), parts)
      two(of, by.part, [of, by.part])
      return { kind, of, by }
    }
    case 'look': {
      const a = part()
      const oneWay = reader.peek()?.text === 'to'
      if (oneWay) reader.take()
      const b = part()
      two(a, b, [a, b])
      return { kind, a, b, ...(oneWay && { oneWay }) }
    }
    case 'pass': {
      const token = reader.need(missing)
      const prop = carried.find(({ id }) => id === token.text)
      if (!prop)
        throw new EntryProblem(
          carried.length === 0
            ? 'Nothing is carried that could be passed. Write it above: carry stick "Reed".'
            : `Write what is passed: ${carried.map(({ id }) => id).join(', ')}.`,
          token,
        )
      const from = handIn(reader.need(missing), parts)
      const to = handIn(reader.need(missing), parts)
      two(from, to, [from.part, to.part])
      return { kind, prop: prop.id, from, to }
    }
    case 'wait': {
      const of = [part()]
      while (reader.peek()?.text.startsWith('@')) of.push(part())
      return { kind, of: [...new Set(of)] }
    }
  }
}

const FACES = ['in', 'out', 'along'] as const

/** A word that belongs to what is written, and says nothing by itself. */
function sign(reader: Reader, text: string, example: string): void {
  const token = reader.need(`write it as ${example}`)
  if (token.text !== text || token.quoted)
    throw new EntryProblem(`Write “${text}” here: ${example}.`, token)
}

/** A whole number, also with a per cent sign. */
function numberIn(reader: Reader, low: number, high: number, what: string, word: Token): number {
  const token = reader.take()
  const value = Number(token?.text.replace(/%$/, ''))
  if (!token || token.quoted || !Number.isInteger(value) || value < low || value > high)
    throw new EntryProblem(`Write ${what}, from ${low} to ${high}.`, token ?? word)
  return value
}

function metresIn(reader: Reader): number | undefined {
  const token = reader.peek()
  if (!token || token.quoted || !/^\d/.test(token.text)) return undefined
  reader.take()
  const metres = Number(token.text)
  if (!Number.isFinite(metres) || metres < 0.2 || metres > 6)
    throw new EntryProblem('Two dancers are 0.2 to 6 metres apart.', token)
  return metres
}

function partIn({ text, at, end }: Token, parts: readonly Part[]): string {
  const id = text.replace(/^@/, '')
  if (!text.startsWith('@') || !parts.some((part) => part.id === id))
    throw new EntryProblem(noPart(id, parts), { at, end })
  return id
}

/** `@1.R` */
function handIn(token: Token, parts: readonly Part[]): Hand {
  const met = metIn(token, parts)
  if (!isHand(met)) throw new EntryProblem('It begins with a hand: @1.R or @1.L.', token)
  return met
}

/** `@1.R`, `@1.waist`, `@1.L-shoulder` */
function metIn(token: Token, parts: readonly Part[]): Met {
  const [mark = '', rest = ''] = token.text.split('.')
  const part = partIn({ ...token, text: mark }, parts)
  const hand = Side.safeParse(rest).data
  if (hand) return { part, side: hand }
  const [, side, on] = /^(?:([RL])-)?(.*)$/.exec(rest) ?? []
  const spot = SpotName.safeParse(on).data
  if (!spot)
    throw new EntryProblem(
      `Write a hand or a place of the body: @${part}.R, ${SpotName.options.map((one) => `@${part}.${one}`).join(', ')}.`,
      token,
    )
  const known = Side.safeParse(side).data
  return { part, on: spot, ...(known && { side: known }) }
}

const handText = ({ part, side }: Hand): string => `@${part}.${side}`
const metText = (met: Met): string =>
  isHand(met) ? handText(met) : `@${met.part}.${met.side ? `${met.side}-` : ''}${met.on}`

function meetingText(what: Meeting): string {
  switch (what.kind) {
    case 'touch':
      return ['touch', handText(what.from), metText(what.to), what.as].join(' ')
    case 'hold':
      return ['hold', handText(what.from), metText(what.to), what.grip, what.height, what.through]
        .filter(Boolean)
        .join(' ')
    case 'place':
      return [
        'place',
        `@${what.of}`,
        what.rel,
        what.to === CENTRE ? CENTRE : `@${what.to}`,
        what.apart,
      ]
        .filter((one) => one !== undefined)
        .join(' ')
    case 'orbit':
      return [
        `orbit @${what.of} round @${what.round} ${what.degrees > 0 ? 'cw' : 'ccw'} ${Math.abs(what.degrees)}`,
        what.apart,
        what.face && `face ${what.face}`,
      ]
        .filter((one) => one !== undefined)
        .join(' ')
    case 'support':
      return `support @${what.by} of @${what.of} ${what.share}%`
    case 'led':
      return `led @${what.of} by ${handText(what.by)}`
    case 'look':
      return `look @${what.a} ${what.oneWay ? 'to ' : ''}@${what.b}`
    case 'pass':
      return `pass ${what.prop} ${handText(what.from)} ${handText(what.to)}`
    case 'wait':
      return `wait ${what.of.map((id) => `@${id}`).join(' ')}`
  }
}

/** `1-4 hold @1.R @2.L fingers low` */
export const betweenText = ({ at, length, what, ...said }: Between, phrase: Numbering): string =>
  [fullLabelOfSpan({ at, length }, labelIn(phrase)), meetingText(what), ...saidTexts(said)]
    .filter(Boolean)
    .join(' ')
