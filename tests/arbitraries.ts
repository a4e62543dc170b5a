import fc from 'fast-check'
import { Direction, type FootAction, factsOf, JumpTo, STEP_WORDS } from '../src/core/body/feet'
import { type Hand, HandShape, PalmWay } from '../src/core/body/hands'
import { LAYERS, type Layer } from '../src/core/body/layers'
import {
  ArmPlace,
  Compass,
  Gaze,
  LegPlace,
  Level,
  PartnerPlace,
  ShoulderPlace,
  TrunkPlace,
  Via,
} from '../src/core/body/places'
import type { Side } from '../src/core/body/side'
import {
  ANY_OPTIONS,
  type Combination,
  DancerLevel,
  type Event,
  OptionKind,
  type Phrase,
  SCHEMA_VERSION,
} from '../src/core/combination/combination'
import type { EventForm } from '../src/core/combination/forms'
import { countsOfLike, followed, likeOf } from '../src/core/combination/like'
import { type CountCalls, RemarkKind } from '../src/core/combination/remark'
import type { OwnRule } from '../src/core/combination/rules'
import { FAMILIES } from '../src/core/moves/move'
import { vocabulary } from '../src/core/moves/vocabulary'
import { tick } from '../src/core/time/time'
import { canBeHeld, kindOf, type What } from '../src/core/what/kinds'
import { canBeOneArm } from '../src/core/what/move'
import { anyEdit, reordered } from './anyEdit'

const side = fc.constantFrom('R' as const, 'L' as const)
const maybe = <T>(arb: fc.Arbitrary<T>) => fc.option(arb, { nil: undefined })

const rarely = <T>(arb: fc.Arbitrary<T>) =>
  fc.oneof({ weight: 6, arbitrary: fc.constant(undefined) }, { weight: 1, arbitrary: arb })

/** Leaves out what is undefined, as a stored record does. */
const compact = <T extends object>(record: T): T =>
  Object.fromEntries(Object.entries(record).filter(([, value]) => value !== undefined)) as T

