import type { DancerLevel } from '../combination/combination'
import type { House } from '../house/house'
import { TICKS_PER_COUNT } from '../time/time'
import type { CountLoad } from './load'
import { loadWords } from './loadWords'

/** The load of one count against what the level takes, with its parts in words. */
export interface Heat {
  readonly count: number
  /** 1 is what the level takes. */
  readonly share: number
  readonly words: string
}

interface Loaded {
  readonly loads: readonly CountLoad[]
  readonly level: DancerLevel
  readonly house: House
}

/** How hard each count of a pass is. */
export function heatOf({ loads, level, house }: Loaded, pass: number): readonly Heat[] {
  const limit = house.limits[`load.limit.${level}`]
  return loads
    .filter((one) => one.pass === pass)
    .map((one) => ({ count: one.count, share: one.total / limit, words: loadWords(one, limit) }))
}

/** How hard the count at a tick of a pass is; absent before its first. */
export const heatAt = (loaded: Loaded, pass: number, at: number): Heat | undefined =>
  heatOf(loaded, pass).find(({ count }) => count === Math.floor(at / TICKS_PER_COUNT) + 1)
