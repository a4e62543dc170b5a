import type { FootAction, Primitive } from '../body/feet'
import type { Combination, Event } from '../combination/combination'

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

const isNew = ({ what }: Event): boolean =>
  what.kind === 'share' || (what.kind === 'foot' && isNewStep(what.action))

/** The version a sheet of a combination needs: 2 only where it says what version 1 could not. */
export const sheetVersionOf = ({ once, start, phrases }: Combination): 1 | 2 =>
  once ||
  isHalf(start.facing) ||
  phrases.some(
    ({ events, facings = [] }) =>
      events.some(isNew) || facings.some(({ degrees }) => isHalf(degrees)),
  )
    ? 2
    : 1
