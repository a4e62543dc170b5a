import { z } from 'zod'
import { Primitive } from '../body/feet'
import { LAYERS } from '../body/layers'
import { compassWord, isCompass, mirrorCompass, Via } from '../body/places'
import { otherSide, otherWay, Side, sideWord, Way } from '../body/side'
import { dictionaryOf, squashed } from '../entry/names'
import type { Options } from '../entry/options'
import { type Finished, type Read, refuse, refuseStepWords, sizeIn } from '../entry/read'
import { type EntryPlace, EntryProblem, type Reader, sideIn } from '../entry/reader'
import type { Token } from '../entry/tokens'
import { turningOf } from '../moves/motion'
import type { BodyPart, Move } from '../moves/move'
import type { Vocabulary } from '../moves/vocabulary'
import { mirrorMotion } from '../moves/writeMotion'
import { COUNT, TICKS_PER_COUNT, Tick, tick } from '../time/time'
import type { Around, EntryKind, Kind } from './kind'
import { endsOf, type Places } from './places'
import { repeatsOf } from './repeats'

/** What a ring goes through first. */
export const FirstWay = z.enum(['front', 'back', 'side'])
export type FirstWay = z.infer<typeof FirstWay>

/** A move of the vocabulary. `every` is the spacing and length of each repeat. */
export const MoveWhat = z
  .object({
    kind: z.literal('move'),
    move: z.string().min(1),
    side: Side.optional(),
    way: Way.optional(),
    /** In place of a way round: what a ring goes through first, from where it begins. */
    by: FirstWay.optional(),
    every: Tick.refine((ticks) => ticks > 0, 'a repeat needs a length').optional(),
    /** Repeats take turns, R L R L. */
    alt: z.literal(true).optional(),
    /** The way the arms take, for a move that sends them to places. */
    via: Via.optional(),
    /** The one arm that dances it, of a move of both. */
    arm: Side.optional(),
  })
  .refine(({ way, by }) => !way || !by, { message: 'goes round and by a way', path: ['by'] })
  .readonly()
export type MoveWhat = z.infer<typeof MoveWhat>

export const move: Kind<MoveWhat> = {
  layers: LAYERS,
  repeatsItself: true,
  ownLength: ({ every }, move) => tick(Math.max(move?.length ?? COUNT, every ?? 0)),
  side: ({ side, way, arm }) => arm ?? (way ? (way === 'cw' ? 'R' : 'L') : side),
  mirror: (what) => ({
    ...what,
    ...(what.side && { side: otherSide[what.side] }),
    ...(what.way && { way: otherWay[what.way] }),
    ...(what.arm && { arm: otherSide[what.arm] }),
  }),
  name({ move, side, way, by, arm }, { vocabulary }) {
    const name = vocabulary.find(move)?.name.toLowerCase() ?? move
    const on = side ?? (by ? `by ${by}` : way)
    const said = on ? `${name} ${on}` : name
    return arm && arm !== side ? `${arm} ${said}` : said
  },
  claim(what, { vocabulary }) {
    const move = vocabulary.find(what.move)
    if (!move) return { kind: 'path', parts: [], wave: false }
    const wave = move.motion.some((item) => item.verb === 'wave')
    const parts = what.side === 'L' ? move.claims.map((p) => mirrorPart[p] ?? p) : move.claims
    const { arm } = what
    const own = arm ? parts.filter((part) => !isOfArm(part, otherSide[arm])) : parts
    return { kind: move.kind, parts: own, wave }
  },
  leaves(what, before, { layer, length, vocabulary }) {
    const move = vocabulary.find(what.move)
    if (!move || layer === 'feet' || move.to === '=') return before
    const { to } = ofArm(endsOf(move, sideOnLastRepeat(what, length, move)), what)
    return to.arms ? { ...before, arms: { ...before.arms, ...to.arms } } : { ...before, ...to }
  },
  motion(what, vocabulary) {
    const motion = vocabulary.find(what.move)?.motion ?? []
    const danced = writtenSide(what) === 'L' ? mirrorMotion(motion) : motion
    return what.arm
      ? danced.filter((item) => !('arm' in item) || item.arm !== otherSide[what.arm ?? 'R'])
      : danced
  },
  write: ({ move, side, way, by, arm }, vocabulary) =>
    [!side && arm, moveText(move, vocabulary), side, by ? `by ${by}` : way, side && arm && 'alone']
      .filter(Boolean)
      .join(' '),
  say: sayMove,
}

