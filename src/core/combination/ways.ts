import type { Compass } from '../body/places'
import { otherWay, type Side, type Way } from '../body/side'
import type { Vocabulary } from '../moves/vocabulary'
import { remembered } from '../record/remembered'
import type { FirstWay } from '../what/move'
import { endsOf } from '../what/places'
import type { Event, Phrase } from './combination'

/**
 * The way round a ring goes that leads through some part of it first, by where the hips or the ribs are,
 * led from the right. From the middle, the front or the back it goes towards the leading side.
 */
const WAYS: Readonly<Record<Compass, Readonly<Record<FirstWay, Way>>>> = {
  C: { front: 'cw', back: 'ccw', side: 'cw' },
  F: { front: 'cw', back: 'cw', side: 'cw' },
  B: { front: 'ccw', back: 'ccw', side: 'ccw' },
  R: { front: 'ccw', back: 'cw', side: 'cw' },
  L: { front: 'cw', back: 'ccw', side: 'ccw' },
  FR: { front: 'ccw', back: 'cw', side: 'cw' },
  FL: { front: 'cw', back: 'ccw', side: 'ccw' },
  BR: { front: 'ccw', back: 'cw', side: 'ccw' },
  BL: { front: 'cw', back: 'ccw', side: 'cw' },
}
const IN_THE_MIDDLE: ReadonlySet<Compass> = new Set<Compass>(['C', 'F', 'B'])

/** An event as it is kept: what it goes through first says the way round, which is not stored beside it. */
export function withoutWay<E extends Pick<Event, 'what'>>(event: E): E {
  const { what } = event
  if (what.kind !== 'move' || !what.by || !what.way) return event
  const { way: _, ...kept } = what
  return { ...event, what: kept }
}

interface Led {
  readonly lead: Side
  readonly vocabulary: Vocabulary
}

/**
 * A phrase with the way round of each ring that says only what it goes through first; the very same
 * one where none does. Hips and ribs begin a phrase in the middle.
 */
export const withWays = remembered(
  (phrase: Phrase, { lead, vocabulary }: Led): Phrase => {
    if (!phrase.events.some(({ what }) => what.kind === 'move' && what.by)) return phrase
    const known = new Map<Event, Event>()
    for (const layer of ['hips', 'torso'] as const) {
      let place: Compass = 'C'
      const own = phrase.events.filter((event) => event.layer === layer).sort((a, b) => a.at - b.at)
      for (const event of own) {
        const { what } = event
        if (what.kind === 'at') place = what.place
        if (what.kind !== 'move') continue
        const move = vocabulary.find(what.move)
        if (what.by && !what.way) {
          const way = WAYS[place][what.by]
          const turned = lead === 'L' && IN_THE_MIDDLE.has(place) ? otherWay[way] : way
          known.set(event, { ...event, what: { ...what, way: turned } })
        }
        const side = what.side ?? (what.way === 'ccw' ? 'L' : 'R')
        const to = move && endsOf(move, side).to
        place = (layer === 'hips' ? to?.hips : to?.ribs) ?? place
      }
    }
    return { ...phrase, events: phrase.events.map((event) => known.get(event) ?? event) }
  },
  (a, b) => a.lead === b.lead && a.vocabulary === b.vocabulary,
)
