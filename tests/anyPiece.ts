import fc from 'fast-check'
import { type Between, type Meeting, Relation, SpotName } from '../src/core/combination/between'
import {
  type Combination,
  type Event,
  type Phrase,
  Combination as Schema,
} from '../src/core/combination/combination'
import type { Part } from '../src/core/combination/part'
import { defaultStart } from '../src/core/combination/start'
import type { Voice } from '../src/core/combination/voice'
import { SOLO, type Who } from '../src/core/combination/whose'
import type { Edit } from '../src/core/edits/edit'
import { forPart } from '../src/core/edits/forPart'
import { danceBy, removePart } from '../src/core/edits/parts'
import { removeAct, removeProp } from '../src/core/edits/props'
import { removeVoice } from '../src/core/edits/voices'
import { tick } from '../src/core/time/time'
import { anyEdit } from './anyEdit'
import { anyCombination } from './arbitraries'
import { withProps } from './withProps'

interface Picks {
  readonly who: readonly number[]
  readonly met: readonly (readonly [number, number, number, number])[]
}

const part = fc.record({
  right: fc.integer({ min: -20, max: 20 }),
  forward: fc.integer({ min: -8, max: 8 }),
  mirrored: fc.constantFrom(undefined, undefined, undefined, true as const),
  lead: fc.constantFrom(undefined, undefined, 'R' as const, 'L' as const),
  hasStart: fc.constantFrom(false, false, true),
  height: fc.constantFrom(undefined, undefined, 1.5, 1.82),
})

/**
 * Combinations for two to four dancers, written at random: what some dance, where each stands, and
 * what they do with each other; some have come through edits of one part's dancing.
 */
export const anyPiece = (options: { kept?: boolean } = {}): fc.Arbitrary<Combination> =>
  fc
    .record({
      combination: anyCombination(options),
      parts: fc.array(part, { minLength: 2, maxLength: 4 }),
      who: fc.array(fc.nat(40), { minLength: 60, maxLength: 60 }),
      met: fc.array(fc.tuple(fc.nat(1000), fc.nat(1000), fc.nat(1000), fc.nat(1000)), {
        maxLength: 6,
      }),
      edits: fc.oneof(
        { weight: 2, arbitrary: fc.constant([]) },
        {
          weight: 1,
          arbitrary: fc.array(fc.tuple(anyEdit, fc.nat(3), fc.boolean()), { maxLength: 4 }),
        },
      ),
      swaps: fc.boolean(),
      later: fc.array(fc.tuple(fc.nat(100), fc.nat(100), fc.nat(40)), { maxLength: 3 }),
      delays: fc.array(fc.constantFrom(0, 0, 0, 0, 6, 12, 24, 28), { minLength: 4, maxLength: 4 }),
      things: fc.oneof(
        { weight: 2, arbitrary: fc.constant([]) },
        { weight: 1, arbitrary: fc.array(fc.nat(1000), { minLength: 1, maxLength: 3 }) },
      ),
      acts: fc.array(fc.tuple(fc.nat(1000), fc.nat(1000), fc.nat(1000), fc.nat(1000)), {
        maxLength: 5,
      }),
      last: fc.nat(12),
    })
    .map((picked) => {
      const { combination, parts, who, met, edits, swaps, later, delays, things, acts, last } =
        picked
      const made = parts.map(
        (one, i): Part => ({
          id: ['1', 'two', '3', 'Four'][i] ?? '',
          name: ['Amber', 'Blue', 'Coral', 'Dusk'][i] ?? '',
          at: [{ right: one.right / 10, forward: one.forward / 10 }],
          ...(one.lead && { lead: one.lead }),
          ...(one.hasStart && {
            start: { ...defaultStart(one.lead ?? 'R'), arms: { R: 'crown', L: 'low' } },
          }),
          ...(one.mirrored && { mirrored: one.mirrored }),
          ...(one.height !== undefined && { height: one.height }),
        }),
      )
      const written = withWho({ ...combination, parts: made }, { who, met })
      const carrying = withProps(withVoices(written, later), { things, acts })
      const piece = withDelays(carrying, delays)
      const whole = swaps && made.length === 2 ? { ...piece, swapRoles: true as const } : piece
      const all = edits as readonly (readonly [Edit, number, boolean])[]
      const through = all.reduce(
        (one, [edit, part, isGiven]) => {
          const id = made[part % made.length]?.id ?? ''
          const events = one.phrases.flatMap((phrase) => phrase.events)
          const given = isGiven
            ? danceBy(
                events.slice(0, 2).map((event) => event.id),
                [id],
              )(one)
            : one
          return forPart(id, edit)(given)
        },
        options.kept === false ? withoutKept(whole) : whole,
      )
      return withLess(through, last)
    })

/** Some have lost something again: a part, a thing, what was done with it, somebody who followed. */
function withLess(piece: Combination, pick: number): Combination {
  const { parts = [], carried = [], phrases } = piece
  const [phrase] = phrases.filter(({ voices }) => voices)
  const [act] = phrases.flatMap(({ props = [] }) => props)
  switch (pick) {
    case 1:
      return parts.length > 2 ? removePart(parts.at(-1)?.id ?? '')(piece) : piece
    case 2:
      return carried[0] ? removeProp(carried[0].id)(piece) : piece
    case 3:
      return act ? removeAct(act.id)(piece) : piece
    case 4:
      return phrase ? removeVoice(phrase.id, phrase.voices?.[0]?.part ?? '')(piece) : piece
    default:
      return piece
  }
}

