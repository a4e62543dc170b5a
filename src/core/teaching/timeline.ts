import { otherSide, SIDES, type Side, sideWord } from '../body/side'
import type { Combination } from '../combination/combination'
import { mirror } from '../combination/mirror'
import { passesOf, pickupTicks } from '../combination/passes'
import { COUNT, TICKS_PER_COUNT, type Tick, tick } from '../time/time'

/** Something that is said or shown at a time, when a combination is danced on both sides. */
export interface TimelineItem {
  readonly kind: 'side' | 'count-in' | 'phrase' | 'count' | 'cue'
  /** From the very start, count-ins included. */
  readonly at: Tick
  readonly length: Tick
  readonly text: string
  readonly side: Side
}

const COUNT_IN = 4

/** How many counts are counted in: four, or as many as the pickup needs. */
export const countInCounts = (combination: Combination): number =>
  Math.max(COUNT_IN, pickupTicks(combination) / TICKS_PER_COUNT)

/** The numbers of a count-in, the last of them 8: `5 6 7 8`. */
export const countInNumbers = (counts: number): readonly number[] =>
  Array.from({ length: counts }, (_, i) => ((8 - counts + i + 16) % 8) + 1)

/**
 * The lead side and then the other, each counted in once: sides, phrases, whole counts and
 * cues at their own times.
 */
export function timelineOf(combination: Combination): readonly TimelineItem[] {
  const items: TimelineItem[] = []
  let from = 0
  for (const side of [combination.lead, otherSide[combination.lead]]) {
    const danced = side === combination.lead ? combination : mirror(combination)
    const add = (kind: TimelineItem['kind'], at: number, length: number, text: string) =>
      items.push({ kind, at: tick(from + at), length: tick(length), text, side })
    const counts = countInCounts(combination)
    add('side', 0, counts * COUNT, `${capital(sideWord[side])} side`)
    for (const [i, number] of countInNumbers(counts).entries())
      add('count-in', i * COUNT, COUNT, String(number))
    from += counts * COUNT
    for (const pass of passesOf(danced)) {
      const { name, title } = pass.phrase
      add('phrase', pass.at, COUNT, title ? `${name}: ${title}` : name)
      for (let i = 0; i < pass.length / COUNT; i++)
        add('count', pass.at + i * COUNT, COUNT, String(i + 1))
      const cues = [
        ...pass.events.flatMap(({ at, length, cue }) => (cue ? [{ at, length, text: cue }] : [])),
        ...pass.remarks.filter(({ kind }) => kind === 'say'),
      ]
      for (const { at, length, text } of cues) add('cue', pass.at + at, length, text)
    }
    const last = passesOf(danced).at(-1)
    from += last ? last.at + last.length : 0
  }
  return items.sort((a, b) => a.at - b.at || SIDES.indexOf(a.side) - SIDES.indexOf(b.side))
}

const capital = (text: string): string => `${text[0]?.toUpperCase() ?? ''}${text.slice(1)}`
