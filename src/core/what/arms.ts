import { z } from 'zod'
import { Hand, HandShape, type HandState, handSaid, handWords } from '../body/hands'
import { ArmPlace, Via } from '../body/places'
import { otherSide, SIDES, Side, sideWord } from '../body/side'
import { armPartIn } from '../entry/armPartIn'
import { nearest } from '../entry/names'
import { type Read, refuseStepWords, sizeIn } from '../entry/read'
import { EntryProblem, hint, type Reader, sideIn } from '../entry/reader'
import type { Motion } from '../moves/motion'
import type { BodyPart } from '../moves/move'
import { type EntryKind, type Kind, ONCE } from './kind'

/** Each arm that is named goes to its place and stays, each hand that is named is held so. */
export const ArmsWhat = z
  .object({
    kind: z.literal('arms'),
    R: ArmPlace.optional(),
    L: ArmPlace.optional(),
    /** What is said of the hands. */
    hands: z.object({ R: Hand.optional(), L: Hand.optional() }).readonly().optional(),
    via: Via.optional(),
    /** Of two arms that cross this one is in front; the lead arm where it is not said. */
    over: Side.optional(),
  })
  .refine(
    ({ R, L, hands }) => R !== undefined || L !== undefined || hands?.R || hands?.L,
    'say where at least one arm goes',
  )
  .refine((what) => what.over === undefined || what[what.over] !== undefined, {
    message: 'only an arm that goes somewhere can cross over',
    path: ['over'],
  })
  .readonly()
export type ArmsWhat = z.infer<typeof ArmsWhat>

/** The sides on which an arm goes somewhere, or a hand is held otherwise. */
const sidesNamed = (what: Omit<ArmsWhat, 'kind'>): readonly Side[] =>
  SIDES.filter((side) => what[side] !== undefined || what.hands?.[side] !== undefined)

/** Whether anything is said of an arm or a hand. */
export const isAnything = (what: Omit<ArmsWhat, 'kind'>): boolean => sidesNamed(what).length > 0

/** Hands with another shape, or whose palms look another way; one that is left out is as it was. */
export function handsWith<K extends 'shape' | 'palm'>(
  { hands: before, ...what }: ArmsWhat,
  key: K,
  pair: { readonly R?: Hand[K]; readonly L?: Hand[K] },
): ArmsWhat {
  const hands: Partial<Record<Side, Hand>> = {}
  for (const side of SIDES) {
    const { [key]: _, ...rest } = before?.[side] ?? {}
    const hand: Hand = { ...rest, ...(pair[side] && { [key]: pair[side] }) }
    if (hand.shape || hand.palm) hands[side] = hand
  }
  return { ...what, ...((hands.R || hands.L) && { hands }) }
}

const PARTS: Readonly<Record<Side, { readonly arm: BodyPart; readonly hand: BodyPart }>> = {
  R: { arm: 'armR', hand: 'fingersR' },
  L: { arm: 'armL', hand: 'fingersL' },
}

export const arms: Kind<ArmsWhat> = {
  layers: ['arms'],
  ...ONCE,
  side(what) {
    const [one, other] = sidesNamed(what)
    return other ? undefined : one
  },
  mirror({ R, L, hands, over, ...rest }) {
    return {
      ...rest,
      ...(L && { R: L }),
      ...(R && { L: R }),
      ...(hands && {
        hands: { ...(hands.L && { R: hands.L }), ...(hands.R && { L: hands.R }) },
      }),
      ...(over && { over: otherSide[over] }),
    }
  },
  name: (what) => armWords(what),
  claim: (what) => ({
    kind: 'place',
    parts: SIDES.flatMap((side) => [
      ...(what[side] ? [PARTS[side].arm] : []),
      ...(what.hands?.[side] ? [PARTS[side].hand] : []),
    ]),
    wave: false,
  }),
  leaves: ({ R, L, hands }, before) => ({
    ...before,
    arms: { R: R ?? before.arms.R, L: L ?? before.arms.L },
    ...(hands && {
      hands: { R: heldAs(before.hands.R, hands.R), L: heldAs(before.hands.L, hands.L) },
    }),
  }),
  motion({ R, L, via }) {
    const ways: Motion[] = via && (R || L) ? [{ verb: 'via', arm: 'both', way: via }] : []
    if (R && R === L) return [...ways, { verb: 'to', arm: 'both', place: R }]
    return [
      ...ways,
      ...(R ? [{ verb: 'to', arm: 'R', place: R } as const] : []),
      ...(L ? [{ verb: 'to', arm: 'L', place: L } as const] : []),
    ]
  },
  write: (what) => armWords(what),
  say(what) {
    const via = what.via ? `, by the ${what.via}` : ''
    const both = sidesAlike(what)
    if (both && what.R)
      return `both arms to ${[what.R, saidOf(what, 'R')].filter(Boolean).join(', ')}${via}`
    if (both) return `both hands: ${saidOf(what, 'R')}`
    const each = sidesNamed(what).map((side) => {
      const place = what[side]
      const said = saidOf(what, side)
      if (!place) return `${sideWord[side]} hand: ${said}`
      const front = what.over === side ? 'in front' : ''
      return [`${sideWord[side]} arm to ${place}`, front, said].filter(Boolean).join(', ')
    })
    // What is said of one arm has its own commas.
    return `${each.join(what.hands || what.over ? '; ' : ', ')}${via}`
  },
}

