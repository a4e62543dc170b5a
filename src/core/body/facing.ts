/** A facing in the words of the room: `the right wall`, `45° to the left of front`. */
export function facingWord(facing: number): string {
  const around = ((facing % 360) + 360) % 360
  const wall = { 0: 'front', 90: 'the right wall', 180: 'the back', 270: 'the left wall' }[around]
  if (wall) return wall
  return around < 180 ? `${around}° to the right of front` : `${360 - around}° to the left of front`
}
