import { Direction, type FootAction, factsOf, JumpTo, Primitive } from '../body/feet'
import type { Layer } from '../body/layers'
import { ArmPlace, Compass, Gaze } from '../body/places'
import type { Side } from '../body/side'
import type { Event } from '../combination/combination'
import { mirrorWhat } from '../combination/mirror'
import type { Move } from '../moves/move'
import { tick } from '../time/time'
import type { What } from '../what/kinds'
import { armPlaceIn } from './armPlaceIn'
import { type Token, tokensIn } from './lines'
import { meantLength } from './meantLength'
import { degreesIn, OPTION_WORDS, type Options, readOptions } from './options'
import { type EntryPlace, EntryProblem, hint, Reader, sideIn } from './reader'
import { readWhen, type When } from './when'
import { dictionaryOf, nearest, squashed } from './words'

/** An event before it has an id. One of the feet whose foot was left out is `open` until the weight is known. */
export interface WrittenEvent {
  readonly event: Omit<Event, 'id'>
  readonly open: boolean
}

/**
 * Reads one entry of a layer line: `[~] WHEN WHAT [SIDE] [options] [!keep]`.
 * @throws EntryProblem that says which word is wrong and what was expected.
 */
export function readEntry(text: string, place: EntryPlace): readonly WrittenEvent[] {
  let tokens = tokensIn(text.replace(/^~/, ' '))
  const optional = text.startsWith('~')
  const unclosed = tokens.find(({ open }) => open)
  if (unclosed) throw new EntryProblem('This quote is never closed: write " at its end.', unclosed)
  tokens = withWhenJoined(tokens)
  const reader = new Reader(tokens)
  const times = readWhen(reader.need('a count'), place)
  const { what, move, open } = readWhat(reader, place)
  const options = readOptions(reader, place, move)
  const done = finish(what, options, place, move, open)
  return times.flatMap((when) => placed(when, done, options, place, move, optional))
}

/** `2, 4, 6` is one WHEN, however it is spaced. */
function withWhenJoined(tokens: readonly Token[]): readonly Token[] {
  let until = 1
  while (tokens[until]?.text === ',' && /^[\d<]/.test(tokens[until + 1]?.text ?? '')) until += 2
  const [first] = tokens
  const last = tokens[until - 1]
  if (!first || !last || until === 1) return tokens
  const text = tokens
    .slice(0, until)
    .map((token) => token.text)
    .join('')
  return [{ ...first, text, end: last.end }, ...tokens.slice(until)]
}

interface Read {
  readonly what: What
  readonly move?: Move | undefined
  readonly open?: boolean
}

function readWhat(reader: Reader, place: EntryPlace): Read {
  const first = reader.peek()
  if (!first) {
    reader.need(`what the ${place.layer} do`)
    throw new Error('unreachable')
  }
  if (place.layer === 'arms') {
    const arms = readArms(reader)
    if (arms) return { what: arms }
  }
  if (place.layer === 'head' && first.text === 'look') {
    const gaze = readLook(reader)
    if (gaze) return { what: { kind: 'look', gaze } }
  }
  if ((place.layer === 'hips' || place.layer === 'torso') && first.text === 'at') {
    reader.take()
    const there = reader.need('a place of the compass: C, R, L, F, B, FR, FL, BR or BL')
    const compass = Compass.safeParse(there.text.toUpperCase())
    if (compass.success) return { what: { kind: 'at', place: compass.data } }
    throw new EntryProblem(
      `“${there.text}” is no place of the compass. Write C, R, L, F, B, FR, FL, BR or BL.`,
      there,
    )
  }
  const named = readMove(reader, place)
  if (named) return named
  const primitive =
    place.layer === 'feet' ? Primitive.safeParse(first.text.toLowerCase()) : undefined
  if (primitive?.success) {
    reader.take()
    return readAction(reader, primitive.data, first)
  }
  // Where a side was put in front: `R hip-drop`. The word behind it is then what counts.
  const side = sideIn(first) ?? (first.text === 'both' ? 'both' : undefined)
  const second = reader.peek(1)
  if (side && second) {
    reader.take()
    const after = side === 'both' ? undefined : readMove(reader, place)
    if (after && side !== 'both')
      return { ...after, what: onSide(after.what, side, after.move, first) }
    throw unknownWord(reader, place, ArmPlace.options)
  }
  throw unknownWord(reader, place)
}