export const armsEntry: EntryKind<ArmsWhat> = {
  words: ['both'],
  read: readArms,
  finish({ what }, options) {
    refuseStepWords(options)
    const { via } = options
    return { what: { ...what, ...(via && { via }) }, open: false, size: sizeIn(options) }
  },
}

const heldAs = (before: HandState, { shape, palm }: Hand = {}): HandState => ({
  shape: shape ?? before.shape,
  palm: palm ?? before.palm,
})

const saidOf = ({ hands }: Omit<ArmsWhat, 'kind'>, side: Side): string => {
  const hand = hands?.[side]
  return hand ? handSaid(hand) : ''
}

/** An arm as the sheet has it, without its side: `front fist palm in over`. */
const sideWords = ({ hands, over, ...places }: Omit<ArmsWhat, 'kind'>, side: Side): string =>
  [places[side], hands?.[side] && handWords(hands[side]), over === side && 'over']
    .filter(Boolean)
    .join(' ')

const sidesAlike = (what: Omit<ArmsWhat, 'kind'>): boolean =>
  sideWords(what, 'R') === sideWords(what, 'L')

/** Both arms where they agree, else each: `both low`, `R crown, L hips`, `R front fist palm in`. */
export const armWords = (what: Omit<ArmsWhat, 'kind'>): string =>
  sidesAlike(what)
    ? `both ${sideWords(what, 'R')}`
    : sidesNamed(what)
        .map((side) => `${side} ${sideWords(what, side)}`)
        .join(', ')

/** `both low`, `R high-v, L hips`, `R front fist palm in`, `both soft`; the same word twice means both. */
function readArms(reader: Reader): Read<ArmsWhat> | undefined {
  const arms: Partial<Record<Side, ArmPlace>> = {}
  const hands: Partial<Record<Side, Hand>> = {}
  let over: Side | undefined
  for (;;) {
    const first = reader.peek()
    const side = sideIn(first)
    if (!first || (first.text !== 'both' && !side)) break
    const found = armPartIn((word) => reader.peek(1 + word))
    if (!found) {
      const next = reader.peek(1)
      // It may be a move of one arm; what it is not is said there.
      if (Object.keys({ ...arms, ...hands }).length === 0) return undefined
      throw new EntryProblem(
        `“${next?.text ?? first.text}” is no place for an arm.${hint(nearest(next?.text ?? '', [...ArmPlace.options, ...HandShape.options]), 'Write low, second, high-v, crown, hips or another one.')}`,
        next ?? first,
      )
    }
    reader.skip(1 + found.words)
    for (const one of side ? [side] : SIDES) {
      if (found.place) arms[one] = found.place
      if (found.hand) hands[one] = found.hand
    }
    if (found.over && side) over = side
    if (reader.peek()?.text === ',' && (sideIn(reader.peek(1)) || reader.peek(1)?.text === 'both'))
      reader.take()
    else if (!sideIn(reader.peek())) break
  }
  if (!arms.R && !arms.L && !hands.R && !hands.L) return undefined
  const isHeld = hands.R !== undefined || hands.L !== undefined
  return { what: { kind: 'arms', ...arms, ...(isHeld && { hands }), ...(over && { over }) } }
}
