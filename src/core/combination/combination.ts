import { z } from 'zod'
import { Layer } from '../body/layers'
import { Side } from '../body/side'
import { Family, OwnMove } from '../moves/move'
import { clampTempo, Tempo } from '../time/tempo'
import { MOST_PHRASE_COUNTS, TICKS_PER_COUNT, Tick, TickLength, tick } from '../time/time'
import { kindOf, What } from '../what/kinds'
import { Between, isOfHands, partsIn } from './between'
import { FEATURES_OF, MOST_PROPS, Prop, PropAct } from './carried'
import { EventForms } from './forms'
import { Leave } from './leaving'
import { Pace } from './pace'
import { MOST_PARTS, Part } from './part'
import { CountCalls, Remark } from './remark'
import { OwnRule } from './rules'
import { defaultStart, Start } from './start'
import { areVoices, Voice } from './voice'
import { SOLO, Who } from './whose'

export const SCHEMA_VERSION = 8

/** A combination has up to 256 counts (model 1). */
export const MOST_COUNTS = 256
/** As many phrases as there are counts, and more moves in a phrase than anybody dances. */
export const MOST_PHRASES = 256
export const MOST_EVENTS = 400

/** Ways to dance any phrase, besides its own options: all on the spot, all to the front, all of it twice. */
export const ANY_OPTIONS = ['in-place', 'front', 'double'] as const

/** Who it is for (model 8). */
export const DancerLevel = z.enum(['new', 'improver', 'intermediate', 'advanced'])
export type DancerLevel = z.infer<typeof DancerLevel>
/** What is meant where no level is written. */
export const USUAL_LEVEL: DancerLevel = 'intermediate'

export const Event = z
  .object({
    id: z.string().min(1),
    layer: Layer,
    /** From the start of the phrase; negative in the pickup, which is danced before count 1. */
    at: Tick,
    /** Ticks, where a range is written; else it is worked out as it is danced (`dancedIn`). */
    length: TickLength.optional(),
    what: What,
    /** Who dances it, where not all do. */
    who: Who.optional(),
    /** Stays as written when the combination is mirrored. */
    kept: z.literal(true).optional(),
    /** Her partner carries a part of her weight in it. */
    supported: z.literal(true).optional(),
    /** Danced on the lead's side, and as good on the other one. */
    either: z.literal(true).optional(),
    /** A flourish that a level may drop. */
    optional: z.literal(true).optional(),
    /** Already there on its tick: a place or a look that is reached before, not within. */
    on: z.literal(true).optional(),
    /** Held for so many ticks, to the end of its phrase at the most, and then back where it was before. */
    held: Tick.refine((ticks) => ticks > 0, 'is held for no time').optional(),
    /** Per cent of the move's own size. */
    size: z.int().min(10).max(300).optional(),
    /** Cycles a count, for textures and circles. */
    rate: z.number().positive().max(12).optional(),
    /** What this one is called here. */
    as: z.string().min(1).optional(),
    /** The forms lower and higher levels dance instead. */
    easier: EventForms.optional(),
    harder: EventForms.optional(),
    cue: z.string().min(1).optional(),
    note: z.string().min(1).optional(),
    /** The lyric word it goes with, or what the gesture says. */
    words: z.string().min(1).optional(),
    leave: z.array(Leave).min(1).readonly().optional(),
  })
  .refine(({ layer, what }) => kindOf(what).layers.includes(layer), {
    message: 'does not belong to this layer',
    path: ['layer'],
  })
  .refine(
    ({ layer, easier = [], harder = [] }) =>
      [...easier, ...harder].every(
        (form) =>
          !('what' in form) ||
          (form.what.kind !== 'share' && kindOf(form.what).layers.includes(layer)),
      ),
    { message: 'has a form that does not belong to this layer', path: ['easier'] },
  )
  .refine(({ what, either }) => !either || kindOf(what).side(what) !== undefined, {
    message: 'has no side that could be either',
    path: ['either'],
  })
  .refine(({ what, length }) => what.kind !== 'share' || length !== undefined, {
    message: 'shares a turn over no counts',
    path: ['length'],
  })
  .readonly()
export type Event = z.infer<typeof Event>

/** What a phrase has from another one: all of it but what is written otherwise. */
const Like = z
  .object({
    /** The id of the other phrase. */
    phrase: z.string().min(1),
    mirrored: z.literal(true).optional(),
    /** Some counts of the other one, from 1. */
    counts: z
      .object({ from: z.int().min(1), to: z.int().max(MOST_PHRASE_COUNTS) })
      .refine(({ from, to }) => from <= to, 'ends before it begins')
      .readonly()
      .optional(),
    pace: Pace.optional(),
  })
  .readonly()
export type Like = z.infer<typeof Like>

