import { sideWord } from '../../core/body/side'
import { actRow } from '../../core/props/acts'
import type { DoneAct } from '../../core/props/follow'
import classes from './braid.module.css'
import { fitted, longest, SIZE } from './geometry'
import { actRows, heightOf, type LineProp } from './propRows'

interface PropLaneProps {
  readonly list: readonly LineProp[]
  /** Where the pass begins: what is done stands on the ticks of the dance. */
  readonly passAt: number
  readonly top: number
  readonly x: (tick: number) => number
  /** Where the counts end. */
  /** Where the counts begin and end, in pixels. */
  readonly start: number
  readonly end: number
  readonly picked: string | undefined
}

/** Where the bar of a hand lies, up from the foot of the row of a thing. */
const BAR = { R: 8, L: 4 } as const

/** What is in the hands: what is done with it, where a cloth is, and a bar for each hand while it holds. */
export function PropLane({ list, passAt, top, x, start, end, picked }: PropLaneProps) {
  return (
    <g className={classes.props} transform={`translate(0 ${top})`}>
      {list.map((one, i) => (
        <g
          key={`${one.lane.prop.id} ${one.by ?? ''}`}
          transform={`translate(0 ${list.slice(0, i).reduce((sum, before) => sum + heightOf(before), 0)})`}
        >
          <Thing one={one} passAt={passAt} x={x} start={start} end={end} picked={picked} />
        </g>
      ))}
    </g>
  )
}

interface ThingProps extends Omit<PropLaneProps, 'list' | 'top'> {
  readonly one: LineProp
}

function Thing({ one, passAt, x, start, end, picked }: ThingProps) {
  const { lane, by } = one
  const { prop, held, drapes, acts } = lane
  const height = heightOf(one)
  return (
    <>
      <rect
        className={classes.lane}
        x={start}
        y={1}
        width={end - start}
        height={height - 2}
        rx={4}
      />
      <text className={classes.laneWord} x={start - 12} y={13}>
        {fitted(by === undefined ? prop.name : `${prop.name}, ${by}`, start - 16)}
      </text>
      {held.map(({ side, from, to }) => (
        <rect
          key={`${side}${from}`}
          className={side === 'R' ? classes.right : classes.left}
          data-hand={side}
          x={x(from) + 1}
          width={Math.max(2, x(to) - x(from) - 2)}
          y={height - BAR[side]}
          height={3}
          rx={1.5}
        >
          <title>{`The ${sideWord[side]} hand is on ${prop.name}`}</title>
        </rect>
      ))}
      {drapes.map(({ from, to, words }) => {
        const said = acts.some((one) => Math.abs(one.from - passAt - from) < 24)
        return said ? null : (
          <text key={from} className={classes.drape} x={x(from) + 4} y={13}>
            {fitted(words, x(to) - x(from) - 8)}
          </text>
        )
      })}
      {actRows(lane).flatMap((row, i) =>
        row.map((done) => (
          <Act
            key={`${done.act.id} ${done.from}`}
            one={done}
            top={i * SIZE.row}
            from={x(done.from - passAt)}
            to={x(done.until - passAt)}
            picked={picked}
          />
        )),
      )}
    </>
  )
}

interface ActProps {
  readonly one: DoneAct
  readonly top: number
  readonly from: number
  readonly to: number
  readonly picked: string | undefined
}

function Act({ one, top, from, to, picked }: ActProps) {
  const { act, prop, hand, after } = one
  const name = act.act === 'ready' ? `ready ${act.ready}` : actRow(act.act).name
  const words = [name, hand && `${sideWord[hand]} hand`].filter(Boolean).join(', ')
  return (
    <g
      className={classes.pair}
      data-beside={act.id}
      data-act={act.id}
      data-picked={act.id === picked || undefined}
      transform={`translate(${from} ${top})`}
      role="img"
      aria-label={`${prop.name}: ${words}`}
    >
      <title>{`${prop.name}: ${words}${after.drape === 'none' ? '' : `; then ${after.drape}`}`}</title>
      <rect
        className={classes.hit}
        width={Math.max(4, to - from - 2)}
        height={SIZE.prop - 9}
        y={1}
      />
      <path className={classes.end} d="M3 13 q3 -9 8 -3" />
      <text x={14} y={13}>
        {longest([words, name, act.act], to - from - 16)}
      </text>
    </g>
  )
}