export const moveEntry: EntryKind<MoveWhat> = {
  words: [],
  read: readMove,
  finish: finishMove,
}

const isOfArm = (part: BodyPart, side: Side): boolean =>
  part === (side === 'R' ? 'armR' : 'armL') || part === (side === 'R' ? 'handR' : 'handL')

/** Where a move starts and ends, for the arm that dances it. */
export function ofArm(
  { from, to }: ReturnType<typeof endsOf>,
  { arm }: Pick<MoveWhat, 'arm'>,
): ReturnType<typeof endsOf> {
  const own = (places: typeof from): typeof from => {
    const place = arm && places.arms?.[arm]
    if (!arm || !places.arms) return places
    const { arms: _, ...rest } = places
    // The other arm may be anywhere.
    return place ? { ...rest, arms: { [arm]: place } as Places['arms'] } : rest
  }
  return { from: own(from), to: own(to) }
}

/** Whether one arm may dance it by itself: both do the same. */
export const canBeOneArm = ({ layer, sided, motion }: Move): boolean => {
  const arms = motion.flatMap((item) => ('arm' in item && item.arm ? [item.arm] : []))
  const count = (side: Side) => arms.filter((arm) => arm === side).length
  return layer === 'arms' && sided !== 'side' && arms.length > 0 && count('R') === count('L')
}

const mirrorPart: Readonly<Partial<Record<BodyPart, BodyPart>>> = {
  armR: 'armL',
  armL: 'armR',
  handR: 'handL',
  handL: 'handR',
}

/** The side its row of the table is turned to: what goes anticlockwise is the left one. */
export const writtenSide = ({ side, way }: MoveWhat): Side =>
  side === 'L' || way === 'ccw' ? 'L' : 'R'

/** Repeats that take turns may end on the other side. */
function sideOnLastRepeat(what: MoveWhat, length: number, move: Move): Side {
  const side = writtenSide(what)
  if (!what.alt) return side
  const { times } = repeatsOf(what, length, move)
  return times % 2 === 0 ? otherSide[side] : side
}

/** An id, marked where this vocabulary does not know it. */
export const moveText = (id: string, vocabulary: Vocabulary): string =>
  vocabulary.find(id) ? id : `?${id}`

/** How often it is danced, and on which sides in turn. */
function everyWords(what: MoveWhat): string {
  if (what.every === undefined) return ''
  const counts = what.every / TICKS_PER_COUNT
  return counts === 1
    ? ', on every count'
    : counts === 0.5
      ? ', on every half count'
      : `, every ${Math.round(counts * 100) / 100} counts`
}

/** A half ring says where it goes; its side alone would leave that open. */
function goesTo(what: MoveWhat, move: Move | undefined): string | undefined {
  const [path, ...more] = move?.motion ?? []
  if (path?.verb !== 'arc' || more.length > 0 || !turningOf(move?.motion ?? [])) return undefined
  const end = path.places.at(-1)
  if (!isCompass(end) || path.places[0] === end) return undefined
  return `to the ${compassWord[what.side === 'L' ? mirrorCompass(end) : end]}`
}

const SIDE_AT_END = / (R|L|cw|ccw|by front|by back|by side)$/
const WAY_WORDS: ReadonlyMap<string, string> = new Map([
  ['R', ' right'],
  ['L', ' left'],
  ['cw', ', clockwise'],
  ['ccw', ', anticlockwise'],
  ['by front', ', through the front first'],
  ['by back', ', through the back first'],
  ['by side', ', through the side first'],
])

/** A move by name, with its side, how often, how large and how long. */
function sayMove(what: MoveWhat, around: Around): string {
  const { as, size, rate, vocabulary } = around
  const name = as ?? move.name(what, around)
  const where = goesTo(what, vocabulary.find(what.move))
  const side = as ? '' : (WAY_WORDS.get(SIDE_AT_END.exec(name)?.[1] ?? '') ?? '')
  const plain = as ?? name.replace(SIDE_AT_END, '')
  const sides = !what.alt ? (where ? `, ${where}` : side) : turnsWords(what, where ?? side)
  return [
    plain,
    sides,
    everyWords(what),
    size !== undefined && `, at ${size} % of its size`,
    rate !== undefined && `, ${rate} a count`,
    what.via && `, by the ${what.via}`,
  ]
    .filter(Boolean)
    .join('')
}

