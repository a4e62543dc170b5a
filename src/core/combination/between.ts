import { z } from 'zod'
import { Side } from '../body/side'
import { Tick, TickLength } from '../time/time'
import { Leave } from './leaving'
import { CENTRE, PartId } from './whose'

/** A hand of a part. */
export const Hand = z.object({ part: PartId, side: Side }).readonly()
export type Hand = z.infer<typeof Hand>

/** Places of a body that a hand of a partner may be laid on. */
export const SpotName = z.enum([
  'shoulder',
  'elbow',
  'wrist',
  'waist',
  'back',
  'head',
  'hip',
  'knee',
  'foot',
])
export type SpotName = z.infer<typeof SpotName>

/** A place of a partner's body; the nearer side where none is said. */
const Spot = z.object({ part: PartId, on: SpotName, side: Side.optional() }).readonly()

/** What is met: a place of the body, or a hand; the place first, since it may have a side too. */
const Met = z.union([Spot, Hand])
export type Met = z.infer<typeof Met>
export const isHand = (met: Met): met is Hand => !('on' in met)

/** How hands touch; near passes without contact, and what is held in them strikes. */
export const TouchAs = z.enum(['palm', 'back', 'fingers', 'near', 'strike'])
export type TouchAs = z.infer<typeof TouchAs>
/** How a hand holds. */
export const Grip = z.enum(['palm', 'fingers', 'wrist', 'flat'])
export type Grip = z.infer<typeof Grip>
/** How high two hands are held. */
export const HoldHeight = z.enum(['low', 'waist', 'chest', 'shoulder', 'overhead'])
export type HoldHeight = z.infer<typeof HoldHeight>
/** How a turn goes through a hold: under the raised hands, or with the arm round the body. */
export const Through = z.enum(['over', 'round'])
export type Through = z.infer<typeof Through>
/** Where one stands as another one sees it. */
export const Relation = z.enum(['behind', 'before', 'left', 'right', 'facing', 'back-to-back'])
export type Relation = z.infer<typeof Relation>

/** Metres between two middles. */
const Apart = z.number().min(0.2).max(6)

const Touch = z.object({ kind: z.literal('touch'), from: Hand, to: Met, as: TouchAs }).readonly()
const Hold = z
  .object({
    kind: z.literal('hold'),
    from: Hand,
    to: Met,
    grip: Grip,
    height: HoldHeight.optional(),
    through: Through.optional(),
  })
  .readonly()
const Place = z
  .object({
    kind: z.literal('place'),
    of: PartId,
    rel: Relation,
    to: z.union([z.literal(CENTRE), PartId]),
    apart: Apart.optional(),
  })
  .readonly()
const Orbit = z
  .object({
    kind: z.literal('orbit'),
    of: PartId,
    round: PartId,
    /** Clockwise from above. */
    degrees: z
      .int()
      .min(-1080)
      .max(1080)
      .refine((degrees) => degrees !== 0, 'goes nowhere'),
    apart: Apart.optional(),
    /** Where her chest looks all the way: to the other one, away, or along her way. */
    face: z.enum(['in', 'out', 'along']).optional(),
  })
  .readonly()
const Support = z
  .object({
    kind: z.literal('support'),
    by: PartId,
    of: PartId,
    /** Per cent of her weight. */
    share: z.int().min(5).max(60),
  })
  .readonly()
/** A turn that a partner's hand leads; its degrees stand in her feet. */
const Led = z.object({ kind: z.literal('led'), of: PartId, by: Hand }).readonly()
const Look = z
  .object({
    kind: z.literal('look'),
    a: PartId,
    b: PartId,
    /** Only the first one looks; else their eyes meet. */
    oneWay: z.literal(true).optional(),
  })
  .readonly()
/** What one holds goes over into the other one's hand. */
const PassOn = z
  .object({ kind: z.literal('pass'), prop: z.string().min(1), from: Hand, to: Hand })
  .readonly()
const Wait = z.object({ kind: z.literal('wait'), of: z.array(PartId).min(1).readonly() }).readonly()

/** What two dancers do with each other, or one waits through. */
export const Meeting = z.discriminatedUnion('kind', [
  Touch,
  Hold,
  Place,
  Orbit,
  Support,
  Led,
  Look,
  PassOn,
  Wait,
])
export type Meeting = z.infer<typeof Meeting>
export type MeetingOf<K extends Meeting['kind']> = Extract<Meeting, { kind: K }>

/** Meetings of a hand with something: it holds, touches, or gives what it has. */
export type OfHands = MeetingOf<'hold'> | MeetingOf<'touch'> | MeetingOf<'pass'>
export const isOfHands = (what: Meeting): what is OfHands =>
  what.kind === 'hold' || what.kind === 'touch' || what.kind === 'pass'

/** A meeting and when it is, in ticks from the start of its phrase. */
export const Between = z
  .object({
    id: z.string().min(1),
    at: Tick,
    length: TickLength,
    what: Meeting,
    /** Stays as written when the combination is mirrored. */
    kept: z.literal(true).optional(),
    cue: z.string().min(1).optional(),
    note: z.string().min(1).optional(),
    leave: z.array(Leave).min(1).readonly().optional(),
  })
  .readonly()
export type Between = z.infer<typeof Between>

/** The parts a meeting names, the one it is written of first. */
export function partsIn(what: Meeting): readonly PartId[] {
  switch (what.kind) {
    case 'touch':
    case 'hold':
    case 'pass':
      return [what.from.part, what.to.part]
    case 'place':
      return what.to === CENTRE ? [what.of] : [what.of, what.to]
    case 'orbit':
      return [what.of, what.round]
    case 'support':
      return [what.of, what.by]
    case 'led':
      return [what.of, what.by.part]
    case 'look':
      return [what.a, what.b]
    case 'wait':
      return what.of
  }
}