/** In some phrases some come in later, or as an image. */
function withVoices(
  combination: Combination,
  later: readonly (readonly [number, number, number])[],
): Combination {
  const ids = (combination.parts ?? []).map(({ id }) => id)
  return {
    ...combination,
    phrases: combination.phrases.map((phrase, i): Phrase => {
      // Whom somebody follows stands before her: nobody goes round.
      const voices = later
        .filter((_, k) => k % combination.phrases.length === i)
        .map(([one, other, by]): Voice => {
          const place = 1 + (one % (ids.length - 1))
          return {
            part: ids[place] ?? '',
            of: ids[other % place] ?? '',
            by: tick(by),
            ...(other % 3 === 0 && { mirrored: true }),
          }
        })
      const own = [...new Map(voices.map((voice) => [voice.part, voice])).values()]
      return own.length > 0 ? { ...phrase, voices: own } : phrase
    }),
  }
}

/** Some dance all of it later: those who hold each other at the same time. */
function withDelays(combination: Combination, delays: readonly number[]): Combination {
  const parts = combination.parts?.map((part, i): Part => {
    const ticks = delays[i] ?? 0
    return ticks > 0 ? { ...part, delay: tick(ticks) } : part
  })
  const delayed: Combination = { ...combination, ...(parts && { parts }) }
  return Schema.safeParse(delayed).success ? delayed : combination
}

/** Every meeting is mirrored with its phrase. */
const withoutKept = (combination: Combination): Combination => ({
  ...combination,
  ...(combination.carried && {
    carried: combination.carried.map(({ keepHand: _, ...prop }) => prop),
  }),
  phrases: combination.phrases.map((phrase) => ({
    ...phrase,
    ...(phrase.between && { between: phrase.between.map(({ kept: _, ...one }) => one) }),
    ...(phrase.props && { props: phrase.props.map(({ kept: _, ...one }) => one) }),
  })),
})

/** Some of it for some of them, and meetings. */
function withWho(combination: Combination, { who, met }: Picks): Combination {
  const ids = (combination.parts ?? []).map(({ id }) => id)
  let next = 0
  /** Whom the next thing is for: all of them most of the time. */
  const whoNext = (): Who | undefined => {
    const pick = who[next++ % who.length] ?? 0
    if (pick < 20) return undefined
    if (pick === 40) return [SOLO]
    if (pick === 39) return [ids[0] ?? '', SOLO]
    const named = ids.filter((_, i) => (pick >> i) % 2 === 0)
    return named.length > 0 && named.length < ids.length ? named : [ids[pick % ids.length] ?? '']
  }
  const given = <T extends { readonly who?: Who | undefined }>(one: T): T => {
    const named = whoNext()
    return named ? { ...one, who: named } : one
  }
  return {
    ...combination,
    phrases: combination.phrases.map((phrase, i): Phrase => {
      const between = met
        .filter((_, k) => k % combination.phrases.length === i)
        .map((picks, k) => meeting(picks, phrase, ids, `${phrase.id}m${k}`))
      return {
        ...phrase,
        events: phrase.events.map((event): Event => given(event)),
        ...(phrase.remarks && { remarks: phrase.remarks.map(given) }),
        ...(phrase.facings && { facings: phrase.facings.map(given) }),
        ...(phrase.options && {
          options: phrase.options.map((one) => ({ ...one, events: one.events.map(given) })),
        }),
        ...(between.length > 0 && { between }),
      }
    }),
  }
}

function meeting(
  [kind, one, other, more]: readonly [number, number, number, number],
  { counts }: Phrase,
  ids: readonly string[],
  id: string,
): Between {
  const at = (one * 6) % (counts * 12)
  const length = Math.min(1 + ((other * 6) % 60), counts * 12 - at)
  const a = ids[one % ids.length] ?? ''
  const b = ids[(one + 1 + (other % (ids.length - 1))) % ids.length] ?? ''
  const side = more % 2 === 0 ? ('R' as const) : ('L' as const)
  const from = { part: a, side }
  const on = SpotName.options[more % SpotName.options.length] ?? 'waist'
  const to =
    more % 3 === 0
      ? { part: b, on, ...(more % 2 === 0 && { side }) }
      : { part: b, side: more % 5 === 0 ? ('R' as const) : ('L' as const) }
  const rel = Relation.options[more % Relation.options.length] ?? 'right'
  const all: readonly Meeting[] = [
    {
      kind: 'hold',
      from,
      to,
      grip: 'fingers',
      ...(more % 4 === 0 && { height: 'low', through: 'over' }),
    },
    { kind: 'touch', from, to, as: more % 2 === 0 ? 'palm' : 'near' },
    {
      kind: 'place',
      of: a,
      rel,
      to: more % 7 === 0 ? 'centre' : b,
      ...(more % 2 === 0 && { apart: 0.9 }),
    },
    {
      kind: 'orbit',
      of: a,
      round: b,
      degrees: more % 2 === 0 ? 360 : -180,
      ...(more % 3 === 0 && { face: 'in' }),
    },
    { kind: 'support', by: a, of: b, share: 25 },
    { kind: 'led', of: a, by: { part: b, side } },
    { kind: 'look', a, b, ...(more % 2 === 0 && { oneWay: true }) },
    { kind: 'wait', of: [b] },
  ]
  return {
    id,
    at: tick(at),
    length: tick(length),
    what: all[kind % all.length] as Meeting,
    ...(more % 11 === 0 && { kept: true }),
    ...(more % 9 === 0 && { cue: 'hands', note: 'to the R' }),
  }
}