/** A facing that is written down to be checked against the sum of the turns. */
export const WrittenFacing = z
  .object({ at: Tick, degrees: z.number().multipleOf(0.5), who: Who.optional() })
  .readonly()
export type WrittenFacing = z.infer<typeof WrittenFacing>

/** What the sheet said that could not be read: it is kept as typed, never thrown away. */
export const Unread = z.object({ line: z.string().optional(), text: z.string().min(1) }).readonly()
export type Unread = z.infer<typeof Unread>

/** A comment of the sheet, and the word of the line it stands before; at the end where there is none. */
export const Comment = z.object({ before: z.string().optional(), text: z.string() }).readonly()
export type Comment = z.infer<typeof Comment>

/** Counts of a layer on which nothing of what is written there is danced. */
export const LeftOut = z
  .object({
    layer: Layer,
    at: Tick,
    /** Ticks, where a range is written; else those of its slot. */
    length: TickLength.optional(),
  })
  .readonly()
export type LeftOut = z.infer<typeof LeftOut>

/** Easier or harder, a matter of taste, or of the room there is. */
export const OptionKind = z.enum(['easier', 'harder', 'taste', 'room'])
export type OptionKind = z.infer<typeof OptionKind>

/** What may be danced otherwise in a phrase, all of it together. */
export const Option = z
  .object({
    /** Letters, digits, hyphen: `low`. */
    name: z
      .string()
      .regex(/^[\p{L}\p{N}-]+$/u)
      .refine((name) => !ANY_OPTIONS.some((one) => one === name), 'is what any phrase may be'),
    kind: OptionKind,
    /** What the page says: `back half only`. */
    words: z.string().min(1),
    /** Each takes the place of what begins on its layer within its own counts. */
    events: z.array(Event).max(MOST_EVENTS).readonly(),
    without: z.array(LeftOut).min(1).readonly().optional(),
  })
  .readonly()
export type Option = z.infer<typeof Option>

export const Phrase = z
  .object({
    id: z.string().min(1),
    /** Letters, digits, hyphen: `A`. */
    name: z.string().regex(/^[\p{L}\p{N}-]+$/u),
    title: z.string(),
    counts: z.int().min(1).max(MOST_PHRASE_COUNTS),
    /** What its first count is called, where that is not 1: `4 from 5` has 5 6 7 8. */
    from: z.int().min(2).max(MOST_PHRASE_COUNTS).optional(),
    /** Counts before its first one that are kept free for a pickup, where nothing is written so early. */
    pickup: z.int().min(1).max(MOST_PHRASE_COUNTS).optional(),
    /** It goes on as another phrase does, wherever it is the same now. */
    like: Like.optional(),
    /** Said on its counts, otherwise than on those of the combination. */
    call: CountCalls.optional(),
    events: z.array(Event).max(MOST_EVENTS, `${MOST_EVENTS} moves are the most`).readonly(),
    remarks: z.array(Remark).readonly().optional(),
    /** What two of several dancers do with each other. */
    between: z.array(Between).min(1).max(MOST_EVENTS).readonly().optional(),
    /** Parts that dance in it what another one dances, later or as its image. */
    voices: z.array(Voice).min(1).max(MOST_PARTS).readonly().optional(),
    /** What is done with what is carried. */
    props: z.array(PropAct).min(1).max(MOST_EVENTS).readonly().optional(),
    facings: z.array(WrittenFacing).readonly().optional(),
    options: z.array(Option).min(1).readonly().optional(),
    comments: z.array(Comment).readonly().optional(),
    unread: z.array(Unread).readonly().optional(),
  })
  .refine(
    ({ counts, events, remarks = [], between = [], props = [], options = [] }) =>
      [...events, ...remarks, ...between, ...props, ...options.flatMap(everythingIn)].every(
        (e) => e.at + (e.length ?? 1) <= counts * TICKS_PER_COUNT,
      ) && remarks.every(({ for: due = 0 }) => due < counts * TICKS_PER_COUNT),
    { message: 'something runs past the end of its phrase', path: ['events'] },
  )
  .refine(({ pickup = 0, counts }) => pickup <= counts, {
    message: 'is longer than its phrase',
    path: ['pickup'],
  })
  .refine(({ options = [] }) => unique(options.map(({ name }) => name)), {
    message: 'has two options of the same name',
    path: ['options'],
  })
  .readonly()
export type Phrase = z.infer<typeof Phrase>

/** One dancing of a phrase. `mirrored` is the phrase from its other side. */
const OrderEntry = z
  .object({
    phrase: z.string(),
    mirrored: z.boolean(),
    /** Options it is danced with: of its own, or what any phrase may be. */
    options: z.array(z.string().min(1)).min(1).readonly().optional(),
    /** What stands before it is danced once: every later round begins here. */
    loops: z.literal(true).optional(),
  })
  .readonly()

const everythingIn = ({ events, without = [] }: Option) => [...events, ...without]

