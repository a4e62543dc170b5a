import { memo, useMemo } from 'react'
import { factsOf } from '../../core/body/feet'
import { Layer } from '../../core/body/layers'
import { otherSide, sideWord } from '../../core/body/side'
import { type DancedEvent, heldTicks } from '../../core/combination/lengths'
import { placeIn } from '../../core/combination/names'
import type { Part } from '../../core/combination/part'
import { pickupBefore } from '../../core/combination/passes'
import { voiceOf } from '../../core/combination/voice'
import { isShared } from '../../core/combination/whose'
import { layerWord } from '../../core/moves/vocabulary'
import type { DancedStep } from '../../core/simulate/simulate'
import { LASTING } from '../../core/simulate/standings'
import { type Stretch, weightStretches } from '../../core/simulate/weightStretches'
import { numberOfCount, TICKS_PER_COUNT } from '../../core/time/time'
import classes from './braid.module.css'
import { countsIn, partsUsed, SIZE } from './geometry'
import type { Line } from './lines'
import { FootMark, Mark } from './Marks'
import { PairLane } from './PairLane'
import { PropLane } from './PropLane'
import { Ribbon } from './Ribbon'
import { ribbonOf } from './ribbonShape'
import { UnderFeet } from './UnderFeet'

const TAIL_PX = 15
/** So far before the counts the words of lanes and feet end, in pixels. */
const LANE_WORD_PX = 12
const FOOT_WORD_PX = 22
const NOBODY: readonly Part[] = []

/** What is selected in one line: ticks of the phrase, and layers. */
export interface LineSelection {
  readonly from: number
  readonly to: number
  readonly layers: readonly Layer[]
}

interface PassLineProps {
  readonly line: Line
  /** In the braid it is found by its side and pass; alone it is not. */
  readonly alone?: true
  /** What is selected in this line, as plain values, so that a line is drawn again only when they change. */
  readonly from: number | undefined
  readonly to: number | undefined
  /** Layers with spaces between. */
  readonly layers: string
  /** Ids of what is selected in this line, with spaces between. */
  readonly selectedIds: string
  /** Ids of what a preview would change, with spaces between. */
  readonly freshIds?: string
  /** Those who dance it, where there are several. */
  readonly dancers?: readonly Part[] | undefined
  /** What stands beside the moves and is picked. */
  readonly picked?: string | undefined
}

