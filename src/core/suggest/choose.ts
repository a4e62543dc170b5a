import type { Checked } from '../findings/checked'
import { keyOf } from '../load/things'
import type { Vocabulary } from '../moves/vocabulary'
import { overlap } from '../time/time'
import type { Composing } from './composing'
import { isEnding, isOfFamily, type Motif } from './material'
import type { Gap } from './suggest'

/** So often another motif is tried where one does not stand. */
const TRIES = 3
/** How often what usually goes with what is there is taken before anything else. */
const USUAL_SHARE = 0.7
/** How often what the family has by name is taken before what all have. */
const FAMILY_SHARE = 0.65
/** How often a phrase ends on an accent where one fits. */
const ACCENT_SHARE = 0.6

interface Choosing {
  readonly composing: Composing
  readonly checked: Checked
  readonly gap: Gap
  /** The group does not know it yet. */
  readonly isNew: boolean
  /** It ends the stretch, and comes once. */
  readonly isEnd: boolean
  readonly families: readonly string[]
  readonly next: () => number
}

/** Some motifs to try, first what was drawn first: rather what usually goes with what is there, and an end on an accent. */
export function choose(
  motifs: readonly Motif[],
  { composing, checked, gap, isNew, isEnd, families, next }: Choosing,
): readonly Motif[] {
  const { known, layerings, vocabulary } = composing
  const fit = known ? motifs.filter(({ key }) => known.has(key) !== isNew) : motifs
  const around = new Set(
    beside(checked, gap, vocabulary).flatMap((key) => [...(layerings.get(key) ?? [])]),
  )
  const usual = fit.filter(({ key }) => around.has(key))
  const ending = isEnd ? fit.filter(({ what }) => isEnding(what, gap.layer, vocabulary)) : []
  const own = fit.filter(({ what }) => isOfFamily(what, families, vocabulary))
  const chosen: Motif[] = []
  for (let tried = 0; tried < TRIES; tried++) {
    const by = next()
    const list =
      ending.length > 0 && next() < ACCENT_SHARE
        ? ending
        : usual.length > 0 && next() < USUAL_SHARE
          ? usual
          : own.length > 0 && next() < FAMILY_SHARE
            ? own
            : fit
    const one = list[Math.floor(by ** 1.5 * list.length)]
    if (one && !chosen.includes(one)) chosen.push(one)
  }
  return chosen
}

/** Keys of what is danced on the other layers over the counts of a gap. */
export function beside({ lead }: Checked, gap: Gap, vocabulary: Vocabulary): readonly string[] {
  const events = lead.passes[gap.pass]?.events ?? []
  return events
    .filter((event) => event.layer !== gap.layer && overlap(event, gap))
    .map((event) => keyOf(event, vocabulary))
}
