import type { Drill } from './drill'
import { coolDownUnits, type FrameRoom, type FrameSeconds, saidUnit, warmUpUnits } from './frame'
import { LONGEST } from './pauses'
import type { Setting } from './setting'
import type { Unit } from './teaching'

/** Seconds under which time is not offered as open. */
const LEAST_OPEN = 60

/** What a class has between its beginning and its end, and what is shown before all. */
interface Inside {
  readonly show: readonly Unit[]
  readonly body: readonly Unit[]
}

/** A class with its beginning and its end: as usual, then more of both, and what is left is open. */
export function framedBy(
  { wishes, combinations, materials, frame, rows, has, isWanted, room, all }: Setting,
  { show, body }: Inside,
): { readonly units: readonly Unit[]; readonly over: number } {
  // A longer warm-up does not put off the first pause.
  const first = body.findIndex(({ kind }) => kind === 'pause')
  const early = all([...show, ...(first < 0 ? [] : body.slice(0, first))])
  const longest = Math.max(frame.usual.warmUp, LONGEST - frame.most.hello - early)
  const most = { ...frame.most, warmUp: Math.min(frame.most.warmUp, longest) }
  const { hello, warmUp, recap, coolDown, open, over } = sized(
    { ...frame, most },
    room - all([...show, ...body]),
    has,
  )
  const said = (kind: Drill['kind'], seconds: number): readonly Unit[] =>
    seconds > 0 ? [saidUnit(kind, seconds, wishes.tempoNow)] : []
  const stages = rows.flatMap(({ stage }) => stage ?? [])
  return {
    over,
    units: [
      ...said('hello', hello),
      ...show,
      ...(warmUp > 0 ? warmUpUnits(warmUp, wishes, combinations, materials, stages) : []),
      ...body,
      ...said('open', open),
      ...said('recap', recap),
      ...(coolDown > 0
        ? coolDownUnits(coolDown, wishes, combinations, body, materials, isWanted)
        : []),
    ],
  }
}

interface Sizes extends FrameSeconds {
  readonly open: number
  readonly over: number
}

/** Shares what is left of a class among its beginning and its end; what they can't use is open. */
function sized(
  { usual, least, most }: FrameRoom,
  seconds: number,
  has: (kind: Drill['kind'], seconds: number) => number,
): Sizes {
  const parts = [
    ['coolDown', 'cool-down'],
    ['recap', 'recap'],
    ['warmUp', 'warm-up'],
    ['hello', 'hello'],
  ] as const
  const sizes = Object.fromEntries(
    parts.map(([part, kind]) => [part, has(kind, least[part])]),
  ) as Record<keyof FrameSeconds, number>
  let left = seconds - parts.reduce((sum, [part]) => sum + sizes[part], 0)
  // Too short even so: the warm-up and the cool-down stay as long as they can.
  for (const [part] of parts.toReversed()) {
    if (left >= 0) break
    const less = Math.min(sizes[part], -left)
    sizes[part] -= less
    left += less
  }
  for (const goal of [usual, most])
    for (const [part, kind] of parts) {
      const more = Math.min(left, Math.max(0, has(kind, goal[part]) - sizes[part]))
      if (more <= 0) continue
      sizes[part] += more
      left -= more
    }
  // Less than a minute is nothing to offer: what is held at the end is held a little longer.
  if (left > 0 && left < LEAST_OPEN && sizes.coolDown > 0) {
    sizes.coolDown += left
    left = 0
  }
  return { ...sizes, open: Math.max(0, left), over: Math.max(0, -left) }
}
