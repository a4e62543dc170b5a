import { dequal } from 'dequal'
import type { FloorPoint } from '../../body/places'
import type { Combination, Event, Phrase } from '../../combination/combination'
import { mirrorWhat } from '../../combination/mirror'
import { nameOf } from '../../combination/names'
import type { Part } from '../../combination/part'
import { phraseOf } from '../../combination/partOf'
import type { Pass } from '../../combination/passes'
import { voiceOf } from '../../combination/voice'
import { isOwnOf, isShared } from '../../combination/whose'
import type { Piece, Placed } from '../../piece/piece'
import { turnBetween } from '../../piece/relation'
import { remembered } from '../../record/remembered'
import { intoRoom } from '../../simulate/landing'
import { stateBefore } from '../../simulate/simulate'
import { HALF_COUNT, TICKS_PER_COUNT, tick } from '../../time/time'
import type { FoundBetween } from './pairRule'
import { pairsOf, spotBetween } from './pairRule'

/** So many shared counts on end are danced on together. */
const LONG = 4
/** Degrees two may face otherwise than at the start and go on together. */
const SAME_FACING = 30

/** Where all dance on together after some differed, and two do not face or stand as at the start. */
export function* rejoin(combination: Combination, piece: Piece): Generator<FoundBetween> {
  const [first] = piece.placed
  if (!first) return
  const written = new Map(combination.phrases.map((phrase) => [phrase.id, phrase]))
  for (const pass of first.simulation.passes) {
    const phrase = written.get(pass.phrase.id)
    if (!phrase) continue
    for (const count of joinsIn(phrase, undefined)) {
      const at = pass.at + count * TICKS_PER_COUNT
      for (const [a, b] of pairsOf(piece.placed)) {
        const [now, other] = [a, b].map(({ simulation }) => stateBefore(simulation, at))
        if (!now || !other) continue
        const off = (one: Placed, facing: number) => facing - one.simulation.start.facing
        const degrees = turnBetween(off(a, now.facing), off(b, other.facing))
        const isImage = a.part.mirrored !== b.part.mirrored
        const isTurned = !isImage && degrees > SAME_FACING
        const differs = isTurned ? 'facing' : levelOff(a, b, at) ? 'level' : undefined
        if (!differs) continue
        yield {
          code: 'pair.rejoin',
          a: a.part.name,
          b: b.part.name,
          differs,
          ...(differs === 'facing' && { degrees }),
          whose: [a.part.id, b.part.id],
          spot: spotBetween(pass, tick(at), 'feet'),
          events: [],
        }
      }
    }
  }
}

function levelOff(a: Placed, b: Placed, at: number): boolean {
  const [now, other] = [a, b].map(({ simulation }) => stateBefore(simulation, at).stands)
  const [begin, otherBegin] = [a, b].map(({ simulation }) => simulation.start.stands)
  return begin === otherBegin && now !== other
}

/** Counts of a phrase at which four or more shared counts begin behind one that differs, from 0. */
const joinsIn = remembered(
  ({ counts, events, between = [] }: Phrase, _: undefined): readonly number[] => {
    const differs = Array.from({ length: counts }, (_, count) => {
      const [from, to] = [count * TICKS_PER_COUNT, (count + 1) * TICKS_PER_COUNT]
      return (
        events.some(
          (one) => one.layer === 'feet' && !isShared(one) && one.at >= from && one.at < to,
        ) ||
        between.some(
          ({ what, at, length }) => what.kind === 'wait' && at < to && at + length > from,
        )
      )
    })
    return differs.flatMap((_, count) => {
      const long = differs.slice(count, count + LONG)
      const isLong = long.length === LONG && long.every((off) => !off)
      return count > 0 && differs[count - 1] && isLong ? [count] : []
    })
  },
)

/** What two parts have written of their own, and nearly the same; once a phrase. */
export function* unison(combination: Combination, piece: Piece): Generator<FoundBetween> {
  const { parts = [] } = combination
  const [first] = piece.placed
  if (!first) return
  for (const phrase of combination.phrases) {
    const pass = firstPass(first, phrase)
    const found = pass && twice(phrase, parts)
    if (!pass || !found) continue
    const { a, b, event, by } = found
    yield {
      code: 'pair.unison',
      a: a.name,
      b: b.name,
      move: nameOf(event, first.simulation.vocabulary),
      by,
      whose: [a.id, b.id],
      spot: spotBetween(pass, tick(pass.at + event.at), event.layer),
      events: [event.id],
    }
  }
}

const firstPass = ({ simulation }: Placed, { id }: Phrase): Pass | undefined =>
  simulation.passes.find((one) => one.phrase.id === id)