/** Whether a word behind the first may belong to a name: no side, no option, nothing in quotes. */
const mayBeOfName = (token: Token | undefined): boolean =>
  token !== undefined &&
  !token.quoted &&
  token.text !== ',' &&
  !sideIn(token) &&
  !OPTION_WORDS.includes(token.text) &&
  !directionIn(token.text)

const EXPECTED: Readonly<Record<Layer, string>> = {
  feet: 'a step such as “step R side”, or a figure',
  hips: 'a hip move, or “at R”',
  torso: 'a move of the torso, or “at R”',
  arms: '“both low”, “R high-v, L hips”, or a move of the arms',
  head: '“look L”, or a move of the head',
}
const OWN_WORDS: Readonly<Record<Layer, readonly string[]>> = {
  feet: [],
  hips: ['at'],
  torso: ['at'],
  arms: ['both'],
  head: ['look'],
}

/** What is wrong with the word a reader stands at, and what was meant by it or by it and the next ones. */
function unknownWord(
  reader: Reader,
  { layer, vocabulary }: EntryPlace,
  places: readonly string[] = [],
): EntryProblem {
  const first = reader.peek()
  if (!first) throw new Error('there is no word')
  const { known, longest } = dictionaryOf(vocabulary, layer)
  const own = layer === 'arms' ? [...places, ...known] : known
  const { text } = first
  if (text.startsWith('~') && text.length > 1)
    return new EntryProblem('Write “~” before the count: ~3 …', first)
  if (layer === 'feet' && text === 'turn')
    return new EntryProblem(
      'A turn stands behind a step: step R side turn 90. To turn alone, write pivot 90.',
      first,
    )
  // The longest run of words that comes near a name is what was meant.
  for (let count = longest; count >= 1; count--) {
    const tokens = Array.from({ length: count }, (_, i) => reader.peek(i))
    const last = tokens.at(-1)
    if (!last || tokens.some((token, i) => i > 0 && !mayBeOfName(token))) continue
    const words = tokens.map((token) => token?.text ?? '').join(' ')
    const near = nearest(words, [...own, ...(count === 1 ? OWN_WORDS[layer] : [])])
    if (near.length > 0)
      return new EntryProblem(`“${words}” is not known here. Did you mean ${near.join(', ')}?`, {
        at: first.at,
        end: last.end,
      })
  }
  const elsewhere = vocabulary.find(text.toLowerCase())
  return new EntryProblem(
    elsewhere
      ? `“${text}” belongs to the ${elsewhere.layer} line, not to the ${layer}.`
      : `“${text}” is not known here. Write ${EXPECTED[layer]}.`,
    first,
  )
}