/** Whether what a phrase is like leads to one that stands by itself. */
function endsWithOne(id: string, phrases: readonly Phrase[]): boolean {
  const seen = new Set<string>()
  for (let at: string | undefined = id; at !== undefined; ) {
    const phrase = phrases.find((one) => one.id === at)
    if (!phrase || seen.has(at)) return false
    seen.add(at)
    at = phrase.like?.phrase
  }
  return true
}

const unique = (ids: readonly string[]) => new Set(ids).size === ids.length

/** What the things of a phrase hang on. */
type Danced = Pick<Combination, 'parts' | 'carried'>

/** What makes no sense in a phrase of a combination that has these parts and things. */
function wrongWith(
  { events, remarks = [], facings = [], between = [], voices, props = [], options = [] }: Phrase,
  { parts = [], carried = [] }: Danced,
): string | undefined {
  const dancers = new Map(parts.map(({ id, at }) => [id, at.length]))
  const named = [
    ...events,
    ...remarks,
    ...facings,
    ...props,
    ...options.flatMap((one) => one.events),
  ]
  if (props.some(({ prop }) => !carried.some(({ id }) => id === prop)))
    return 'is done with a thing nobody carries'
  if (voices?.some(({ part, of }) => !dancers.has(part) || !dancers.has(of)))
    return 'follows an unknown part'
  if (voices && !areVoices(voices)) return 'follows in a circle'
  if (named.some(({ who = [] }) => who.some((id) => id !== SOLO && !dancers.has(id))))
    return 'is for an unknown part'
  if (parts.length === 0 && named.some(({ who }) => who))
    return 'is for somebody, and there are no parts'
  for (const { what } of between) {
    const met = partsIn(what)
    if (met.some((id) => !dancers.has(id))) return 'meets an unknown part'
    if (!unique(met)) return 'meets itself'
    if (what.kind === 'pass' && !carried.some(({ id }) => id === what.prop))
      return 'passes a thing nobody carries'
    if (isOfHands(what) && dancers.get(met[0] ?? '') !== dancers.get(met[1] ?? ''))
      return 'has more dancers on one end than on the other'
    const [one, other] = met.map((id) => parts.find((part) => part.id === id)?.delay)
    if (isOfHands(what) && one !== other) return 'is between two who do not dance at the same time'
  }
  return undefined
}

/** What a combination is made of, whether or not it makes sense together. */
const Made = z.object({
  kind: z.literal('combination'),
  schemaVersion: z.literal(SCHEMA_VERSION),
  id: z.string().min(1),
  title: z.string(),
  families: z.array(Family).readonly(),
  tempo: Tempo,
  /** The slower one it is taught at, where that was said; else `teachTempoOf`. */
  teachTempo: Tempo.optional(),
  lead: Side,
  start: Start,
  /** What each of several dancers dances; absent for one who dances alone. */
  parts: z.array(Part).min(2).max(MOST_PARTS).readonly().optional(),
  /** On the other side each of two dances the other one's part. */
  swapRoles: z.literal(true).optional(),
  /** What is held in the hands or worn. */
  carried: z.array(Prop).min(1).max(MOST_PROPS).readonly().optional(),
  phrases: z.array(Phrase).min(1).max(MOST_PHRASES).readonly(),
  /** The phrases as they are danced, one after another. */
  order: z.array(OrderEntry).min(1).readonly(),
  /** Danced before count 1 of the first round, or with `each` before every round. */
  pickup: z
    .object({ counts: z.int().min(1).max(MOST_PHRASE_COUNTS), each: z.boolean() })
    .readonly()
    .optional(),
  level: DancerLevel.optional(),
  /** Counts of stillness between two rounds. */
  rest: z.int().min(1).max(64).optional(),
  /** House rule: turns keep their direction on the other side. */
  keepTurns: z.literal(true).optional(),
  /** Danced once: nothing has to join its beginning. */
  once: z.literal(true).optional(),
  /** What is said on its counts; numbers where it is not given. */
  call: CountCalls.optional(),
  /** What the instructor holds it to herself. */
  rules: z.array(OwnRule).min(1).readonly().optional(),
  song: z.string().min(1).optional(),
  by: z.string().min(1).optional(),
  tags: z.array(z.string().min(1)).min(1).readonly().optional(),
  /** Findings about all of it that are left as they are. */
  leave: z.array(Leave).min(1).readonly().optional(),
  /** The combination this is the easier or harder form of. */
  variantOf: z.string().min(1).optional(),
  /** Own moves used here, so that a file can be read anywhere. */
  moves: z.array(OwnMove).min(1).readonly().optional(),
  comments: z.array(Comment).readonly().optional(),
  unread: z.array(Unread).readonly().optional(),
})

/** One that is danced, not kept: what was laid together of several has names twice. */
export const DancedCombination = Made.readonly()

