/** A word on the map: where it is wanted, and how large it is. */
export interface Wanted {
  readonly x: number
  readonly y: number
  /** Which way from there it would rather stand, in radians. */
  readonly towards: number
  readonly width: number
}

export interface Placed {
  readonly x: number
  readonly y: number
  /** So far off that a line must lead there. */
  readonly isFar: boolean
}

/** Pixels: how high a word is, how far from its place it is tried, and how thick what it names. */
export const LABEL_HIGH = 13
const TRIED = [12, 18, 26, 36, 48] as const
const FAR = 26
const PRINT = 6
const TURNS = 12

interface Box {
  readonly x: number
  readonly y: number
  readonly halfWide: number
  readonly halfHigh: number
}

const meet = (a: Box, b: Box): boolean =>
  Math.abs(a.x - b.x) < a.halfWide + b.halfWide && Math.abs(a.y - b.y) < a.halfHigh + b.halfHigh

/**
 * Lays words beside their places so that none lies on another word, on another place, or over the
 * edge. What finds no room is left out.
 */
export function placeLabels(
  wanted: readonly Wanted[],
  size: { readonly width: number; readonly height: number },
): readonly (Placed | undefined)[] {
  const prints = wanted.map(({ x, y }): Box => ({ x, y, halfWide: PRINT, halfHigh: PRINT }))
  const laid: Box[] = []
  return wanted.map(({ x, y, towards, width }) => {
    for (const far of TRIED)
      for (let i = 0; i < TURNS; i++) {
        // First where it is wanted, then ever farther round on both sides.
        const aside = Math.ceil(i / 2) * (i % 2 === 0 ? 1 : -1)
        const angle = towards + (aside * 2 * Math.PI) / TURNS
        const box: Box = {
          x: x + Math.cos(angle) * (far + width / 4),
          y: y + Math.sin(angle) * far,
          halfWide: width / 2,
          halfHigh: LABEL_HIGH / 2,
        }
        const isInside =
          box.x - box.halfWide > 1 &&
          box.x + box.halfWide < size.width - 1 &&
          box.y - box.halfHigh > 1 &&
          box.y + box.halfHigh < size.height - 1
        if (!isInside || [...laid, ...prints].some((other) => meet(box, other))) continue
        laid.push(box)
        return { x: box.x, y: box.y, isFar: far >= FAR }
      }
    return undefined
  })
}
