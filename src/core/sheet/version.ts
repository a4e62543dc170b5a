import type { FootAction, Primitive } from '../body/feet'
import type { ArmPlace, Gaze } from '../body/places'
import { SIDES } from '../body/side'
import type { Combination, Event } from '../combination/combination'
import { loopIndex } from '../combination/loop'
import { ownPickup } from '../combination/passes'
import type { RemarkKind } from '../combination/remark'
import { FIRST_FAMILIES, type OwnMove } from '../moves/move'

/** The newest version of the count sheet this app reads. */
export const SHEET_VERSION = 2

/** What the feet of version 1 did not know. */
const NEW_PRIMITIVES: ReadonlySet<Primitive> = new Set([
  'press',
  'recover',
  'low',
  'deep',
  'tall',
  'toes',
  'up',
])

const isHalf = (degrees: number | undefined): boolean =>
  degrees !== undefined && !Number.isInteger(degrees)

const isNewStep = ({ primitive, direction, contact, shared, turn }: FootAction): boolean =>
  NEW_PRIMITIVES.has(primitive) ||
  ((primitive === 'hop' || primitive === 'jump') && direction !== undefined) ||
  contact === 'flat' ||
  shared === true ||
  isHalf(turn)

/** Places of arms and looks that version 1 did not know. */
const NEW_PLACES: ReadonlySet<ArmPlace> = new Set<ArmPlace>([
  'lips',
  'eyes',
  'heart',
  'waist',
  'thigh',
  'knee',
  'floor',
  'head-top',
  'low-middle',
  'across',
  'corner',
  'corner-across',
])
const NEW_LOOKS: ReadonlySet<Gaze> = new Set<Gaze>([
  'corner-R',
  'corner-L',
  'back-R',
  'back-L',
  'down-R',
  'down-L',
  'hand',
  'audience',
  'partner',
])

const areNew = (places: { readonly R?: ArmPlace | undefined; readonly L?: ArmPlace | undefined }) =>
  SIDES.some((side) => {
    const place = places[side]
    return place !== undefined && NEW_PLACES.has(place)
  })

/** Version 1 knew one form, the id of a move. */
const areNewForms = (forms: Event['easier'] = []): boolean =>
  forms.length > 1 || forms.some((form) => !('move' in form))

function isNew({ what, held, either, supported, easier, harder }: Event): boolean {
  if (either || supported) return true
  if (held !== undefined || areNewForms(easier) || areNewForms(harder)) return true
  switch (what.kind) {
    case 'foot':
      return isNewStep(what.action)
    case 'share':
    case 'trunk':
    case 'shoulder':
    case 'legs':
    case 'free':
    case 'stay':
      return true
    case 'arms':
      return areNew(what) || what.hands !== undefined || what.over !== undefined
    case 'look':
      return NEW_LOOKS.has(what.gaze)
    case 'move':
      return what.arm !== undefined || what.by !== undefined
    default:
      return false
  }
}

const OLD_FAMILIES: ReadonlySet<string> = new Set(FIRST_FAMILIES)
const NEW_REMARKS: ReadonlySet<RemarkKind> = new Set(['pose', 'breath', 'face', 'prepare'])

/** An own move with what version 1 had no words for. */
const isFullMove = (own: OwnMove): boolean =>
  [own.from, own.fastest, own.needs, own.risk, own.easier, own.harder, own.cue, own.aka].some(
    (one) => one !== undefined,
  )

/** The version a sheet of a combination needs: 2 only where it says what version 1 could not. */
export const sheetVersionOf = ({
  once,
  call,
  start,
  phrases,
  order,
  families,
  moves = [],
  rules,
  parts,
  carried,
}: Combination): 1 | 2 =>
  once ||
  parts !== undefined ||
  carried !== undefined ||
  rules !== undefined ||
  moves.some(isFullMove) ||
  call ||
  loopIndex({ order }) > 0 ||
  order.some(({ options }) => options) ||
  families.some((family) => !OLD_FAMILIES.has(family)) ||
  isHalf(start.facing) ||
  areNew(start.arms) ||
  NEW_LOOKS.has(start.gaze) ||
  start.partner !== undefined ||
  phrases.some(
    ({ events, facings = [], remarks = [], ...phrase }) =>
      phrase.call ||
      phrase.like ||
      phrase.options ||
      phrase.from !== undefined ||
      (phrase.id !== order[0]?.phrase && ownPickup({ ...phrase, events, remarks }) > 0) ||
      events.some(isNew) ||
      remarks.some(({ kind, only }) => only || NEW_REMARKS.has(kind)) ||
      facings.some(({ degrees }) => isHalf(degrees)),
  )
    ? 2
    : 1
