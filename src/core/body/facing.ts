/** Degrees from 0 to below 360 that come to the same facing. */
export const onceRound = (degrees: number): number => ((degrees % 360) + 360) % 360

/** The shorter way round to a facing: degrees to the right, from above -180 to 180. */
export function shorterWay(degrees: number): number {
  const right = onceRound(degrees)
  return right > 180 ? right - 360 : right
}

/** Whether degrees are whole or half, as turns and facings are. */
export const isHalfDegrees = (degrees: number): boolean => Number.isInteger(2 * degrees)

/** To half a degree, halves away from zero, so that the mirror image is exact. */
export const toHalfDegrees = (degrees: number): number =>
  (Math.sign(degrees) * Math.round(Math.abs(degrees) * 2)) / 2

/** A facing in the words of the room: `the right wall`, `45° to the left of front`. */
export function facingWord(facing: number): string {
  const around = onceRound(facing)
  const wall = { 0: 'front', 90: 'the right wall', 180: 'the back', 270: 'the left wall' }[around]
  if (wall) return wall
  return around < 180 ? `${around}° to the right of front` : `${360 - around}° to the left of front`
}
