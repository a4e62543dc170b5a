import { scaleLinear } from 'd3-scale'
import { LAYERS_DOWN, type Layer } from '../../core/body/layers'
import type { DancedEvent } from '../../core/combination/lengths'
import { overlap, type Span, TICKS_PER_COUNT } from '../../core/time/time'

/** Sizes of one line of the braid, in CSS pixels. */
export const SIZE = {
  gutter: 104,
  end: 74,
  /** The same where a whole phrase is to be seen on a phone, and how wide a line is at the most then. */
  phone: { gutter: 48, end: 22, widest: 480 },
  ruler: 16,
  /** Of a part's own line: its counts stand above, over what all dance. */
  noRuler: 4,
  row: 18,
  /** From the top of the feet: L's words, L's line, R's line, R's words. */
  feet: 58,
  /** Of a thing that is carried: what is done with it, and under it a bar for each hand. */
  prop: 26,
  /** What more they need where something stands under them. */
  under: 16,
  leftFoot: 19,
  rightFoot: 40,
  gap: 4,
  /** Between two lanes where fingers go: a tap is no finer than this and a row. */
  fingers: 12,
} as const

interface LaneBox {
  readonly layer: Layer
  readonly top: number
  readonly height: number
}

/** Where everything of one line is. */
export interface LineShape {
  /** Room between two lanes, in pixels: half of it belongs to each. */
  readonly air: number
  readonly lanes: readonly LaneBox[]
  readonly rows: ReadonlyMap<string, number>
  readonly height: number
  readonly x: (tick: number) => number
  readonly width: number
  /** Where the counts begin and end, in pixels. */
  readonly left: number
  readonly right: number
  /** The first tick that is drawn: before count 1 when a pickup leads in. */
  readonly from: number
  readonly to: number
  /** Where what two do with each other begins; absent where nobody does anything. */
  readonly pairs?: number | undefined
  /** Where what is carried begins; absent where nothing is. */
  readonly props?: number | undefined
}

/** Gives events that overlap on a layer rows of their own; how many rows are needed. */
function rowsFor(events: readonly DancedEvent[], rows: Map<string, number>): number {
  const taken: Span[][] = []
  for (const event of events) {
    const free = taken.findIndex((spans) => spans.every((span) => !overlap(span, event)))
    const row = free < 0 ? taken.length : free
    taken[row] = [...(taken[row] ?? []), event]
    rows.set(event.id, row)
  }
  return Math.max(1, taken.length)
}

/** Rows of what stands beside the layers. */
interface Beside {
  /** What two do with each other. */
  readonly pairs?: number
  /** Room between two lanes, in pixels. */
  readonly air?: number
  /** Things that are carried, in pixels: each has as many rows as what is done with it at once. */
  readonly props?: number
}

export function shapeLine(
  events: readonly DancedEvent[],
  ticks: number,
  width: number,
  shown: ReadonlySet<Layer>,
  pickup: number,
  under = 0,
  ruler: number = SIZE.ruler,
  { pairs = 0, props = 0, air = 0 }: Beside = {},
): LineShape {
  const rows = new Map<string, number>()
  // Every line leaves room for the pickup, so that counts stand under counts.
  const { gutter, end } = width < SIZE.phone.widest ? SIZE.phone : SIZE
  const [left, right] = [gutter, width - end]
  const x = scaleLinear([0 - pickup, ticks], [left, right])
  let top = ruler
  let above: number | undefined
  const down = LAYERS_DOWN.filter((layer) => shown.has(layer))
  // What is in the hands stands above the arms, or first where they are not shown.
  const hands = down.find((layer) => layer === 'arms') ?? down[0]
  const lanes = down.map((layer) => {
    if (layer === hands && props > 0) {
      above = top
      top += props
    }
    top += air / 2
    const own = events.filter((event) => event.layer === layer)
    const count = layer === 'feet' ? 1 : rowsFor(own, rows)
    const feet = SIZE.feet + under
    const height = layer === 'feet' ? feet : count * SIZE.row
    const lane = { layer, top, height }
    top += height + air / 2
    return lane
  })
  const below = top
  top += pairs * SIZE.row
  const height = top + SIZE.gap
  return {
    air,
    left,
    right,
    lanes,
    rows,
    height,
    x: (tick) => x(tick),
    width,
    from: 0 - pickup,
    to: ticks,
    ...(pairs > 0 && { pairs: below }),
    ...(above !== undefined && { props: above }),
  }
}

/** The tick under a point of a line, on the grid of half counts. */
export function tickUnder(shape: LineShape, px: number, grid: number, first = 0): number {
  const share = (px - shape.left) / (shape.right - shape.left)
  const at = shape.from + share * (shape.to - shape.from)
  return Math.min(shape.to - grid, Math.max(first, Math.floor(at / grid) * grid))
}

/** The layer under a height of a line. */
export const laneUnder = ({ lanes, air }: LineShape, py: number): Layer | undefined =>
  lanes.find(({ top, height }) => py >= top - air / 2 && py < top + height + air / 2)?.layer

/** The longest of some wordings that fits; the shortest one cut, when none does. */
export const longest = (wordings: readonly string[], px: number): string =>
  wordings.find((words) => fitted(words, px) === words) ?? fitted(wordings.at(-1) ?? '', px)

/** Cuts a name to what fits, since a line of text in a drawing does not cut itself. */
export function fitted(text: string, px: number): string {
  const most = Math.floor(px / 6.3)
  if (text.length <= most) return text
  return most < 2 ? '' : `${text.slice(0, most - 1)}…`
}

/** The counts from one tick to another, 0 being count 1. */
export const countsIn = (from: number, to: number): readonly number[] =>
  Array.from({ length: (to - from) / TICKS_PER_COUNT }, (_, i) => from / TICKS_PER_COUNT + i)

/** The parts of a count that something starts on, with what the ruler calls them; the half is always there. */
export function partsUsed(starts: readonly number[]): ReadonlyMap<number, readonly Part[]> {
  const used = new Map<number, Map<number, Part>>()
  for (const at of starts) {
    const count = Math.floor(at / TICKS_PER_COUNT)
    const part = at - count * TICKS_PER_COUNT
    if (part === 0 || part === TICKS_PER_COUNT / 2) continue
    const parts = used.get(count) ?? new Map<number, Part>()
    parts.set(part, { part, label: { 3: 'e', 9: 'a', 4: '·', 8: '·' }[part] ?? '·' })
    used.set(count, parts)
  }
  return new Map([...used].map(([count, parts]) => [count, [...parts.values()]]))
}
interface Part {
  readonly part: number
  readonly label: string
}

/** Narrower a line with all its words is not drawn, in pixels; on a phone it is as wide as the phone. */
const LEAST_WIDE = 560
const LEAST_PHONE = 280

/** How wide the lines are in so much room. */
export const lineWidth = (room: number): number =>
  room < SIZE.phone.widest ? Math.max(LEAST_PHONE, room) : Math.max(LEAST_WIDE, room)
