import fc from 'fast-check'

/** `all` runs every case there is, as the nightly script does; else some of them with each seed. */
const SHARE = process.env.CASES === 'all' ? 1 : 0.07

/** Another one every day, so that the same cases are not run for ever; `SEED` repeats a day that failed. */
const SEED_OF_THE_DAY = Number(
  process.env.SEED ?? new Date().toISOString().slice(0, 10).replaceAll('-', ''),
)

/** So many of all cases are run, both seeds together: what a test counts is counted by it. */
export const casesOf = (all: number): number => Math.floor(all * Math.min(1, 2 * SHARE))

interface Cases {
  /** How many in all; each seed runs its share of them. */
  readonly numRuns?: number
  readonly seed?: number
}

/**
 * Asserts that a property holds: for cases of a fixed seed, and for as many of the day. What fails
 * is told with its seed and its path.
 */
export function holds<T>(property: fc.IAsyncProperty<T>, cases?: Cases): Promise<void>
export function holds<T>(property: fc.IProperty<T>, cases?: Cases): void
export function holds<T>(
  property: fc.IAsyncProperty<T> | fc.IProperty<T>,
  { numRuns = 100, seed = 1 }: Cases = {},
): Promise<void> | void {
  const runs = Math.max(2, Math.ceil(numRuns * SHARE))
  const withSeed = (one: number) => fc.assert(property, { numRuns: runs, seed: one })
  // A property of its own for every test: the seed of the day is not the same case everywhere.
  const ofTheDay = SEED_OF_THE_DAY + seed
  const first = withSeed(seed)
  return first instanceof Promise ? first.then(() => withSeed(ofTheDay)) : withSeed(ofTheDay)
}
