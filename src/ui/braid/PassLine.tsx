import { memo, useMemo } from 'react'
import { otherSide, sideWord } from '../../core/body/side'
import { pickupTicks } from '../../core/combination/passes'
import { layerWord } from '../../core/moves/vocabulary'
import { weightStretches } from '../../core/simulate/weightStretches'
import type { Selection } from '../stores/session'
import classes from './braid.module.css'
import { countsIn, SIZE } from './geometry'
import type { Line } from './lines'
import { FootMark, Mark } from './Marks'
import { Ribbon } from './Ribbon'
import { ribbonOf } from './ribbonShape'

interface PassLineProps {
  readonly line: Line
  readonly selection: Selection | undefined
  /** Ids of what is selected in this line, with spaces between. */
  readonly selectedIds: string
}

/** One phrase as it is danced on one side: ruler, layers from head to hips, feet and ribbon. */
export const PassLine = memo(function PassLine(props: PassLineProps) {
  const { line, selection, selectedIds } = props
  const { simulation, pass, side, shape } = line
  const { lanes, rows, x, width, height } = shape
  const selected = useMemo(() => new Set(selectedIds.split(' ')), [selectedIds])
  const feet = lanes.find(({ layer }) => layer === 'feet')
  const steps = simulation.danced.filter((danced) => danced.pass.index === pass.index)
  const y = { L: SIZE.leftFoot, R: SIZE.rightFoot, both: (SIZE.leftFoot + SIZE.rightFoot) / 2 }
  const begins = pass.index === 0 ? 0 - pickupTicks(simulation.combination) : 0
  const stretches = weightStretches(simulation, pass.at + begins, pass.at + pass.length, 2)
  const ribbon = ribbonOf(stretches, {
    x: (tick) => x(tick - pass.at),
    y,
    swing: 8,
    gap: 2.5,
  })
  return (
    <svg
      className={classes.line}
      width={width}
      height={height}
      data-line={`${side}:${pass.index}`}
      role="group"
      aria-label={`Phrase ${pass.phrase.name}, ${sideWord[side]} side`}
    >
      <title>{`Phrase ${pass.phrase.name}, ${sideWord[side]} side`}</title>
      {lanes.map(({ layer, top, height: tall }) => (
        <g key={layer} className={`layer-${layer}`}>
          <rect
            className={classes.lane}
            x={SIZE.gutter}
            y={top + 1}
            width={width - SIZE.gutter - SIZE.end}
            height={tall - 2}
            rx={4}
            data-lane={layer}
          />
          <text className={classes.laneWord} x={SIZE.gutter - 12} y={top + 13}>
            {layer === 'feet' ? '' : layerWord[layer].toLowerCase()}
          </text>
        </g>
      ))}
      {countsIn(pass.length).map((i) => (
        <g key={i}>
          <line
            className={classes.countLine}
            x1={x(i * 12)}
            x2={x(i * 12)}
            y1={SIZE.ruler - 3}
            y2={height - SIZE.gap}
          />
          <line
            className={classes.andLine}
            x1={x(i * 12 + 6)}
            x2={x(i * 12 + 6)}
            y1={SIZE.ruler}
            y2={height - SIZE.gap}
          />
          <text
            className={i === 0 ? classes.countFirst : classes.count}
            x={x(i * 12) + 2}
            y={14}
            data-count={i}
          >
            {i + 1}
          </text>
          <text className={classes.and} x={x(i * 12 + 6) + 2} y={14}>
            &amp;
          </text>
        </g>
      ))}
      {selection && (
        <rect
          className={classes.selection}
          x={x(selection.at)}
          y={(lanes.find(({ layer }) => layer === selection.layer)?.top ?? 0) + 0.5}
          width={x(selection.at + selection.length) - x(selection.at)}
          height={(lanes.find(({ layer }) => layer === selection.layer)?.height ?? 0) - 1}
          rx={5}
        />
      )}
      {lanes
        .filter(({ layer }) => layer !== 'feet')
        .flatMap(({ layer, top }) =>
          pass.events
            .filter((event) => event.layer === layer)
            .map((event) => (
              <Mark
                key={event.id}
                event={event}
                left={x(event.at)}
                right={x(event.at + event.length)}
                top={top + (rows.get(event.id) ?? 0) * SIZE.row}
                selected={selected.has(event.id)}
              />
            )),
        )}
      {feet && (
        <g transform={`translate(0 ${feet.top})`}>
          {(['L', 'R'] as const).map((foot) => (
            <g key={foot}>
              <line
                className={classes.footLine}
                x1={SIZE.gutter}
                x2={width - SIZE.end}
                y1={y[foot]}
                y2={y[foot]}
              />
              <text className={classes.footWord} x={SIZE.gutter - 22} y={y[foot] + 5}>
                {foot}
              </text>
            </g>
          ))}
          <Ribbon shape={ribbon} width={9} y={y} />
          {steps.map((danced, i) => {
            const px = x(danced.at - pass.at)
            const next = steps
              .slice(i + 1)
              .find(({ action }) => (action.foot ?? 'R') === (danced.action.foot ?? 'R'))
            return (
              <FootMark
                key={`${danced.event.id}-${danced.at}`}
                danced={danced}
                x={px}
                room={(next ? x(next.at - pass.at) : width - SIZE.end) - px}
                selected={selected.has(danced.event.id)}
              />
            )
          })}
          <FreeFoot weight={ribbon.end} x={width - SIZE.end} y={y} />
        </g>
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
