/** How many of these times are not after t: a search by halves. */
export function countUpTo(times: Float64Array, t: number): number {
  let low = 0
  let high = times.length
  while (low < high) {
    const middle = (low + high) >> 1
    if ((times[middle] as number) <= t) low = middle + 1
    else high = middle
  }
  return low
}
