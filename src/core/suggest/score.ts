import { SIDES } from '../body/side'
import { sideOf } from '../combination/names'
import { endOf } from '../time/time'
import type { Composed } from './compose'
import type { Composing } from './composing'

/** What a proposal is priced by, each from 0 to about 1 (h). */
const PRICE = {
  load: 1.5,
  sides: 0.6,
  contrast: 0.5,
  noReturn: 0.5,
  unusual: 0.7,
  busy: 0.4,
  foreign: 0.5,
} as const

/** Of what a level takes, so much is meant to be asked for on a usual count (h). */
const WANTED_LOAD = 0.55
/** More of the counts than this struck or shaken leave no rest (h). */
const MOST_BUSY = 0.75

/**
 * What is against a proposal beside others, the lower the better: its load beside its level's, one
 * side more than the other, nothing to tell apart or to come back to, no rest, what nobody
 * usually puts over what is there, and what its family has not by name.
 */
export function priceOf(made: Composed, composing: Composing): number {
  const { checked, motifs, names, returns } = made
  const { wish, layerings, house, vocabulary } = composing
  const limit = house.limits[`load.limit.${checked.level}`]
  const own = checked.loads.filter(({ pass }) => pass === wish.pass)
  const mean = own.reduce((sum, { total }) => sum + total, 0) / Math.max(1, own.length)
  const most = own.reduce((top, { total }) => Math.max(top, total), 0)
  const pass = checked.lead.passes[wish.pass]
  const events = (pass?.events ?? []).filter(({ layer }) => layer === wish.layer)
  const sides = SIDES.map((side) => events.filter(({ what }) => sideOf(what) === side).length) as [
    number,
    number,
  ]
  const sided = sides[0] + sides[1]
  const busy = events.filter(({ what }) => {
    const kind = what.kind === 'move' ? vocabulary.find(what.move)?.kind : undefined
    return kind === 'accent' || kind === 'texture'
  })
  const busyShare =
    busy.reduce((sum, event) => sum + endOf(event) - event.at, 0) / Math.max(1, pass?.length ?? 0)
  const hasUsual = motifs.length > 0 && layerings.size > 0
  const unusual = hasUsual ? motifs.filter(({ isUsual }) => !isUsual).length / motifs.length : 0
  const foreign =
    made.combination.families.length > 0
      ? motifs.filter(({ isOwn }) => !isOwn).length / Math.max(1, motifs.length)
      : 0
  return (
    PRICE.foreign * foreign +
    PRICE.load * (Math.abs(mean / limit - WANTED_LOAD) + Math.max(0, most / limit - 1)) +
    PRICE.sides * (sided > 1 ? Math.abs(sides[0] - sides[1]) / sided : 0) +
    PRICE.contrast * (new Set(motifs.map(({ key }) => key)).size > 1 || names.length < 3 ? 0 : 1) +
    PRICE.noReturn * (returns ? 0 : 1) +
    PRICE.unusual * unusual +
    PRICE.busy * Math.max(0, busyShare - MOST_BUSY)
  )
}