/** Repeats that take turns: the first on the side that is written. */
const turnsWords = (what: MoveWhat, side: string): string =>
  what.side
    ? ` ${sideWord[what.side]}, ${sideWord[otherSide[what.side]]}, ${sideWord[what.side]} …`
    : `${side}, then the other way round, in turn`

/** A move by its id or one of its names, the longest first. A name after `?` is one this vocabulary does not know. */
function readNamed(reader: Reader, { layer, vocabulary }: EntryPlace): Read<MoveWhat> | undefined {
  const first = reader.peek()
  if (first?.text.startsWith('?') && first.text.length > 1) {
    reader.take()
    return { what: { kind: 'move', move: first.text.slice(1) } }
  }
  const { ids, longest } = dictionaryOf(vocabulary, layer)
  let name = ''
  let found: { id: string; words: number } | undefined
  for (let i = 0; i < longest; i++) {
    const token = reader.peek(i)
    if (!token || token.quoted || token.text === ',') break
    name += squashed(token.text)
    const id = ids.get(name)
    // One word alone that is a primitive is the primitive.
    const isPrimitive = i === 0 && layer === 'feet' && Primitive.safeParse(token.text).success
    if (id && !isPrimitive) found = { id, words: i + 1 }
  }
  const move = found && vocabulary.find(found.id)
  if (!found || !move) return undefined
  reader.skip(found.words)
  return { what: { kind: 'move', move: move.id }, move }
}

/** The same, or with its side put in front: `R hip-drop`. */
function readMove(reader: Reader, place: EntryPlace): Read<MoveWhat> | undefined {
  const named = readNamed(reader, place)
  const first = reader.peek()
  const side = sideIn(first)
  if (named || !first || !side) return named
  const behind = reader.attempt(() => {
    reader.take()
    return readNamed(reader, place)
  })
  return behind && { ...behind, what: onSide(behind.what, side, behind.move, first) }
}

/** Turns a move to a side: its own side, or the way it goes round. */
function onSide(
  what: MoveWhat,
  side: Side,
  move: Move | undefined,
  where: Pick<Token, 'at' | 'end'>,
): MoveWhat {
  if (!move) return { ...what, side }
  if (canBeOneArm(move)) return { ...what, arm: side }
  if (move.sided === 'none')
    throw new EntryProblem(`“${move.name}” has no side: leave ${side} out.`, where)
  return move.sided === 'side' ? { ...what, side } : { ...what, way: side === 'R' ? 'cw' : 'ccw' }
}

/** The arm a move of one side is danced with. @throws EntryProblem where it has none */
function oneArmOf({ side, arm }: MoveWhat, move: Move | undefined): Side {
  if (move && move.layer !== 'arms') refuse('Only an arm dances alone.')
  return side ?? arm ?? refuse('Say which arm dances alone: arm-reach R alone.')
}

function finishMove(
  { what, move }: Read<MoveWhat>,
  options: Options,
  { lead }: EntryPlace,
): Finished<MoveWhat> {
  refuseStepWords(options)
  const size = sizeIn(options)
  if (options.way && move && move.sided !== 'direction')
    refuse(`“${move.name}” does not go round: write R or L, or leave ${options.way} out.`)
  if (options.by && options.way) refuse(`Write by ${options.by}, or ${options.way}: not both.`)
  if (options.by && move && move.sided !== 'direction')
    refuse(`“${move.name}” does not go round: leave by ${options.by} out.`)
  const sided =
    options.side && !options.by ? onSide(what, options.side, move, { at: 0, end: 1 }) : what
  const alone = options.alone && oneArmOf(sided, move)
  const written: MoveWhat = {
    ...sided,
    ...(alone && { arm: alone }),
    ...(options.way && { way: options.way }),
    ...(options.by && { by: options.by }),
    ...(options.every !== undefined && { every: options.every }),
    ...(options.alt && { alt: true as const }),
    ...(options.via && { via: options.via }),
  }
  if (move?.sided === 'side' && !written.side)
    return { what: { ...written, side: lead }, open: move.layer === 'feet', size }
  if (move?.sided === 'direction' && !written.way && !written.by)
    return { what: { ...written, way: lead === 'R' ? 'cw' : 'ccw' }, open: false, size }
  return { what: written, open: false, size }
}