/** A move by its id or one of its names, the longest first. A name after `?` is one this vocabulary does not know. */
function readMove(reader: Reader, { layer, vocabulary }: EntryPlace): Read | undefined {
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

function readArms(reader: Reader): What | undefined {
  const arms: Partial<Record<Side, ArmPlace>> = {}
  for (;;) {
    const first = reader.peek()
    const side = sideIn(first)
    if (!first || (first.text !== 'both' && !side)) break
    const found = armPlaceIn(reader.peek(1), reader.peek(2))
    if (!found) {
      const next = reader.peek(1)
      // It may be a move of one arm; what it is not is said there.
      if (Object.keys(arms).length === 0) return undefined
      throw new EntryProblem(
        `“${next?.text ?? first.text}” is no place for an arm.${hint(nearest(next?.text ?? '', ArmPlace.options), 'Write low, second, high-v, crown, hips or another one.')}`,
        next ?? first,
      )
    }
    reader.skip(1 + found.words)
    if (side) arms[side] = found.place
    else {
      arms.R = found.place
      arms.L = found.place
    }
    if (reader.peek()?.text === ',' && (sideIn(reader.peek(1)) || reader.peek(1)?.text === 'both'))
      reader.take()
    else if (!sideIn(reader.peek())) break
  }
  return arms.R || arms.L ? { kind: 'arms', ...arms } : undefined
}

const GAZE_WORDS = ['front', 'R', 'L', 'up', 'down', 'over R', 'hand R', 'tilt R']

function readLook(reader: Reader): Gaze | undefined {
  const way = reader.peek(1)
  if (!way) {
    reader.take()
    reader.need(`where to: ${GAZE_WORDS.join(', ')}`)
  }
  if (!way) return undefined
  const side = sideIn(way)
  if (side) {
    reader.skip(2)
    return side
  }
  const plain = Gaze.safeParse(way.text.toLowerCase())
  const two = sideIn(reader.peek(2))
  const sided = two && Gaze.safeParse(`${way.text.toLowerCase()}-${two}`)
  if (sided?.success) {
    reader.skip(3)
    return sided.data
  }
  if (plain.success) {
    reader.skip(2)
    return plain.data
  }
  throw new EntryProblem(`Nobody can look “${way.text}”. Write look ${GAZE_WORDS.join(', ')}.`, way)
}

const DIRECTIONS: ReadonlyMap<string, Direction> = new Map(
  Direction.options.map((direction) => [squashed(direction), direction]),
)

/** A direction, also by its first three letters or more where they mean only one. */
function directionIn(word: string): Direction | undefined {
  const key = squashed(word)
  const whole = DIRECTIONS.get(key)
  if (whole || key.length < 3) return whole
  const found = [...DIRECTIONS].filter(([name]) => name.startsWith(key))
  return found.length === 1 ? found[0]?.[1] : undefined
}

function readAction(reader: Reader, primitive: Primitive, word: Token): Read {
  const facts = factsOf(primitive)
  const action: Record<string, unknown> = { primitive }
  for (let token = reader.peek(); token; token = reader.peek()) {
    const side = sideIn(token)
    const two = reader.peek(1)
    const pair = two && !two.quoted ? DIRECTIONS.get(squashed(token.text + two.text)) : undefined
    const direction = pair ?? directionIn(token.text)
    const jump = primitive === 'jump' ? JumpTo.safeParse(side ?? token.text) : undefined
    if (token.quoted) break
    if (jump?.success) action.jump = jump.data
    else if (side) {
      if (!facts.foot) throw new EntryProblem(`“${primitive}” takes no foot.`, token)
      action.foot = side
    } else if (direction) {
      if (!facts.direction) throw new EntryProblem(`“${primitive}” takes no direction.`, token)
      action.direction = direction
      if (pair) reader.take()
    } else if (primitive === 'pivot' && /^[+-]?\d+$/.test(token.text)) {
      action.turn = degreesIn(token)
    } else break
    reader.take()
  }
  if (facts.direction && !action.direction) action.direction = facts.direction
  if (primitive === 'jump' && !action.jump)
    throw new EntryProblem('Say where the jump lands: jump both, out, in, R or L.', word)
  const open = facts.foot && action.foot === undefined
  // A foot left out is filled in when the weight is known; R stands in until then.
  if (open) action.foot = 'R'
  return { what: { kind: 'foot', action: action as FootAction }, open }
}

/** Turns a move to a side: its own side, or the way it goes round. */
function onSide(
  what: What,
  side: Side,
  move: Move | undefined,
  where: Pick<Token, 'at' | 'end'>,
): What {
  if (what.kind !== 'move') return what
  if (!move) return { ...what, side }
  if (move.sided === 'none')
    throw new EntryProblem(`“${move.name}” has no side: leave ${side} out.`, where)
  return move.sided === 'side' ? { ...what, side } : { ...what, way: side === 'R' ? 'cw' : 'ccw' }
}

interface Finished {
  readonly what: What
  readonly open: boolean
}

/** Puts the options into what is danced, and fills in a side that was left out. */
function finish(
  what: What,
  options: Options,
  { lead }: EntryPlace,
  move: Move | undefined,
  open = false,
): Finished {
  const everywhere = { at: 0, end: 1 }
  const refuse = (text: string): never => {
    throw new EntryProblem(text, everywhere)
  }
  if (what.kind === 'foot') {
    const { side, turn, word, contact } = options
    const isOpen = open && side === undefined
    if (side && !factsOf(what.action.primitive).foot)
      refuse(`“${what.action.primitive}” takes no foot.`)
    if (options.size !== undefined) refuse('Of a step, write small or large.')
    const action = {
      ...what.action,
      ...(side && { foot: side }),
      ...(turn !== undefined && turn !== 0 && { turn }),
      ...(word && { size: word }),
      ...(contact && { contact }),
    }
    if (action.primitive === 'hold' && action.turn) refuse('A hold cannot turn: write a pivot.')
    if (action.primitive === 'pivot' && !action.turn)
      refuse('A pivot needs its degrees: pivot 180, or pivot -90 to the left.')
    return { what: { kind: 'foot', action }, open: isOpen }
  }
  if (options.turn !== undefined) refuse('Only the feet turn: write the turn on a step.')
  if (options.contact) refuse('Only a step goes on the ball or the heel.')
  if (what.kind === 'arms')
    return { what: { ...what, ...(options.via && { via: options.via }) }, open: false }
  if (options.via && what.kind !== 'move') refuse('Only the arms have a way (via).')
  if (what.kind !== 'move') return { what, open: false }
  if (options.way && move && move.sided !== 'direction')
    refuse(`“${move.name}” does not go round: write R or L, or leave ${options.way} out.`)
  const sided = options.side ? onSide(what, options.side, move, everywhere) : what
  const written: Extract<What, { kind: 'move' }> = {
    ...(sided as Extract<What, { kind: 'move' }>),
    ...(options.way && { way: options.way }),
    ...(options.every !== undefined && { every: options.every }),
    ...(options.alt && { alt: true as const }),
    ...(options.via && { via: options.via }),
  }
  if (move?.sided === 'side' && !written.side)
    return { what: { ...written, side: lead }, open: move.layer === 'feet' }
  if (move?.sided === 'direction' && !written.way)
    return { what: { ...written, way: lead === 'R' ? 'cw' : 'ccw' }, open: false }
  return { what: written, open: false }
}

const SIZE_OF_WORD = { small: 60, large: 150 } as const

function placed(
  when: When,
  { what, open }: Finished,
  options: Options,
  { layer, counts }: EntryPlace,
  move: Move | undefined,
  optional: boolean,
): readonly WrittenEvent[] {
  const { kept, on, rate, as, easier, harder, cue, note, words, leave } = options
  const size =
    options.size ?? (options.word && what.kind !== 'foot' ? SIZE_OF_WORD[options.word] : undefined)
  const meant = meantLength(when.at, what, move, counts)
  const length = when.single ? meant : when.length
  const event = (at: number, ticks: number, said: What, range = false): WrittenEvent => ({
    open,
    event: {
      layer,
      at: tick(at),
      length: tick(ticks),
      ...(range && { range: true as const }),
      what: said,
      ...(kept && { kept }),
      ...(optional && { optional: true as const }),
      ...(on && { on }),
      ...(size !== undefined && { size }),
      ...(rate !== undefined && { rate }),
      ...(as && { as }),
      ...(easier && { easier }),
      ...(harder && { harder }),
      ...(cue && { cue }),
      ...(note && { note }),
      ...(words && { words }),
      ...(leave && { leave }),
    },
  })
  const { every, alt } = options
  // A move knows how it repeats; a step or a place is written again each time.
  if (every === undefined || what.kind === 'move')
    return [event(when.at, length, what, !when.single && length === meant)]
  const times = Math.max(1, Math.floor(length / every))
  return Array.from({ length: times }, (_, i) =>
    event(
      when.at + i * every,
      Math.min(every, when.at + length - (when.at + i * every)),
      alt && i % 2 === 1 ? mirrorWhat(what) : what,
    ),
  )
}
