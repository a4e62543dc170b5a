/** How long a rope is that sags so far over a distance, in metres. */
export function arcOf(distance: number, sag: number): number {
  if (sag < 1e-6) return distance
  const steep = 4 * sag
  return (
    Math.hypot(distance, steep) / 2 +
    (distance * distance * Math.asinh(steep / distance)) / (2 * steep)
  )
}

/** How far something so long sags between two ends so far apart; nothing where it is taut. In metres. */
export function sagOf(long: number, distance: number): number {
  if (long <= distance) return 0
  if (distance < 1e-3) return long / 2
  let low = 0
  let high = long / 2
  for (let i = 0; i < 18; i++) {
    const middle = (low + high) / 2
    if (arcOf(distance, middle) < long) low = middle
    else high = middle
  }
  return (low + high) / 2
}
