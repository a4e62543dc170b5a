import type { Side } from '../body/side'
import type { Motion } from '../moves/motion'
import type { Move } from '../moves/move'
import type { Run } from '../simulate/course'
import { TICKS_PER_COUNT } from '../time/time'
import type { TimeMap } from '../time/timeMap'
import { repeatsOf } from '../what/repeats'
import type { PathSize } from './paths'

/** One repeat of a move, with the side it is danced on. */
export interface Repeat {
  readonly start: number
  readonly end: number
  readonly left: boolean
}

/** How a move fills its time: accents again and again, a path once unless it says how often. */
export function repeatsIn(run: Run, move: Move, lead: Side): readonly Repeat[] {
  const { event, at: start } = run
  const { what } = event
  if (what.kind !== 'move') return []
  const { every, times } = repeatsOf(what, event.length, move)
  // What has no side of its own begins with the side that leads.
  const leads = (lead === 'L') !== run.pass.mirrored
  const begins = what.side || what.way ? what.side === 'L' || what.way === 'ccw' : leads
  return Array.from({ length: times }, (_, i) => ({
    start: start + i * every,
    end: start + Math.min(event.length, (i + 1) * every),
    left: what.alt && i % 2 === 1 ? !begins : begins,
  }))
}

/** Items that follow one another in one part of the body, each with those that go with it. */
export function inTurn(items: readonly Motion[]): readonly (readonly Motion[])[] {
  const groups: Motion[][] = []
  for (const item of items) {
    const last = groups.at(-1)
    if ('with' in item && item.with && last) last.push(item)
    else groups.push([item])
  }
  return groups
}

/** The part of the body an item is about; what has the same part comes in turn. */
export const partOf = (item: Motion): string =>
  'channel' in item ? (item.channel.split('.')[0] ?? '') : 'own'

export interface DancedRepeat extends Repeat {
  readonly run: Run
  readonly move: Move
  /** Its size, 1 as written. */
  readonly by: number
  readonly time: TimeMap
  readonly rate: number | undefined
  /** How many repeats run through without a stop. */
  readonly rounds: number
  /** The head line says something meanwhile: the head leaves a wave there. */
  readonly headElsewhere: boolean
}

/** Repeats on one side of a circle or an eight are one way without a stop. */
export function mergedRepeats(
  run: Run,
  move: Move,
  lead: Side,
): readonly (Repeat & { readonly rounds: number })[] {
  const repeats = repeatsIn(run, move, lead)
  const [first] = repeats
  const last = repeats.at(-1)
  const closed = move.motion.some(({ verb }) => verb === 'circle' || verb === 'eight')
  const turns = run.event.what.kind === 'move' && run.event.what.alt
  if (!closed || turns || !first || !last) return repeats.map((one) => ({ ...one, rounds: 1 }))
  return [{ ...first, end: last.end, rounds: repeats.length }]
}

/** How often a circle or an eight goes round in the ticks it has: a whole number, so that it ends where it began. */
export function roundsOf(item: Motion, { start, end, rate, rounds }: DancedRepeat): number {
  const counts = (end - start) / TICKS_PER_COUNT
  const own = 'rate' in item ? item.rate : undefined
  if (rate !== undefined) return Math.max(1, Math.round(rate * counts))
  if (!own) return rounds
  return Math.max(1, Math.round(own.per === 'count' ? own.cycles * counts : own.cycles * rounds))
}

export const sizeOf = (item: Motion): PathSize => ('size' in item && item.size) || 'usual'

/** Items in turn share the time of a repeat equally. */
export function* sharesOf(
  items: readonly Motion[],
  { start, end }: Repeat,
): Generator<{ item: Motion; start: number; end: number }> {
  const groups = inTurn(items.filter(({ verb }) => verb !== 'osc'))
  const share = (end - start) / Math.max(1, groups.length)
  for (const [i, group] of groups.entries())
    for (const item of group) yield { item, start: start + i * share, end: start + (i + 1) * share }
}
