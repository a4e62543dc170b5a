import { type Between, isHand, type Met } from '../../core/combination/between'
import type { Part } from '../../core/combination/part'
import { meetingShort, meetingWords } from '../../core/teaching/meetingWords'
import { overlap } from '../../core/time/time'
import classes from './braid.module.css'
import { longest, SIZE } from './geometry'
import { rowsWithout } from './rowsWithout'

interface PairLaneProps {
  readonly list: readonly Between[]
  readonly parts: readonly Part[]
  readonly top: number
  readonly x: (tick: number) => number
  /** Where the counts begin, in pixels. */
  readonly start: number
  readonly picked: string | undefined
}

/** Rows in which no two meetings lie over each other. */
export const pairRows = (list: readonly Between[]) => rowsWithout(list, overlap)

/** What two do with each other: a cord for a hold, a knot for a touch, a pin for a place, two dots for eyes. */
export function PairLane({ list, parts, top, x, start, picked }: PairLaneProps) {
  return (
    <g className={classes.pairs} transform={`translate(0 ${top})`}>
      <text className={classes.laneWord} x={start - 12} y={13}>
        together
      </text>
      {pairRows(list).flatMap((row, i) =>
        row.map((one) => {
          const [from, to] = [x(one.at), x(one.at + one.length)]
          const words = meetingWords(one.what, parts)
          return (
            <g
              key={one.id}
              className={classes.pair}
              data-beside={one.id}
              data-between={one.id}
              data-picked={one.id === picked || undefined}
              transform={`translate(${from} ${i * SIZE.row})`}
              role="img"
              aria-label={`${words}, together`}
            >
              <title>{words}</title>
              <rect className={classes.hit} width={to - from - 2} height={SIZE.row} />
              <Sign one={one} width={to - from - 3} />
              <text x={18} y={13}>
                {longest(meetingShort(one.what, parts), to - from - 22)}
              </text>
            </g>
          )
        }),
      )}
    </g>
  )
}

const Y = 9

function Sign({ one: { what }, width }: { readonly one: Between; readonly width: number }) {
  switch (what.kind) {
    case 'hold':
      return (
        <>
          <path className={classes.cord} d={`M6 ${Y + 7} H${width}`} />
          <circle className={classes.end} cx={6} cy={Y} r={3.5} />
          {isHand(what.to as Met) && <circle className={classes.end} cx={12} cy={Y} r={3.5} />}
        </>
      )
    case 'touch':
      return <path className={classes.end} d={`M3 ${Y} l6 -5 l6 5 l-6 5 z`} />
    case 'place':
      return (
        <>
          <path className={classes.way} d={`M6 ${Y + 7} H${width}`} />
          <path className={classes.end} d={`M9 ${Y + 6} l-5 -8 a5.500 5.500 0 1 1 10 0 z`} />
        </>
      )
    case 'orbit':
      return (
        <>
          <path className={classes.way} d={`M6 ${Y + 7} H${width}`} />
          <path className={classes.end} d={`M3 ${Y} a6 5 0 1 1 2 4`} />
        </>
      )
    case 'support':
      return <path className={classes.end} d={`M2 ${Y + 6} L14 ${Y + 6} L14 ${Y - 5} Z`} />
    case 'led':
      return <path className={classes.end} d={`M4 ${Y - 4} a5 5 0 1 1 0 8 m0 -3 v3 h3`} />
    case 'look':
      return (
        <>
          <circle className={classes.eye} cx={6} cy={Y} r={2.5} />
          {!what.oneWay && <circle className={classes.eye} cx={13} cy={Y} r={2.5} />}
        </>
      )
    case 'pass':
      return <path className={classes.end} d={`M2 ${Y + 5} q5 -9 12 -3 m-5 -1 h5 v-5`} />
    case 'wait':
      return <path className={classes.way} d={`M4 ${Y} H14 M4 ${Y + 7} H${width}`} />
  }
}
