import type { Drill } from './drill'
import { type Materials, roundOf, secondsOf } from './material'

/** A stretch of a class that is read as one: `Warm up`, `A`, `Water`, `A to C` (teaching 10.1). */
export interface Block {
  readonly title: string
  readonly drills: readonly Drill[]
  /** Seconds from the start of the class, and how long it lasts. */
  readonly at: number
  readonly seconds: number
}

const FRAME_TITLES: Readonly<Partial<Record<Drill['kind'], string>>> = {
  hello: 'Hello',
  show: 'Hello',
  'warm-up': 'Warm up',
  technique: 'Technique',
  'switch-practice': 'Both sides',
  sides: 'Both sides',
  'free-run': 'Runs',
  song: 'With music',
  pause: 'Water',
  recap: 'Recap',
  open: 'Open',
  'cool-down': 'Cool down',
}

/** What a step belongs to, and what that is called. */
function blockOf(
  drill: Drill,
  next: Drill | undefined,
  materials: Materials,
): { readonly key: string; readonly title: string } {
  const fixed = FRAME_TITLES[drill.kind]
  if (fixed !== undefined) return { key: fixed, title: fixed }
  if (drill.kind === 'review' || drill.kind === 'catch-up' || isReviewWalk(drill, next))
    return { key: 'review', title: 'Review' }
  const passes = roundOf(drill, materials)?.passes ?? []
  const names = [...new Set(passes.map(({ phrase }) => phrase.name))]
  const [first = ''] = names
  if (drill.kind === 'run' && drill.task !== undefined) return { key: 'runs', title: 'Runs' }
  const isTop = drill.kind === 'join' || drill.kind === 'run'
  const title = names.length > 1 ? `${first} to ${names.at(-1)}` : first
  const own = passes[0]?.phrase.title
  return {
    key: `${isTop ? 'top' : 'phrase'} ${drill.combination ?? ''} ${names.join(' ')}`,
    title: isTop
      ? `${title}, from the top`
      : names.length === 1 && own
        ? `${title} · ${own}`
        : title,
  }
}

const isReviewWalk = (drill: Drill, next: Drill | undefined): boolean =>
  drill.kind === 'walk' &&
  next?.kind === 'review' &&
  next.combination === drill.combination &&
  next.phrases.join() === drill.phrases.join()

/** A class as it is read from the floor: steps that belong together are one block. */
export function blocksOf(drills: readonly Drill[], materials: Materials): readonly Block[] {
  const blocks: (Block & { readonly key: string })[] = []
  let at = 0
  for (const [i, drill] of drills.entries()) {
    const seconds = secondsOf(drill, materials)
    const { key, title } = blockOf(drill, drills[i + 1], materials)
    const last = blocks.at(-1)
    if (last?.key === key)
      blocks[blocks.length - 1] = {
        ...last,
        drills: [...last.drills, drill],
        seconds: last.seconds + seconds,
      }
    else blocks.push({ key, title, drills: [drill], at, seconds })
    at += seconds
  }
  return blocks
}