/** One phrase as it is danced on one side: ruler, layers from head to hips, feet and ribbon. */
export const PassLine = memo(function PassLine(props: PassLineProps) {
  const { line, from, to, layers, selectedIds, freshIds = '', dancers = NOBODY, picked } = props
  const selection: LineSelection | undefined =
    from === undefined || to === undefined
      ? undefined
      : { from, to, layers: Layer.array().parse(layers.split(' ')) }
  const { simulation, pass, early, events, dancing, whom, others, shape, heat, hairs } = line
  const { side } = dancing
  const { lanes, rows, x, width, height, left, right } = shape
  const selected = useMemo(() => new Set(selectedIds.split(' ')), [selectedIds])
  const fresh = useMemo(() => new Set(freshIds.split(' ').filter(Boolean)), [freshIds])
  const feet = lanes.find(({ layer }) => layer === 'feet')
  const steps = useMemo(() => {
    const drawn = new Set(events.map(({ id }) => id))
    return simulation.danced.filter(
      (danced) =>
        (danced.pass.index === pass.index && drawn.has(danced.event.id)) ||
        early.some(({ id }) => id === danced.event.id && danced.pass.index === pass.index - 1),
    )
  }, [simulation, pass, events, early])
  // A height that lasts stands under the feet, and so do free counts.
  const printed = steps.filter(
    ({ action: { primitive } }) => !LASTING.has(primitive) && primitive !== 'free',
  )
  const y = { L: SIZE.leftFoot, R: SIZE.rightFoot, both: (SIZE.leftFoot + SIZE.rightFoot) / 2 }
  const begins = 0 - pickupBefore(simulation.combination, pass.index)
  // The way in is a short tail, however wide a count is drawn.
  const leadIn = Math.min(2, TAIL_PX / (x(1) - x(0)))
  const [own, ...theirs] = [simulation, ...others].map((one) =>
    weightStretches(one, pass.at + begins, pass.at + pass.length, leadIn),
  )
  const place = { x: (tick: number) => x(tick - pass.at), y, swing: 8, gap: 2.5 }
  const ribbons = agreeing(own ?? [], theirs).map((run) => ribbonOf(run, place))
  const end = own?.at(-1)?.weight ?? 'both'
  const parts = useMemo(
    () => partsUsed([...events.map(({ at }) => at), ...steps.map(({ at }) => at - pass.at)]),
    [pass, events, steps],
  )
  // Landings sooner than a count after the one before: the feet stay under the shoulders.
  const quick = useMemo(() => quickTicks(steps, pass.at), [steps, pass])
  /** Where the next mark of the same row begins. */
  const roomOf = ({ id, layer, at }: DancedEvent): number => {
    const row = rows.get(id)
    const next = [...early, ...events]
      .filter((one) => one.layer === layer && rows.get(one.id) === row && one.at > at)
      .reduce((least, one) => Math.min(least, one.at), Number(pass.length))
    return x(next)
  }
  const box = boxOf(lanes.filter(({ layer }) => selection?.layers.includes(layer)))
  return (
    <svg
      className={classes.line}
      width={width}
      height={height}
      data-from={left}
      data-to={right}
      data-line={props.alone || whom !== undefined ? undefined : `${side}:${pass.index}`}
      data-own={whom}
      data-follows={(whom !== undefined && voiceOf(line.phrase, whom) !== undefined) || undefined}
      role="group"
      aria-label={`Phrase ${pass.phrase.name}, ${sideWord[side]} side`}
    >
      <title>{`Phrase ${pass.phrase.name}, ${sideWord[side]} side`}</title>
      {lanes.map(({ layer, top, height: tall }) => (
        <g key={layer} className={`layer-${layer}`}>
          <rect
            className={classes.lane}
            x={left}
            y={top + 1}
            width={right - left}
            height={tall - 2}
            rx={4}
            data-lane={layer}
          />
          <text className={classes.laneWord} x={left - LANE_WORD_PX} y={top + 13}>
            {layer === 'feet' ? '' : layerWord[layer].toLowerCase()}
          </text>
        </g>
      ))}
      {heat.map(({ count, share }) => (
        <rect
          key={count}
          className={classes.heat}
          x={x((count - 1) * TICKS_PER_COUNT)}
          width={x(12) - x(0)}
          y={2}
          height={height - SIZE.gap - 2}
          // Below half of what the level takes nothing glows; at its limit it glows fully.
          opacity={Math.min(1, Math.max(0, (share - 0.4) / 0.6))}
          data-heat={share.toFixed(2)}
        />
      ))}
      {whom !== undefined && <WaitLines line={line} />}
      {countsIn(begins, pass.length).map((i) => (
        <g key={i} className={i < 0 ? classes.pickup : undefined}>
          <line
            className={classes.countLine}
            x1={x(i * TICKS_PER_COUNT)}
            x2={x(i * TICKS_PER_COUNT)}
            y1={whom === undefined ? SIZE.ruler - 3 : 0}
            y2={height - SIZE.gap}
          />
          <line
            className={classes.andLine}
            x1={x(i * 12 + 6)}
            x2={x(i * 12 + 6)}
            y1={SIZE.ruler}
            y2={height - SIZE.gap}
          />
          {whom === undefined && (
            <text
              className={i === 0 ? classes.countFirst : classes.count}
              x={x(i * TICKS_PER_COUNT) + 2}
              y={14}
              data-count={i}
            >
              {numberOfCount((i < 0 ? pass.phrase.counts : 0) + i + 1, pass.phrase)}
            </text>
          )}
          {whom === undefined &&
            parts.get(i)?.map(({ part, label }) => (
              <text
                key={part}
                className={classes.and}
                data-quick={quick.has(i * 12 + part) || undefined}
                x={x(i * 12 + part) + 2}
                y={14}
              >
                {label}
              </text>
            ))}
          {whom === undefined && (
            <text
              className={classes.and}
              data-quick={quick.has(i * 12 + 6) || undefined}
              x={x(i * 12 + 6) + 2}
              y={14}
            >
              &amp;
            </text>
          )}
        </g>
      ))}
      {heat.map(({ count, words }) => (
        <rect
          key={count}
          className={classes.hit}
          x={x((count - 1) * TICKS_PER_COUNT)}
          width={x(12) - x(0)}
          y={0}
          height={SIZE.ruler}
          data-load={count}
        >
          <title>{`${placeIn(pass.phrase.name, `${numberOfCount(count, pass.phrase)}`)}: ${words}`}</title>
        </rect>
      ))}
      {selection && (
        <rect
          className={classes.selection}
          x={x(selection.from)}
          y={box.top + 0.5}
          width={x(selection.to) - x(selection.from)}
          height={box.height - 1}
          rx={5}
        />
      )}
      {hairs.map(({ layer, from, to, late, words }) => {
        const lane = lanes.find((one) => one.layer === layer)
        return lane && to > from ? (
          <path
            key={`${layer}${from}`}
            className={classes.hair}
            data-late={late}
            d={`M${x(from)} ${lane.top + 5} L${x(to)} ${lane.top + SIZE.row - 5}`}
          >
            <title>{words}</title>
          </path>
        ) : null
      })}
      {lanes
        .filter(({ layer }) => layer !== 'feet')
        .flatMap(({ layer, top }) =>
          [...early, ...events]
            .filter((event) => event.layer === layer)
            .map((event) => (
              <Mark
                key={event.id}
                event={event}
                vocabulary={simulation.vocabulary}
                left={x(event.at)}
                right={x(event.at + event.length)}
                heldTo={x(event.at + heldTicks(event))}
                top={top + (rows.get(event.id) ?? 0) * SIZE.row}
                room={roomOf(event)}
                phrase={pass.phrase}
                selected={selected.has(event.id)}
                fresh={fresh.has(event.id)}
                isOfAll={whom !== undefined && isShared(event)}
              />
            )),
        )}
      {feet && (
        <g transform={`translate(0 ${feet.top})`}>
          {(['L', 'R'] as const).map((foot) => (
            <g key={foot}>
              <line className={classes.footLine} x1={left} x2={right} y1={y[foot]} y2={y[foot]} />
              <text className={classes.footWord} x={left - FOOT_WORD_PX} y={y[foot] + 5}>
                {foot}
              </text>
            </g>
          ))}
          {ribbons.map((shape) => (
            <Ribbon key={shape.strands[0]?.path ?? ''} shape={shape} width={9} y={y} />
          ))}
          {printed.map((danced, i) => {
            const px = x(danced.at - pass.at)
            const following = printed[i + 1]
            const next = printed
              .slice(i + 1)
              .find(({ action }) => (action.foot ?? 'R') === (danced.action.foot ?? 'R'))
            return (
              <FootMark
                key={`${danced.event.id}-${danced.at}`}
                danced={danced}
                x={px}
                tight={following !== undefined && x(following.at - pass.at) - px < 26}
                room={(next ? x(next.at - pass.at) : right) - px}
                selected={selected.has(danced.event.id)}
                fresh={fresh.has(danced.event.id)}
                isOfAll={whom !== undefined && isShared(danced.event)}
              />
            )
          })}
          <UnderFeet simulation={simulation} pass={pass} x={x} selected={selected} fresh={fresh} />
          {agreesAtEnd(own, theirs) && <FreeFoot weight={end} x={right} y={y} />}
        </g>
      )}
      {shape.props !== undefined && (
        <PropLane
          start={left}
          list={line.carried}
          passAt={pass.at}
          top={shape.props}
          x={x}
          end={right}
          picked={picked}
        />
      )}
      {shape.pairs !== undefined && (
        <PairLane
          start={left}
          list={line.met}
          parts={dancers}
          top={shape.pairs}
          x={x}
          picked={picked}
        />
      )}
      <line
        className={classes.playhead}
        data-playhead
        x1={0}
        x2={0}
        y1={2}
        y2={height - SIZE.gap}
        visibility="hidden"
      />
    </svg>
  )
})

