import { useElementSize, useViewportSize } from '@mantine/hooks'
import { scaleLinear } from 'd3-scale'
import { curveCatmullRom, line } from 'd3-shape'
import type { FloorPoint } from '../../core/body/places'
import type { Side } from '../../core/body/side'
import type { House } from '../../core/house/house'
import { partMark } from '../../core/house/partMarks'
import { type Print, printsOf } from '../../core/space/prints'
import { type Area, classPlaces, type PathPoint, type Round } from '../../core/space/space'
import { partTint } from '../parts/PartBadge'
import classes from './floorMap.module.css'
import { placeLabels } from './labels'

export type ClassView = 'dancer' | 'audience'

/** A part as it is known on the map. */
export interface PartOnMap {
  readonly index: number
  readonly name: string
}

/** The way of another dancer. */
export interface OtherWay extends PartOnMap {
  readonly rounds: readonly Round[]
}

const NONE: readonly never[] = []

interface FloorMapProps {
  readonly rounds: readonly Round[]
  readonly area: Area
  readonly house: House
  readonly view: ClassView
  readonly showsClass: boolean
  /** The tick of the first round that is pointed out, as on the braid. */
  readonly at: number
  /** Whose lead the first round is on. */
  readonly lead: Side
  /** Those who dance with her: of several dancers the rest. */
  readonly others?: readonly OtherWay[]
  /** Her own mark where there are several. */
  readonly own?: PartOnMap | undefined
  /** Pairs who hold each other at that moment, by their places among the parts. */
  readonly held?: readonly (readonly [number, number])[]
  /** Where two come near in what is read. */
  readonly near?: readonly FloorPoint[]
  /** How far the arms reach from the middle, in metres. */
  readonly reach: number
  readonly labelOf: (point: { readonly at: number }) => string
  /** The number a step is called by. */
  readonly numberOf: (at: number) => string
  /** What is read now; all else stays faint. */
  readonly isStrong: (at: number) => boolean
}

const MARGIN = 14
/** The map is at least so high, and so high for its width, in pixels. */
const LEAST_HIGH = 250
const SHAPE = 0.82
/** What stands above and below it, in pixels. */
const BESIDE = 250
const curve = line<FloorPoint>().curve(curveCatmullRom.alpha(0.5))
const FOOT_LENGTH = 0.24
/** Metres that are always seen, and around the way. */
const LEAST = { width: 2.6, depth: 2 }
const AROUND = 0.9
/** Metres between which a way is long enough for an arrow. */
const ARROW_WAY = 0.14
/** Pixels an arrow stands to the right of its way: there and back are told apart. */
const ASIDE = 7
/** Pixels a digit of a number takes. */
const DIGIT = 7

/**
 * The floor from above. The dancer's map has front at the top and her right at the right; the
 * audience's is the same turned half round, so one transform draws both.
 */