const footAction: fc.Arbitrary<FootAction> = fc
  .record({
    primitive: fc.constantFrom(...STEP_WORDS),
    foot: side,
    direction: fc.constantFrom(...Direction.options),
    turn: maybe(fc.constantFrom(-360, -180, -90, -45, -22.5, 33.5, 45, 90, 180)),
    size: maybe(fc.constantFrom('small' as const, 'large' as const)),
    contact: maybe(fc.constantFrom('ball' as const, 'heel' as const, 'flat' as const)),
    jump: fc.constantFrom(...JumpTo.options),
    shared: maybe(fc.constant(true as const)),
    goes: fc.boolean(),
  })
  .map(({ primitive, foot, direction, turn, jump, contact, shared, goes, ...rest }) => {
    const facts = factsOf(primitive)
    return compact({
      primitive,
      ...(facts.foot && { foot }),
      ...(facts.direction && { direction }),
      ...(goes &&
        jump !== 'R' &&
        jump !== 'L' &&
        facts.travels?.includes(direction) && { direction }),
      // A step is flat without saying so.
      ...((contact !== 'flat' || primitive === 'touch' || primitive === 'press') && { contact }),
      ...(facts.shares && { shared }),
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
      alone: rarely(fc.constant(true)),
      every: rarely(fc.constantFrom(3, 4, 6, 12, 24).map(tick)),
      alt: rarely(fc.constant(true as const)),
      via: rarely(fc.constantFrom(...Via.options)),
      by: rarely(fc.constantFrom('front' as const, 'back' as const, 'side' as const)),
    })
    .map(({ move, side, every, alt, via, alone, by }) =>
      compact({
        kind: 'move' as const,
        move: move.id,
        every,
        alt,
        ...(layer === 'arms' && { via }),
        ...(alone &&
          (canBeOneArm(move) || (layer === 'arms' && move.sided === 'side')) && { arm: side }),
        ...(move.sided === 'side' && { side }),
        ...(move.sided === 'direction' && by && { by }),
        ...(move.sided === 'direction' &&
          !by && {
            way: side === 'R' ? ('cw' as const) : ('ccw' as const),
          }),
      }),
    )

/** How hands are held: one of them, or both. */
const hand = fc.oneof(
  fc.constantFrom(...HandShape.options).map((shape): Hand => ({ shape })),
  fc.constantFrom(...PalmWay.options).map((palm): Hand => ({ palm })),
  fc.record({
    shape: fc.constantFrom(...HandShape.options),
    palm: fc.constantFrom(...PalmWay.options),
  }),
)
const hands = fc.oneof(
  hand.map((one) => ({ R: one })),
  hand.map((one) => ({ L: one })),
  fc.record({ R: hand, L: hand }),
)

const ownWhat: Readonly<Record<Layer, fc.Arbitrary<What>>> = {
  feet: fc.oneof(
    { weight: 9, arbitrary: footAction.map((action): What => ({ kind: 'foot', action })) },
    {
      weight: 1,
      arbitrary: fc
        .constantFrom(-360, -180, 90, 112.5, 270, 720)
        .map((degrees): What => ({ kind: 'share', degrees })),
    },
    { weight: 1, arbitrary: fc.constant<What>({ kind: 'free' }) },
  ),
  legs: fc
    .record({
      R: maybe(fc.constantFrom(...LegPlace.options)),
      L: fc.constantFrom(...LegPlace.options),
    })
    .map((places) => compact({ kind: 'legs' as const, ...places })),
  hips: fc.oneof(
    {
      weight: 9,
      arbitrary: fc.constantFrom(...Compass.options).map((place): What => ({ kind: 'at', place })),
    },
    { weight: 1, arbitrary: fc.constant<What>({ kind: 'stay' }) },
  ),
  torso: fc.oneof(
    fc.constantFrom(...Compass.options).map((place): What => ({ kind: 'at', place })),
    fc.constantFrom(...TrunkPlace.options).map((place): What => ({ kind: 'trunk', place })),
    fc
      .record({ side, place: fc.constantFrom(...ShoulderPlace.options) })
      .map((one): What => ({ kind: 'shoulder', ...one })),
  ),
  arms: fc.oneof(
    fc
      .record({
        R: maybe(fc.constantFrom(...ArmPlace.options)),
        L: fc.constantFrom(...ArmPlace.options),
        hands: maybe(hands),
        via: maybe(fc.constantFrom(...Via.options)),
        over: maybe(fc.constant('L' as const)),
      })
      .map((arms) => compact({ kind: 'arms' as const, ...arms })),
    hands.map((of): What => ({ kind: 'arms', hands: of })),
    fc.constantFrom<What>({ kind: 'free' }, { kind: 'stay' }),
  ),
  head: fc.oneof(
    {
      weight: 8,
      arbitrary: fc.constantFrom(...Gaze.options).map((gaze): What => ({ kind: 'look', gaze })),
    },
    { weight: 1, arbitrary: fc.constant<What>({ kind: 'free' }) },
    { weight: 1, arbitrary: fc.constant<What>({ kind: 'stay' }) },
  ),
}

const idOn = (layer: Layer) =>
  fc.constantFrom(...vocabulary.moves.filter((m) => m.layer === layer).map(({ id }) => id))

/** Forms for other levels: moves, anything else of the layer, nothing. */
const formsOn = (layer: Layer): fc.Arbitrary<readonly EventForm[]> =>
  fc.array(
    fc.oneof(
      ...(layer === 'legs' ? [] : [idOn(layer).map((move): EventForm => ({ move }))]),
      ownWhat[layer].filter(({ kind }) => kind !== 'share').map((what): EventForm => ({ what })),
      fc.constant<EventForm>({ none: true }),
    ),
    { minLength: 1, maxLength: 3 },
  )

const words = fc.constantFrom(
  'back\\slash; "quoted" # and more',
  'two\nlines',
  'step right',
  'Left arm, then RIGHT',
  'all right',
  'say "right" on L',
  'R to L',
  'brighter',
)

const leaves = fc.array(
  fc.record({ code: fc.constantFrom('move.needs', 'feet.loaded', 'arms.far'), because: words }),
  { minLength: 1, maxLength: 2 },
)

const event = (counts: number, pickup: number): fc.Arbitrary<Omit<Event, 'id'>> =>
  fc.constantFrom(...LAYERS).chain((layer) =>
    fc
      .record({
        at: fc.oneof(
          fc.integer({ min: -pickup * 4, max: counts * 4 - 1 }).map((quarter) => quarter * 3),
          fc.integer({ min: -pickup * 12, max: counts * 12 - 1 }),
        ),
        // Half of what is written has no length: it lasts as it is danced.
        length: maybe(fc.constantFrom(1, 3, 4, 6, 7, 9, 12, 24, 48)),
        kept: maybe(fc.constant(true as const)),
        optional: rarely(fc.constant(true as const)),
        on: rarely(fc.constant(true as const)),
        either: rarely(fc.constant(true as const)),
        held: rarely(fc.constantFrom(3, 6, 7, 12, 18, 36).map(tick)),
        rate: rarely(fc.constantFrom(0.5, 2, 3)),
        size: rarely(fc.integer({ min: 10, max: 300 })),
        as: rarely(words),
        easier: rarely(formsOn(layer)),
        harder: rarely(formsOn(layer)),
        cue: rarely(fc.oneof(words, fc.constant('ribs | hips | lift'))),
        note: rarely(words),
        words: rarely(words),
        leave: rarely(leaves),
        what: fc
          .boolean()
          .chain((pick) => (pick || layer === 'legs' ? ownWhat[layer] : moveWhat(layer))),
      })
      .map(({ at, length: written, size, what, held, either, ...rest }) => {
        const isHeld = held !== undefined && canBeHeld(what)
        // A turn is shared over the counts that are written.
        const length = written ?? (what.kind === 'share' ? 36 : undefined)
        return compact({
          ...rest,
          layer,
          at: tick(at),
          length: length === undefined ? undefined : tick(Math.min(length, counts * 12 - at)),
          what,
          ...(what.kind !== 'foot' && { size }),
          ...(isHeld && { held }),
          ...(kindOf(what).side(what) && { either }),
        })
      }),
  )

const comment = fc.constantFrom('the left hand leads', 'slow first', 'R before L', '')
/** What somebody typed and nobody could read, as it is kept. */
const strange = fc.record({
  line: fc.constantFrom<Layer>(...LAYERS),
  text: fc.constantFrom('3 stepp R', '1 hip-drpo L', 'twice as fast', '<8 hopp', '2&  kik right'),
})

const countCalls: fc.Arbitrary<CountCalls> = fc
  .record({
    says: fc.constantFrom('numbers' as const, 'words' as const, 'names' as const, 'none' as const),
    counts: maybe(fc.uniqueArray(fc.integer({ min: 1, max: 16 }), { minLength: 1, maxLength: 4 })),
  })
  .map(({ says, counts }) => ({
    says,
    ...(says === 'numbers' && counts && { counts: counts.sort((a, b) => a - b) }),
  }))

const remark = (counts: number) =>
  fc
    .record({
      kind: fc.constantFrom(...RemarkKind.options),
      at: fc.integer({ min: 0, max: counts * 12 - 1 }),
      length: fc.constantFrom(3, 6, 12, 30),
      text: words,
      breath: fc.constantFrom('in', 'out'),
      for: fc.integer({ min: 0, max: counts * 12 - 1 }),
      hand: maybe(fc.constantFrom<Side>('R', 'L')),
      kept: rarely(fc.constant(true as const)),
      only: rarely(fc.constant(true as const)),
    })
    .map(({ hand, kept, only, breath, for: due, ...one }) => ({
      ...one,
      ...(one.kind === 'prop' && compact({ hand, kept })),
      ...(one.kind === 'say' && compact({ only })),
      ...(one.kind === 'prepare' && { for: tick(due) }),
      ...(one.kind === 'breath' && { text: breath }),
      at: tick(one.at),
      length: tick(Math.min(one.length, counts * 12 - one.at)),
    }))

/** One breath at a time. */
const oneBreath = <R extends { readonly kind: RemarkKind }>(
  remarks: readonly R[],
): readonly R[] => {
  const first = remarks.findIndex(({ kind }) => kind === 'breath')
  return remarks.filter(({ kind }, i) => kind !== 'breath' || i === first)
}

/** What may be danced otherwise, all of it together. */
const option = (counts: number, pickup: number) =>
  fc
    .record({
      name: fc.constantFrom('low', 'far', 'kahiko-2'),
      kind: fc.constantFrom(...OptionKind.options),
      words,
      events: fc.array(event(counts, pickup), { maxLength: 4 }),
      without: rarely(
        fc.array(
          fc
            .record({
              layer: fc.constantFrom(...LAYERS),
              at: fc.integer({ min: 0, max: counts * 12 - 1 }),
              length: maybe(fc.constantFrom(1, 6, 12, 48)),
            })
            .map(({ layer, at, length }) =>
              compact({
                layer,
                at: tick(at),
                length: length && tick(Math.min(length, counts * 12 - at)),
              }),
            ),
          { minLength: 1, maxLength: 2 },
        ),
      ),
    })
    .map((one) => compact(one))

const phrase = (index: number, pickup: number): fc.Arbitrary<Phrase> =>
  fc.integer({ min: Math.max(1, pickup), max: 10 }).chain((counts) =>
    fc
      .record({
        title: rarely(words),
        commented: rarely(fc.array(comment, { minLength: 1, maxLength: 3 })),
        strange: rarely(fc.array(strange, { minLength: 1, maxLength: 3 })),
        options: rarely(
          fc.uniqueArray(option(counts, pickup), {
            minLength: 1,
            maxLength: 2,
            selector: ({ name }) => name,
          }),
        ),
        events: fc.array(event(counts, pickup), { maxLength: 14 }),
        call: rarely(countCalls),
        from: rarely(fc.integer({ min: 2, max: 16 })),
        remarks: rarely(fc.array(remark(counts), { minLength: 1, maxLength: 3 })),
        facings: rarely(
          fc.array(
            fc.record({
              at: fc.integer({ min: 0, max: counts - 1 }).map((count) => tick(count * 12)),
              degrees: fc.constantFrom(-90, 0, 22.5, 180, 720),
            }),
            { minLength: 1, maxLength: 2 },
          ),
        ),
      })
      .map(({ title, call, from, events, remarks, facings, commented, strange, options }) => {
        // A comment stands before a line that is written.
        const lines = ['phrase', ...LAYERS.filter((layer) => events.some((e) => e.layer === layer))]
        const comments = commented
          ?.map((text, i) => ({ before: lines[(i * 2) % lines.length] ?? 'phrase', text }))
          .sort((a, b) => lines.indexOf(a.before) - lines.indexOf(b.before))
        return compact({
          id: `p${index}`,
          name: String.fromCharCode(65 + index),
          title: title?.replace(/\n/g, ' ') ?? '',
          counts,
          from,
          call,
          events: events.map((e, i) => ({ ...e, id: `p${index}e${i}` })),
          remarks:
            remarks && oneBreath(remarks).map((one, i) => ({ ...one, id: `p${index}r${i}` })),
          facings,
          options: options?.map((one) => ({
            ...one,
            events: one.events.map((e, i) => ({ ...e, id: `p${index}${one.name}${i}` })),
          })),
          comments,
          unread: strange,
        })
      }),
  )

/**
 * Combinations of one to three phrases, written at random, faults, clashes and all; some of them
 * have come through edits, or have their fields in another order.
 */
export const anyCombination = (options: { kept?: boolean } = {}): fc.Arbitrary<Combination> =>
  fc
    .tuple(
      writtenCombination(options),
      fc.oneof(
        { weight: 3, arbitrary: fc.constant([]) },
        { weight: 2, arbitrary: fc.array(anyEdit, { minLength: 1, maxLength: 5 }) },
      ),
      rarely(fc.constant(true)),
      rarely(anyLike),
    )
    .map(([written, edits, isReordered, like]) => {
      // Plain objects, as they come from a file: the generator's own have no prototype.
      const plain = JSON.parse(JSON.stringify(written)) as Combination
      const alike = like ? withLike(plain, like) : plain
      const edited = edits.reduce((one, edit) => followed(one, edit(one)), alike)
      return isReordered ? reordered(edited) : edited
    })

const anyLike = fc.record({
  mirrored: fc.option(fc.constant(true as const), { nil: undefined }),
  counts: fc.option(fc.record({ from: fc.integer({ min: 1, max: 4 }), more: fc.nat(4) }), {
    nil: undefined,
  }),
  pace: fc.constantFrom(undefined, undefined, 2 as const, 0.5 as const),
  chain: fc.boolean(),
  change: fc.nat(100),
})
type AnyLike = typeof anyLike extends fc.Arbitrary<infer T> ? T : never

/** The second phrase like the first one, and the third like that; one thing taken out, one changed. */
function withLike(combination: Combination, wanted: AnyLike): Combination {
  const { mirrored, counts, pace, chain, change } = wanted
  const phrases = [...combination.phrases]
  for (const index of chain ? [1, 2] : [1]) {
    const [source, phrase] = [phrases[index - 1], phrases[index]]
    if (!source || !phrase) break
    const from = Math.min(counts?.from ?? 1, source.counts)
    const like = compact({
      phrase: source.id,
      mirrored,
      counts: counts && { from, to: Math.min(source.counts, from + counts.more) },
      pace: index === 1 ? pace : undefined,
    })
    const long = Math.min(16, countsOfLike(like, source))
    const made = likeOf(source, { id: phrase.id, like, counts: long }, combination)
    if (!made) break
    const events = made.events
      .filter((_, i) => i !== change % 5)
      .map((event, i) => (i === change % 3 ? compact({ ...event, cue: 'now' }) : event))
    const { remarks: _, facings: __, pickup: ___, options: ____, ...rest } = phrase
    phrases[index] = { ...rest, ...made, events, counts: long, like }
  }
  const order = combination.order.map(({ options, ...entry }) => ({
    ...entry,
    ...optionsOf(
      phrases.find(({ id }) => id === entry.phrase),
      options,
    ),
  }))
  return { ...combination, phrases, order }
}

/** The same as somebody wrote it in one go. */
const writtenCombination = ({ kept = true } = {}): fc.Arbitrary<Combination> =>
  fc
    .record({
      phrases: fc
        .record({
          n: fc.integer({ min: 1, max: 3 }),
          pickup: fc.constantFrom(0, 0, 0, 1, 2),
          own: fc.constantFrom(0, 0, 0, 1, 2),
        })
        .chain(({ n, pickup, own }) =>
          fc.tuple(
            fc.constant(pickup),
            ...Array.from({ length: n }, (_, i) => phrase(i, i === 0 ? pickup : own)),
          ),
        ),
      each: fc.boolean(),
      title: words,
      tempo: fc.integer({ min: 40, max: 220 }),
      more: fc.record({
        dancers: rarely(fc.constantFrom(...DancerLevel.options)),
        rest: rarely(fc.integer({ min: 1, max: 16 })),
        keepTurns: rarely(fc.constant(true as const)),
        once: rarely(fc.constant(true as const)),
        call: rarely(countCalls),
        rules: rarely(
          fc.array(
            fc.oneof(
              side.map((way): OwnRule => ({ kind: 'turns', way })),
              fc.record({
                kind: fc.constant('step' as const),
                foot: side,
                direction: fc.constantFrom(...Direction.options),
              }),
              fc.constantFrom(...LAYERS).map((layer): OwnRule => ({ kind: 'stays', layer })),
            ),
            { minLength: 1, maxLength: 2 },
          ),
        ),
        teachTempo: maybe(fc.integer({ min: 40, max: 220 })),
        song: rarely(words),
        by: rarely(words),
        leave: rarely(leaves),
        variantOf: rarely(words),
        tags: rarely(fc.uniqueArray(words, { minLength: 1, maxLength: 3 })),
        families: fc.uniqueArray(fc.constantFrom(...FAMILIES, 'temple-dance')),
      }),
      again: fc.array(
        fc.record({
          which: fc.nat(2),
          mirrored: fc.boolean(),
          picked: rarely(
            fc.uniqueArray(fc.constantFrom('in-place', 'front', 'low', 'far'), {
              minLength: 1,
              maxLength: 2,
            }),
          ),
        }),
        { maxLength: 3 },
      ),
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
      facing: fc.constantFrom(0, 45, -90, 112.5, 180),
      partner: rarely(fc.constantFrom(...PartnerPlace.options)),
    })
    .map(({ phrases: [pickup, ...phrases], each, again, lead, title, tempo, more, ...start }) => ({
      kind: 'combination' as const,
      schemaVersion: SCHEMA_VERSION,
      id: 'generated',
      title,
      tempo,
      ...(pickup > 0 && { pickup: { counts: pickup, each } }),
      ...compact({
        level: more.dancers,
        rest: more.rest,
        keepTurns: kept ? more.keepTurns : undefined,
        once: more.once,
        call: more.call,
        rules: more.rules,
        song: more.song,
        by: more.by,
        leave: more.leave,
        variantOf: more.variantOf,
        tags: more.tags,
        families: more.families,
        teachTempo: more.teachTempo,
      }),
      lead,
      start: compact(start),
      phrases: kept ? phrases : phrases.map(withoutKept),
      order: [
        ...phrases.map(({ id }) => ({ phrase: id, mirrored: false })),
        ...again.map(({ which, mirrored, picked }) => ({
          phrase: phrases[which % phrases.length]?.id ?? 'p0',
          mirrored,
          ...optionsOf(phrases[which % phrases.length], picked),
          // Here and there the loop begins, sometimes in two places.
          ...(which % 5 === 0 && { loops: true as const }),
        })),
      ],
    }))

/** Of some options those a phrase has. */
function optionsOf(phrase: Phrase | undefined, picked: readonly string[] = []) {
  const own = phrase?.options?.map(({ name }) => name) ?? []
  const options = picked.filter(
    (name) => own.includes(name) || ANY_OPTIONS.some((one) => one === name),
  )
  return options.length > 0 ? { options } : {}
}

const withoutKept = (phrase: Phrase): Phrase => ({
  ...phrase,
  events: phrase.events.map(({ kept: _, ...event }) => event),
  ...(phrase.options && {
    options: phrase.options.map((one) => ({
      ...one,
      events: one.events.map(({ kept: _, ...event }) => event),
    })),
  }),
})