export const Combination = Made.superRefine(
  ({ phrases, order, pickup, parts, swapRoles, carried }, context) => {
    const refuse = (path: string, message: string) =>
      context.addIssue({ code: 'custom', path: [path], message })
    if (!unique(phrases.map((p) => p.id))) refuse('phrases', 'two phrases have the same id')
    if (!unique(phrases.map((p) => p.name))) refuse('phrases', 'two phrases have the same name')
    if (
      !unique(
        phrases.flatMap((p) =>
          [
            ...p.events,
            ...(p.remarks ?? []),
            ...(p.between ?? []),
            ...(p.props ?? []),
            ...(p.options ?? []).flatMap(({ events }) => events),
          ].map((e) => e.id),
        ),
      )
    )
      refuse('phrases', 'two events have the same id')
    const first = phrases.find((p) => p.id === order[0]?.phrase)
    if (pickup && first && pickup.counts > first.counts)
      refuse('pickup', 'is longer than the first phrase')
    for (const phrase of phrases) {
      const earliest = -phrase.counts * TICKS_PER_COUNT
      const { events, remarks = [], between = [], props = [], options = [] } = phrase
      const all = [...events, ...remarks, ...between, ...props, ...options.flatMap(everythingIn)]
      if (all.some((e) => e.at < earliest))
        refuse('phrases', `something in ${phrase.name} starts before the phrase`)
    }
    if (swapRoles && parts?.length !== 2) refuse('swapRoles', 'needs exactly two parts')
    if (parts && !unique(parts.map(({ id }) => id))) refuse('parts', 'two parts have the same id')
    for (const phrase of phrases) {
      const wrong = wrongWith(phrase, { parts, carried })
      if (wrong) refuse('phrases', `something in ${phrase.name} ${wrong}`)
    }
    if (carried && !unique(carried.map(({ id }) => id)))
      refuse('carried', 'two things have the same name')
    for (const { id, kind, part, start } of carried ?? []) {
      const held = [start.hands.R, start.hands.L].flatMap((hand) => hand?.at ?? [])
      if (part !== undefined && !parts?.some((one) => one.id === part))
        refuse('carried', `${id} is carried by an unknown part`)
      if (held.some((at) => !FEATURES_OF[kind].includes(at)))
        refuse('carried', `${id} is held where a ${kind} has nothing to hold`)
    }
    for (const { id, name, like } of phrases)
      if (like && !endsWithOne(id, phrases)) refuse('phrases', `${name} is like no phrase there is`)
    for (const { phrase, options = [] } of order) {
      const own = phrases.find(({ id }) => id === phrase)?.options ?? []
      const known = [...own.map(({ name }) => name), ...ANY_OPTIONS]
      if (!unique(options) || options.some((name) => !known.some((one) => one === name)))
        refuse('order', 'names an unknown option')
    }
    const counts = new Map(phrases.map((p) => [p.id, p.counts]))
    if (order.some((entry) => !counts.has(entry.phrase))) refuse('order', 'names an unknown phrase')
    const total = order.reduce((sum, entry) => sum + (counts.get(entry.phrase) ?? 0), 0)
    if (total > MOST_COUNTS) refuse('order', `has ${total} counts, ${MOST_COUNTS} at the most`)
  },
).readonly()
export type Combination = z.infer<typeof Combination>

/** Whether anything is written for a layer. */
export const usesLayer = ({ phrases }: Pick<Combination, 'phrases'>, layer: Layer): boolean =>
  phrases.some(({ events }) => events.some((one) => one.layer === layer))

/**
 * A combination as one side dances it. With `otherTurns` every turn is danced the other way
 * round from how it stands here, and its steps go where that leads: the other side of a
 * combination that keeps its turns (model 6). It is never stored.
 */
export type OneSide = Combination & { readonly otherTurns?: true }

/** What most teach at, as a share of the tempo it is danced at (h). */
const TEACH_SHARE = 2 / 3

/** The tempo it is taught at: as written, or the house share of its own. */
export const teachTempoOf = ({ tempo, teachTempo }: Combination): Tempo =>
  teachTempo ?? clampTempo(tempo * TEACH_SHARE)

export const lengthOf = (phrase: Phrase): Tick => tick(phrase.counts * TICKS_PER_COUNT)

/** An empty combination of one phrase of 8. Ids are given, since core makes none up. */
export const emptyCombination = (id: string, phraseId: string): Combination => ({
  kind: 'combination',
  schemaVersion: SCHEMA_VERSION,
  id,
  title: 'New combination',
  families: ['general'],
  tempo: 96,
  lead: 'R',
  start: defaultStart('R'),
  phrases: [{ id: phraseId, name: 'A', title: '', counts: 8, events: [] }],
  order: [{ phrase: phraseId, mirrored: false }],
})
