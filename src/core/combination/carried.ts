import { z } from 'zod'
import { Side } from '../body/side'
import { oneOf } from '../body/words'
import { Tick, TickLength } from '../time/time'
import { Leave } from './leaving'
import { PartId, Who } from './whose'

/** What is held in the hands or worn (people.md, 6). */
export const PropKind = z.enum(['veil', 'scarf', 'skirt', 'stick', 'fan'])
export type PropKind = z.infer<typeof PropKind>

const FEATURE_WORDS = [
  'top-R',
  'top-L',
  'bottom-R',
  'bottom-L',
  'top',
  'bottom',
  'side-R',
  'side-L',
  'hem-R',
  'hem-L',
  'end',
  'middle',
  'tip',
  'handle',
] as const
/** Where a thing is held: an edge or corner of a cloth, the hem of a skirt, a place of a stick. */
export const Feature = z.enum(FEATURE_WORDS)
export type Feature = z.infer<typeof Feature>

/** How a hand holds it; only a hook leaves the fingers free. */
export const PropGrip = z.enum(['pinch', 'fist', 'split', 'hook'])
export type PropGrip = z.infer<typeof PropGrip>

/** Where a cloth is about the body; `none` for what has no cloth. */
export const Drape = z.enum([
  'none',
  'shoulders',
  'behind',
  'front',
  'overhead',
  'frame',
  'wrap-R',
  'wrap-L',
  'head',
  'air',
  'floor',
])
export type Drape = z.infer<typeof Drape>

/** What has been got ready for something later: `hair-in`, `elbow-in`. */
export const ReadyWord = z.string().regex(/^[a-z][a-z-]{0,30}$/)

/** One hand on a thing: where, and how. Two edges in one hand are apart. */
export const OnProp = z
  .object({ at: z.array(Feature).min(1).max(2).readonly(), grip: PropGrip })
  .readonly()
export type OnProp = z.infer<typeof OnProp>

/** How a thing is held and where it is. */
export const Carried = z
  .object({
    hands: z.object({ R: OnProp.optional(), L: OnProp.optional() }).readonly(),
    drape: Drape,
    /** Closed where false: a fan, a folded cloth. */
    open: z.boolean(),
    /** Half turns it is wound round the body. */
    wound: z.int().min(0).max(8),
    ready: z.array(ReadyWord).readonly(),
  })
  .readonly()
export type Carried = z.infer<typeof Carried>

const Metres = z.number().positive().max(12)

/** A thing that is carried. */
export const Prop = z
  .object({
    /** As the sheet names it: `veil`, `stick-2`. */
    id: z.string().regex(/^[\p{L}\p{N}-]{1,20}$/u),
    kind: PropKind,
    /** What it is called: `Silk`. */
    name: z.string().min(1),
    /** Whose it is, where not each of them carries one. */
    part: PartId.optional(),
    /** In metres. */
    size: z.object({ long: Metres, deep: Metres }).readonly(),
    start: Carried,
    /** On the other side it stays in the same hand. */
    keepHand: z.literal(true).optional(),
  })
  .readonly()
export type Prop = z.infer<typeof Prop>

/** More things than anybody carries at once. */
export const MOST_PROPS = 8

export const ActId = z.enum([
  'take',
  'let-go',
  'pass',
  'split',
  'slide',
  'open',
  'close',
  'over',
  'under',
  'frame',
  'drape',
  'carry',
  'round',
  'roll-in',
  'unroll',
  'throw',
  'catch',
  'swish',
  'strike',
  'ready',
])
export type ActId = z.infer<typeof ActId>

/** Something done with a thing in the hands, in ticks from the start of its phrase. */
export const PropAct = z
  .object({
    id: z.string().min(1),
    at: Tick,
    length: TickLength,
    prop: z.string().min(1),
    act: ActId,
    hand: Side.optional(),
    /** The edge it leads to, or where the cloth is then. */
    to: z.union([Feature, Drape]).optional(),
    /** What is got ready. */
    ready: ReadyWord.optional(),
    who: Who.optional(),
    /** Stays as written when the combination is mirrored. */
    kept: z.literal(true).optional(),
    cue: z.string().min(1).optional(),
    note: z.string().min(1).optional(),
    /** A flourish that a level may drop. */
    optional: z.literal(true).optional(),
    leave: z.array(Leave).min(1).readonly().optional(),
  })
  .refine(({ act, ready }) => (act === 'ready') === (ready !== undefined), {
    message: 'only what gets ready says for what',
    path: ['ready'],
  })
  .readonly()
export type PropAct = z.infer<typeof PropAct>

/** Whether it is an edge of the cloth, and no way it is worn. */
export const isFeature: (to: Feature | Drape) => to is Feature = oneOf(FEATURE_WORDS)

/** Where each kind can be held. */
export const FEATURES_OF: Readonly<Record<PropKind, readonly Feature[]>> = {
  veil: ['top-R', 'top-L', 'bottom-R', 'bottom-L', 'top', 'bottom', 'side-R', 'side-L'],
  scarf: ['end', 'middle', 'tip'],
  skirt: ['hem-R', 'hem-L'],
  stick: ['end', 'middle', 'tip'],
  fan: ['handle', 'tip'],
}

/** How a hand takes a thing where nobody said it. */
export const usualGrip = (kind: PropKind): OnProp['grip'] => (kind === 'veil' ? 'pinch' : 'fist')

/** What is usual of each kind: metres, drape, and how it is held at the start. */
export const USUAL_PROP: Readonly<Record<PropKind, Pick<Prop, 'size' | 'start'>>> = {
  veil: {
    size: { long: 2.5, deep: 1.1 },
    start: started('behind', { R: held('top-R', 'pinch'), L: held('top-L', 'pinch') }),
  },
  scarf: {
    size: { long: 1.8, deep: 0.5 },
    start: started('none', { R: held('end', 'fist'), L: held('tip', 'fist') }),
  },
  skirt: { size: { long: 3, deep: 0.95 }, start: started('none', {}) },
  stick: { size: { long: 0.9, deep: 0.03 }, start: started('none', { R: held('end', 'fist') }) },
  fan: { size: { long: 0.3, deep: 0.5 }, start: started('none', { R: held('handle', 'fist') }) },
}

function held(at: Feature, grip: PropGrip): OnProp {
  return { at: [at], grip }
}

function started(drape: Drape, hands: Carried['hands']): Carried {
  return { hands, drape, open: true, wound: 0, ready: [] }
}
