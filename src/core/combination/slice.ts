import { TICKS_PER_COUNT, type Tick, tick } from '../time/time'
import type { Phrase } from './combination'
import type { Remark } from './remark'

/** Counts of a phrase, from 0: up to but not with the second. Before 0 is its pickup. */
export interface Counts {
  readonly from: number
  readonly to: number
  /** What begins before them and is taken along, on ticks below 0. */
  readonly early?: number
}

type Timed = Pick<Phrase, 'events' | 'remarks' | 'between' | 'props'>

/** What begins on some counts of a phrase, on the ticks of these counts; what runs over their end is cut. */
export function sliceOf({ events, remarks, between, props }: Timed, counts: Counts): Timed {
  const said = remarks && within(remarks, counts).map((remark) => dueWithin(remark, counts))
  const met = between && within(between, counts)
  const done = props && within(props, counts)
  return {
    events: within(events, counts),
    ...(said && said.length > 0 && { remarks: said }),
    ...(met && met.length > 0 && { between: met }),
    ...(done && done.length > 0 && { props: done }),
  }
}

/** Of one list what begins on some counts. */
export const within = <T extends { readonly at: Tick; readonly length?: Tick | undefined }>(
  all: readonly T[],
  { from, to, early = 0 }: Counts,
): readonly T[] =>
  all
    .filter(({ at }) => at >= (from - early) * TICKS_PER_COUNT && at < to * TICKS_PER_COUNT)
    .map((one) => ({
      ...one,
      at: tick(one.at - from * TICKS_PER_COUNT),
      ...(one.length !== undefined && {
        length: tick(Math.min(one.length, to * TICKS_PER_COUNT - one.at)),
      }),
    }))

/** What prepares for a count that is not among them is said, and no more. */
function dueWithin(remark: Remark, { from, to }: Counts): Remark {
  const { for: due, ...rest } = remark
  if (due === undefined) return remark
  return due >= from * TICKS_PER_COUNT && due < to * TICKS_PER_COUNT
    ? { ...remark, for: tick(due - from * TICKS_PER_COUNT) }
    : { ...rest, kind: 'say' }
}