/** Counts through which a part waits: a dotted line where she would dance. */
function WaitLines({ line }: { readonly line: Line }) {
  const { phrase, whom, shape } = line
  const { x, height } = shape
  return (phrase.between ?? [])
    .filter(({ what }) => what.kind === 'wait' && what.of.includes(whom ?? ''))
    .map(({ id, at, length }) => (
      <g key={id} className={classes.wait}>
        <line x1={x(at) + 2} x2={x(at + length) - 2} y1={height / 2} y2={height / 2} />
        <text x={x(at) + 6} y={height / 2 - 4}>
          waits
        </text>
      </g>
    ))
}

/** The stretches of one weight in which all others carry on the same, run by run. */
function agreeing(
  own: readonly Stretch[],
  theirs: readonly (readonly Stretch[])[],
): readonly (readonly Stretch[])[] {
  if (theirs.length === 0) return [own]
  const borders = [...new Set([own, ...theirs].flat().flatMap(({ from, to }) => [from, to]))].sort(
    (a, b) => a - b,
  )
  const at = (list: readonly Stretch[], from: number) =>
    list.find((one) => from >= one.from && from < one.to)
  const runs: Stretch[][] = [[]]
  for (const [i, from] of borders.entries()) {
    const to = borders[i + 1]
    const mine = at(own, from)
    if (to === undefined || !mine) continue
    const isSame = theirs.every((list) => at(list, from)?.weight === mine.weight)
    const run = runs.at(-1) as Stretch[]
    const last = run.at(-1)
    if (!isSame) {
      if (run.length > 0) runs.push([])
    } else if (last && last.to === from && last.weight === mine.weight && mine.from !== from)
      run[run.length - 1] = { ...last, to }
    else run.push({ ...mine, from, to, broken: mine.broken && mine.from === from })
  }
  return runs.filter((run) => run.length > 0)
}

