export function mean(values: ArrayLike<number>): number {
  let sum = 0
  for (let i = 0; i < values.length; i++) sum += values[i] as number
  return sum / Math.max(1, values.length)
}

/** The middle one by size, of an even number of them the larger; 0 where there are none. */
export const median = (values: readonly number[]): number =>
  [...values].sort((a, b) => a - b)[values.length >> 1] ?? 0

/** Numbers as how many spreads they are from their mean. */
export function scored(values: readonly number[]): readonly number[] {
  const middle = mean(values)
  const spread = Math.sqrt(mean(values.map((value) => (value - middle) ** 2))) || 1
  return values.map((value) => (value - middle) / spread)
}