export function FloorMap(props: FloorMapProps) {
  const { rounds, area, house, view, showsClass, at, lead, reach, labelOf, numberOf, isStrong } =
    props
  const { others = NONE, own, held = NONE, near = NONE } = props
  const { room } = house
  const { ref, width: measured } = useElementSize()
  const { height: tall } = useViewportSize()
  const width = Math.max(200, measured || 310)
  const SIZE = { width, height: Math.max(LEAST_HIGH, Math.min(width * SHAPE, tall - BESIDE)) }
  // The dancer stands where the whole way is in the middle of the room.
  const centre = {
    right: (area.left + area.right) / 2,
    forward: (area.back + area.front) / 2,
  }
  // The whole room with the class in it; else the way itself, as large as it can be seen.
  const seen = showsClass
    ? room
    : {
        width: Math.min(room.width, Math.max(LEAST.width, area.right - area.left + AROUND)),
        depth: Math.min(room.depth, Math.max(LEAST.depth, area.front - area.back + AROUND)),
      }
  const perMetre = Math.min(
    (SIZE.width - 2 * MARGIN) / seen.width,
    (SIZE.height - 2 * MARGIN) / seen.depth,
  )
  const sign = view === 'dancer' ? 1 : -1
  const x = scaleLinear(
    [-1, 1],
    [SIZE.width / 2 - sign * perMetre, SIZE.width / 2 + sign * perMetre],
  )
  const y = scaleLinear(
    [-1, 1],
    [SIZE.height / 2 + sign * perMetre, SIZE.height / 2 - sign * perMetre],
  )
  const px = ({ right }: FloorPoint) => x(right - centre.right)
  const py = ({ forward }: FloorPoint) => y(forward - centre.forward)
  const path = (points: readonly PathPoint[]) => curve.x(px).y(py)([...points]) ?? ''
  const shown = rounds[0]?.points.findLast((point) => point.at <= at)
  const placeNow = (index: number) =>
    own?.index === index
      ? shown
      : others
          .find((one) => one.index === index)
          ?.rounds[0]?.points.findLast((point) => point.at <= at)
  const [first] = rounds
  const points = first?.points ?? []
  const turned = view === 'dancer' ? 0 : 180
  const prints = first ? printsOf(first) : []
  const strong = prints.filter(({ at: ticks }) => ticks.some(isStrong))
  const texts = strong.map(({ at: ticks }) =>
    [...new Set(ticks.filter(isStrong).map((tick) => numberOf(tick)))].join(', '),
  )
  const labels = placeLabels(
    strong.map((print, i) => ({
      x: px(print),
      y: py(print),
      // Outside its own foot.
      towards: ((print.facing + turned + (print.side === 'R' ? 0 : 180)) * Math.PI) / 180,
      width: DIGIT * (texts[i] ?? '').length + 4,
    })),
    SIZE,
  )
  const inWindow = points.filter((point, i) => {
    const next = points[i + 1]
    return isStrong(point.at) || (next !== undefined && isStrong(next.at))
  })
  const arrows = inWindow.slice(1).flatMap((point, i) => {
    const before = inWindow[i] as PathPoint
    const [dx, dy] = [px(point) - px(before), py(point) - py(before)]
    const far = Math.hypot(dx, dy) || 1
    const long = Math.hypot(point.right - before.right, point.forward - before.forward)
    return long < ARROW_WAY
      ? []
      : [
          {
            x: px(before) + dx / 2 - (dy / far) * ASIDE,
            y: py(before) + dy / 2 + (dx / far) * ASIDE,
            turn: (Math.atan2(dy, dx) * 180) / Math.PI,
            at: point.at,
          },
        ]
  })
  return (
    <svg
      ref={ref}
      className={classes.map}
      viewBox={`0 0 ${SIZE.width} ${SIZE.height}`}
      role="img"
      aria-label={`Floor from above, ${view === 'dancer' ? 'as the dancer sees it: front is up' : 'as the audience sees it: front is down'}`}
      data-floor={view}
    >
      <rect
        className={classes.room}
        x={SIZE.width / 2 - (room.width / 2) * perMetre}
        y={SIZE.height / 2 - (room.depth / 2) * perMetre}
        width={room.width * perMetre}
        height={room.depth * perMetre}
        rx={4}
      />
      <text
        className={classes.wall}
        x={SIZE.width / 2}
        y={view === 'dancer' ? 11 : SIZE.height - 4}
      >
        front
      </text>
      {showsClass &&
        classPlaces(house).map((place) => (
          <g
            key={`${place.right} ${place.forward}`}
            className={classes.other}
            transform={`translate(${x(place.right)} ${y(place.forward)})`}
          >
            <circle r={0.22 * perMetre} />
            <rect
              x={
                x(area.left - centre.right) < x(area.right - centre.right)
                  ? (area.left - centre.right) * perMetre
                  : (centre.right - area.right) * perMetre
              }
              y={-((area.front - area.back) / 2) * perMetre}
              width={(area.right - area.left) * perMetre}
              height={(area.front - area.back) * perMetre}
            />
          </g>
        ))}
      {rounds.map(({ points, side }, i) => (
        <path
          // biome-ignore lint/suspicious/noArrayIndexKey: rounds have no other name than their number
          key={i}
          className={classes.way}
          data-side={side}
          data-later={i > 1}
          d={path(points)}
        />
      ))}
      {others.map(({ index, name, rounds: theirs }) => {
        const [round] = theirs
        const there = round?.points.findLast((point) => point.at <= at)
        const read = round?.points.filter(({ at: when }) => isStrong(when)) ?? []
        return (
          <g key={index} style={partTint(index)} data-other={name}>
            {theirs.map(({ points: all }, i) => (
              <path
                // biome-ignore lint/suspicious/noArrayIndexKey: rounds have no other name than their number
                key={i}
                className={classes.theirs}
                data-later={i > 0}
                d={path(all)}
              />
            ))}
            {read.length > 1 && <path className={classes.theirStrong} d={path(read)} />}
            {round?.points[0] && (
              <circle
                className={classes.begins}
                cx={px(round.points[0])}
                cy={py(round.points[0])}
                r={5}
              />
            )}
            {there && (
              <PartHere
                point={there}
                index={index}
                name={name}
                x={px(there)}
                y={py(there)}
                turned={turned}
              />
            )}
          </g>
        )
      })}
      {held.map(([a, b]) => {
        const [from, to] = [a, b].map((index) => placeNow(index))
        return from && to ? (
          <line
            key={`${a} ${b}`}
            className={classes.cord}
            x1={px(from)}
            y1={py(from)}
            x2={px(to)}
            y2={py(to)}
          />
        ) : null
      })}
      {near.map((point) => (
        <circle
          key={`${point.right} ${point.forward}`}
          className={classes.near}
          cx={px(point)}
          cy={py(point)}
          r={0.3 * perMetre}
        />
      ))}
      {inWindow.length > 1 && <path className={classes.strong} d={path(inWindow)} />}
      {arrows.map(({ x: cx, y: cy, turn, at: when }) => (
        <path
          key={when}
          className={classes.arrow}
          d="M-4 -4 L3 0 L-4 4"
          transform={`translate(${cx} ${cy}) rotate(${turn})`}
        />
      ))}
      {prints.map((print) => (
        <path
          key={`${print.side} ${print.right} ${print.forward} ${print.facing}`}
          className={classes.print}
          data-foot={print.side}
          data-strong={print.at.some(isStrong)}
          data-carries={print.carries}
          d={SOLE}
          transform={`translate(${px(print)} ${py(print)}) rotate(${print.facing + turned}) scale(${(print.side === 'R' ? 1 : -1) * FOOT_LENGTH * perMetre} ${FOOT_LENGTH * perMetre})`}
        />
      ))}
      {shown && (
        <g
          className={classes.here}
          transform={`translate(${px(shown)} ${py(shown)}) rotate(${shown.facing + (view === 'dancer' ? 0 : 180)})`}
          data-here={labelOf(shown)}
        >
          <circle className={classes.arms} r={reach * perMetre} />
          <circle r={7} />
          <path d="M0 -15 L4.500 -8 H-4.500 Z" />
        </g>
      )}
      {shown && own && (
        <g style={partTint(own.index)}>
          <PartHere point={shown} {...own} x={px(shown)} y={py(shown)} turned={turned} />
        </g>
      )}
      {labels.map(
        (label, i) =>
          label && (
            <g key={`${texts[i]} ${label.x}`}>
              {label.isFar && (
                <line
                  className={classes.lead}
                  x1={px(strong[i] as Print)}
                  y1={py(strong[i] as Print)}
                  x2={label.x}
                  y2={label.y}
                />
              )}
              <text className={classes.count} x={label.x} y={label.y + 4}>
                {texts[i]}
              </text>
            </g>
          ),
      )}
      <title>{`${lead} side first`}</title>
    </svg>
  )
}

interface PartHereProps extends PartOnMap {
  readonly point: PathPoint
  readonly x: number
  readonly y: number
  /** Degrees the map is turned. */
  readonly turned: number
}

/** Where a part stands now: her mark, the way she faces, and her name. */
function PartHere({ point, index, name, x, y, turned }: PartHereProps) {
  return (
    <g className={classes.part} transform={`translate(${x} ${y})`} data-part={name}>
      <path
        className={classes.faces}
        transform={`rotate(${point.facing + turned})`}
        d="M0 -16 L5 -9 H-5 Z"
      />
      <path transform="translate(-9 -9) scale(1.5)" d={partMark(index)} />
      <text y={24}>{name}</text>
    </g>
  )
}

/** A right sole of length 1, toes up: narrow at the heel, and its inside nearly straight. */
const SOLE =
  'M-0.02 0.5 C-0.15 0.5 -0.16 0.36 -0.13 0.18 C-0.11 0.02 -0.17 -0.12 -0.17 -0.28 C-0.17 -0.44 -0.06 -0.5 0.02 -0.5 C0.14 -0.48 0.22 -0.34 0.2 -0.16 C0.18 0 0.12 0.1 0.13 0.24 C0.14 0.4 0.1 0.5 -0.02 0.5 Z'
