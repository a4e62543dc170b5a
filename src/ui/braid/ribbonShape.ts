import { curveMonotoneX, line } from 'd3-shape'
import type { Weight } from '../../core/body/side'
import type { Stretch } from '../../core/simulate/weightStretches'

interface Strand {
  readonly path: string
  /** A thin strand: the weight is shared. */
  readonly split: boolean
}

export interface RibbonShape {
  readonly strands: readonly Strand[]
  /** Where the weight logic breaks, in pixels. */
  readonly gaps: readonly number[]
  /** The weight at the end. */
  readonly end: Weight
}

interface RibbonPlace {
  readonly x: (tick: number) => number
  readonly y: Readonly<Record<Weight, number>>
  /** How long a swing from foot to foot may take, in ticks. */
  readonly swing: number
  /** Half the width of the gap at a break, in ticks. */
  readonly gap: number
}

const draw = line<readonly [number, number]>().curve(curveMonotoneX)

/** The weight ribbon: it swings to the side that carries, splits on both feet, and breaks at a fault. */
export function ribbonOf(list: readonly Stretch[], place: RibbonPlace): RibbonShape {
  const { x, y, swing, gap } = place
  const strands: Strand[] = []
  const gaps: number[] = []
  let run: [number, number][] = []
  const finish = () => {
    if (run.length > 1) strands.push({ path: draw(run) ?? '', split: false })
    run = []
  }
  for (const [i, stretch] of list.entries()) {
    const next = list[i + 1]
    const before = list[i - 1]
    const leaves = next ? Math.max(stretch.from, stretch.to - swing) : stretch.to
    const begins = stretch.broken ? stretch.from + gap : stretch.from
    const ends = next?.broken ? Math.max(begins, stretch.to - gap) : leaves
    if (stretch.broken) gaps.push(x(stretch.from))
    if (stretch.weight === 'both') {
      finish()
      for (const side of ['L', 'R'] as const) {
        const points: [number, number][] = [
          [x(begins), y[side]],
          [x(ends), y[side]],
        ]
        if (before && !stretch.broken)
          points.unshift([x(Math.max(before.from, stretch.from - swing)), y[before.weight]])
        if (next && !next.broken) points.push([x(stretch.to), y[next.weight]])
        strands.push({ path: draw(apart(points)) ?? '', split: true })
      }
      continue
    }
    if (stretch.broken) finish()
    run.push([x(begins), y[stretch.weight]])
    if (ends > begins) run.push([x(ends), y[stretch.weight]])
    if (next?.broken) finish()
  }
  finish()
  return { strands, gaps, end: list.at(-1)?.weight ?? 'both' }
}

/** A curve needs its points one after the other. */
const apart = (points: readonly [number, number][]): [number, number][] =>
  points.filter(([px], i) => i === 0 || px > (points[i - 1]?.[0] ?? 0))