const agreesAtEnd = (
  own: readonly Stretch[] | undefined,
  theirs: readonly (readonly Stretch[])[],
): boolean => theirs.every((list) => list.at(-1)?.weight === own?.at(-1)?.weight)

/** The ticks of a phrase on which a foot lands less than a count after another. */
function quickTicks(steps: readonly DancedStep[], passAt: number): ReadonlySet<number> {
  const lands = steps.filter(({ action }) => factsOf(action.primitive).lands)
  return new Set(
    lands
      .filter(({ at }, i) => at - (lands[i - 1]?.at ?? Number.NEGATIVE_INFINITY) < 12)
      .map(({ at }) => at - passAt),
  )
}

/** The rows of a block of layers. */
function boxOf(lanes: readonly { readonly top: number; readonly height: number }[]) {
  const top = Math.min(...lanes.map((lane) => lane.top))
  const bottom = Math.max(...lanes.map((lane) => lane.top + lane.height))
  return lanes.length > 0 ? { top, height: bottom - top } : { top: 0, height: 1 }
}

/** Which foot is free when the phrase is over. */
function FreeFoot({
  weight,
  x,
  y,
}: {
  weight: 'L' | 'R' | 'both'
  x: number
  y: { L: number; R: number; both: number }
}) {
  if (weight === 'both')
    return (
      <text className={classes.freeWord} x={x + 10} y={y.both + 5}>
        on both
      </text>
    )
  const free = otherSide[weight]
  return (
    <g className="layer-feet">
      <circle
        className={free === 'R' ? classes.right : classes.left}
        cx={x + 14}
        cy={y[free]}
        r={5}
      />
      <text className={classes.freeWord} x={x + 24} y={y[free] + 5}>
        {free} free
      </text>
    </g>
  )
}