/** What who follows has no time for: once for each in a phrase. */
export function* cut({ phrases, parts = [] }: Combination, piece: Piece): Generator<FoundBetween> {
  const [first] = piece.placed
  if (!first) return
  for (const phrase of phrases) {
    const pass = firstPass(first, phrase)
    for (const { part, of, by } of phrase.voices ?? []) {
      const [own, other] = [part, of].map((id) => parts.find((one) => one.id === id))
      if (!pass || !own || !other) continue
      const end = phrase.counts * TICKS_PER_COUNT
      const lost = phraseOf(phrase, other, parts).events.filter(({ at }) => at + by >= end)
      const [last] = lost
      if (!last) continue
      const moves = lost.map((event) => nameOf(event, first.simulation.vocabulary))
      yield {
        code: 'pair.cut',
        a: own.name,
        b: other.name,
        moves: [...new Set(moves)],
        whose: [part],
        spot: spotBetween(pass, tick(pass.at + end - TICKS_PER_COUNT), last.layer),
        events: [last.id],
      }
    }
  }
}

/** So many entries that are each the other side of the other's are an image, and no contrast that is meant. */
const MEANT_AS_IMAGE = 3

const twice = remembered((phrase: Phrase, parts: readonly Part[]) => {
  for (const [a, b] of pairsOf(parts)) {
    // Who follows the other one is like her on purpose.
    const isVoice = (one: Part, other: Part) => voiceOf(phrase, one.id)?.of === other.id
    if (isVoice(a, b) || isVoice(b, a)) continue
    const [ofA = [], ofB = []] = [a, b].map((part) =>
      phrase.events.filter((one) => isOwnOf(one, part.id) && one.who?.length === 1),
    )
    const alike = ofA.flatMap((event) => {
      const by = ofB.map((other) => likeness(event, other, a, b)).find(Boolean)
      return by ? [{ a, b, event, by }] : []
    })
    const images = alike.filter(({ by }) => by === 'image')
    const isImage =
      images.length >= MEANT_AS_IMAGE && images.length === ofA.length && ofA.length === ofB.length
    const found = alike.find(({ by }) => by !== 'image') ?? (isImage ? images[0] : undefined)
    if (found) return found
  }
  return undefined
})

function likeness(
  event: Event,
  other: Event,
  a: Part,
  b: Part,
): 'same' | 'image' | 'time' | undefined {
  if (event.layer !== other.layer || Math.abs(event.at - other.at) > HALF_COUNT) return undefined
  // Single steps are meant as they are written: half of all steps are like each other.
  if (event.what.kind === 'foot') return undefined
  const isImage = dequal(mirrorWhat(event.what), other.what)
  const isSame = dequal(event.what, other.what)
  if (!isSame && !(isImage && a.mirrored === b.mirrored)) return undefined
  if (event.at !== other.at) return isSame ? 'time' : undefined
  return isSame ? 'same' : 'image'
}

/** A dancer who is not where her next round begins, the formation moved along as it stands. */
export function* joinTogether(
  combination: Combination,
  piece: Piece,
  next: Piece,
): Generator<FoundBetween> {
  const { house, placed } = piece
  const pass = placed[0]?.simulation.passes.at(-1)
  if (!pass || combination.once) return
  const ends = placed.map(({ way }) => way.at(-1) ?? { right: 0, forward: 0 })
  const begins = turnedTogether(
    next.placed.map(({ way }) => way[0] ?? { right: 0, forward: 0 }),
    placed,
  )
  const { limits } = house
  const free = (combination.rest ?? 0) + (combination.pickup?.each ? combination.pickup.counts : 0)
  const room = limits['pair.join'] + free * limits['pair.joinRest']
  const ways = [begins, ...(begins.length === 2 ? [begins.toReversed()] : [])].map((to) =>
    missesOf(ends, to),
  )
  const farthest = (misses: readonly number[]) => Math.max(...misses)
  const best = ways.reduce((a, b) => (farthest(b) < farthest(a) ? b : a))
  for (const [i, metres] of best.entries()) {
    const part = placed[i]?.part
    if (!part || metres <= room) continue
    yield {
      code: 'pair.join',
      a: part.name,
      metres,
      room,
      swapped: ways.length > 1,
      whose: [part.id],
      spot: spotBetween(pass, tick(pass.at + pass.length - TICKS_PER_COUNT), 'feet'),
      events: [],
    }
    return
  }
}

/** Where all begin, turned as all of them have turned: a round that faces another wall begins there. */
function turnedTogether(
  begins: readonly FloorPoint[],
  placed: readonly Placed[],
): readonly FloorPoint[] {
  const turns = placed.map(({ simulation }) => simulation.end.facing - simulation.start.facing)
  const [first = 0] = turns
  if (turns.some((degrees) => turnBetween(degrees, first) > 1)) return begins
  return begins.map(({ right, forward }) => intoRoom(first, right, forward))
}

/** How far each is from her next start, when all are moved along together as they stand. */
function missesOf(ends: readonly FloorPoint[], begins: readonly FloorPoint[]): readonly number[] {
  const mean = (list: readonly FloorPoint[], key: keyof FloorPoint) =>
    list.reduce((sum, one) => sum + one[key], 0) / Math.max(1, list.length)
  const by = {
    right: mean(ends, 'right') - mean(begins, 'right'),
    forward: mean(ends, 'forward') - mean(begins, 'forward'),
  }
  return ends.map((end, i) => {
    const to = begins[i] ?? end
    return Math.hypot(to.right + by.right - end.right, to.forward + by.forward - end.forward)
  })
}
