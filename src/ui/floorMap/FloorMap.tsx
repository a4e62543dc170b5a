import { scaleLinear } from 'd3-scale'
import { curveCatmullRom, line } from 'd3-shape'
import type { FloorPoint } from '../../core/body/places'
import { SIDES, type Side } from '../../core/body/side'
import type { House } from '../../core/house/house'
import { type Area, classPlaces, type PathPoint, type Round } from '../../core/space/space'
import classes from './floorMap.module.css'

export type ClassView = 'dancer' | 'audience'

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
  /** How far the arms reach from the middle, in metres. */
  readonly reach: number
  readonly labelOf: (point: PathPoint) => string
}

const SIZE = { width: 310, height: 250, margin: 14 }
const curve = line<FloorPoint>().curve(curveCatmullRom.alpha(0.5))
const FOOT_LENGTH = 0.24
/** Metres that are always seen, and around the way. */
const LEAST = { width: 2.6, depth: 2 }
const AROUND = 1.2
/** Two labels nearer than this would lie on each other. */
const LABEL_PX = 19

/**
 * The floor from above. The dancer's map has front at the top and her right at the right; the
 * audience's is the same turned half round, so one transform draws both.
 */
export function FloorMap(props: FloorMapProps) {
  const { rounds, area, house, view, showsClass, at, lead, reach, labelOf } = props
  const { room } = house
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
    (SIZE.width - 2 * SIZE.margin) / seen.width,
    (SIZE.height - 2 * SIZE.margin) / seen.depth,
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
  const marked = (rounds[0]?.points ?? []).filter(
    (point, i, all) => i === 0 || labelOf(point) !== labelOf(all[i - 1] ?? point),
  )
  const labelled: PathPoint[] = shown ? [shown] : []
  for (const point of marked) {
    const isFree = labelled.every(
      (other) => Math.hypot(px(point) - px(other), py(point) - py(other)) > LABEL_PX,
    )
    if (isFree) labelled.push(point)
  }
  return (
    <svg
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
      {marked.map((point) => (
        <Feet
          key={point.at}
          point={point}
          isShown={point === shown}
          px={px}
          py={py}
          perMetre={perMetre}
          turned={view === 'dancer' ? 0 : 180}
        />
      ))}
      {labelled.map((point) => (
        <path
          key={point.at}
          className={classes.arrow}
          d="M0 -9 L3 -4 H-3 Z"
          transform={`translate(${px(point)} ${py(point)}) rotate(${point.facing + (view === 'dancer' ? 0 : 180)})`}
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
      {labelled.map((point) => (
        <text key={point.at} className={classes.count} x={px(point) + 9} y={py(point) - 7}>
          {labelOf(point)}
        </text>
      ))}
      <title>{`${lead} side first`}</title>
    </svg>
  )
}

interface FeetProps {
  readonly point: PathPoint
  readonly isShown: boolean
  readonly px: (point: FloorPoint) => number
  readonly py: (point: FloorPoint) => number
  readonly perMetre: number
  readonly turned: number
}

/** Both feet as they stand then, R solid and L outlined. */
function Feet({ point, isShown, px, py, perMetre, turned }: FeetProps) {
  const length = FOOT_LENGTH * perMetre
  return (
    <g className={classes.feet} data-shown={isShown}>
      {SIDES.filter((side) => point.state.feet[side].contact !== 'air').map((side) => {
        const place = point.feet[side]
        return (
          <ellipse
            key={side}
            data-foot={side}
            rx={length * 0.2}
            ry={length / 2}
            transform={`translate(${px(place)} ${py(place)}) rotate(${point.facing + turned})`}
          />
        )
      })}
    </g>
  )
}
