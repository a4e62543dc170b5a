import fc from 'fast-check'
import { Direction, type FootAction, factsOf, JumpTo, Primitive } from '../src/core/body/feet'
import { ArmPlace, Compass, Gaze, Level, Via } from '../src/core/body/places'
import type { Combination, Event, Phrase, What } from '../src/core/combination/combination'
import { LAYERS, type Layer } from '../src/core/moves/move'
import { vocabulary } from '../src/core/moves/vocabulary'
import { tick } from '../src/core/time/time'

const side = fc.constantFrom('R' as const, 'L' as const)
const maybe = <T>(arb: fc.Arbitrary<T>) => fc.option(arb, { nil: undefined })

/** Leaves out what is undefined, as a stored record does. */
const compact = <T extends object>(record: T): T =>
  Object.fromEntries(Object.entries(record).filter(([, value]) => value !== undefined)) as T

const footAction: fc.Arbitrary<FootAction> = fc
  .record({
    primitive: fc.constantFrom(...Primitive.options),
    foot: side,
    direction: fc.constantFrom(...Direction.options),
    turn: maybe(fc.constantFrom(-360, -180, -90, -45, 45, 90, 180)),
    size: maybe(fc.constantFrom('small' as const, 'large' as const)),
    contact: maybe(fc.constantFrom('ball' as const, 'heel' as const)),
    jump: fc.constantFrom(...JumpTo.options),
  })
  .map(({ primitive, foot, direction, turn, jump, ...rest }) => {
    const facts = factsOf(primitive)
    return compact({
      primitive,
      ...(facts.foot && { foot }),
      ...(facts.direction && { direction }),
      ...(primitive === 'jump' && { jump }),
      ...(primitive === 'pivot' ? { turn: turn ?? 90 } : primitive !== 'hold' && { turn }),
      ...rest,
    })
  })

const moveWhat = (layer: Layer): fc.Arbitrary<What> =>
  fc
    .record({
      move: fc.constantFrom(...vocabulary.moves.filter((m) => m.layer === layer)),
      side,
    })
    .map(({ move, side }) => ({
      kind: 'move',
      move: move.id,
      ...(move.sided === 'side' && { side }),
      ...(move.sided === 'direction' && { way: side === 'R' ? ('cw' as const) : ('ccw' as const) }),
    }))

const ownWhat: Readonly<Record<Layer, fc.Arbitrary<What>>> = {
  feet: footAction.map((action) => ({ kind: 'foot', action })),
  hips: fc.constantFrom(...Compass.options).map((place) => ({ kind: 'at', place })),
  torso: fc.constantFrom(...Compass.options).map((place) => ({ kind: 'at', place })),
  arms: fc
    .record({
      R: maybe(fc.constantFrom(...ArmPlace.options)),
      L: fc.constantFrom(...ArmPlace.options),
      via: maybe(fc.constantFrom(...Via.options)),
    })
    .map((arms) => compact({ kind: 'arms' as const, ...arms })),
  head: fc.constantFrom(...Gaze.options).map((gaze) => ({ kind: 'look', gaze })),
}

const words = fc.constantFrom(
  'step right',
  'Left arm, then RIGHT',
  'all right',
  'say "right" on L',
  'R to L',
  'brighter',
)

const event = (counts: number): fc.Arbitrary<Omit<Event, 'id'>> =>
  fc
    .record({
      layer: fc.constantFrom(...LAYERS),
      at: fc.integer({ min: 0, max: counts * 4 - 1 }).map((quarter) => quarter * 3),
      length: fc.constantFrom(3, 6, 12, 24, 48),
      kept: maybe(fc.constant(true as const)),
      cue: maybe(words),
      note: maybe(words),
      pick: fc.boolean(),
    })
    .chain(({ layer, at, length, pick, ...rest }) =>
      (pick ? ownWhat[layer] : moveWhat(layer)).map((what) =>
        compact({
          ...rest,
          layer,
          at: tick(at),
          length: tick(Math.min(length, counts * 12 - at)),
          what,
        }),
      ),
    )

const phrase = (index: number): fc.Arbitrary<Phrase> =>
  fc.integer({ min: 1, max: 10 }).chain((counts) =>
    fc.array(event(counts), { maxLength: 14 }).map((events) => ({
      id: `p${index}`,
      name: String.fromCharCode(65 + index),
      title: '',
      counts,
      events: events.map((e, i) => ({ ...e, id: `p${index}e${i}` })),
    })),
  )

/** Combinations of one to three phrases, written at random: faults, clashes and all. */
export const anyCombination = ({ kept = true } = {}): fc.Arbitrary<Combination> =>
  fc
    .record({
      phrases: fc
        .integer({ min: 1, max: 3 })
        .chain((n) => fc.tuple(...Array.from({ length: n }, (_, i) => phrase(i)))),
      again: fc.array(fc.record({ which: fc.nat(2), mirrored: fc.boolean() }), { maxLength: 3 }),
      lead: side,
      weight: fc.constantFrom('R' as const, 'L' as const, 'both' as const),
      level: fc.constantFrom(...Level.options),
      hips: fc.constantFrom(...Compass.options),
      ribs: fc.constantFrom(...Compass.options),
      arms: fc.record({
        R: fc.constantFrom(...ArmPlace.options),
        L: fc.constantFrom(...ArmPlace.options),
      }),
      gaze: fc.constantFrom(...Gaze.options),
      facing: fc.constantFrom(0, 45, -90, 180),
    })
    .map(({ phrases, again, lead, ...start }) => ({
      kind: 'combination' as const,
      schemaVersion: 1 as const,
      id: 'generated',
      title: 'Generated',
      families: ['general' as const],
      tempo: 96,
      teachTempo: 64,
      lead,
      start,
      phrases: kept ? phrases : phrases.map(withoutKept),
      order: [
        ...phrases.map(({ id }) => ({ phrase: id, mirrored: false })),
        ...again.map(({ which, mirrored }) => ({
          phrase: phrases[which % phrases.length]?.id ?? 'p0',
          mirrored,
        })),
      ],
    }))

const withoutKept = (phrase: Phrase): Phrase => ({
  ...phrase,
  events: phrase.events.map(({ kept: _, ...event }) => event),
})
