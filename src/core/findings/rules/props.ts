import { SIDES, type Side } from '../../body/side'
import type { DancedEvent } from '../../combination/lengths'
import { nameOf } from '../../combination/names'
import type { Motion } from '../../moves/motion'
import type { Vocabulary } from '../../moves/vocabulary'
import { overlap } from '../../time/time'
import { type Rule, spotOf } from '../rule'

/** A hand that holds something and is sent to clap, or to the other one (model 8). */
export const props: Rule = {
  id: 'props',
  *check({ simulation, vocabulary }) {
    for (const pass of simulation.passes) {
      const held = pass.remarks.filter(({ hand }) => hand)
      if (held.length === 0) continue
      for (const event of pass.events.filter(({ layer }) => layer === 'arms'))
        for (const { hand, text, ...span } of held) {
          if (!hand || !overlap(span, event) || !handsNeeded(event, vocabulary).includes(hand))
            continue
          yield {
            code: 'prop.hand',
            prop: text,
            hand,
            move: nameOf(event, vocabulary),
            spot: spotOf(pass, event),
            events: [event.id],
          }
        }
    }
  },
}

/** The hands that must be empty: for a clap, for palms that are laid together or behind the head, or to take a shape. */
export function handsNeeded({ what }: DancedEvent, vocabulary: Vocabulary): readonly Side[] {
  if (what.kind === 'arms')
    return SIDES.filter((side) => {
      const shape = what.hands?.[side]?.shape
      return (
        what[side] === 'prayer' ||
        what[side] === 'behind-head' ||
        (shape !== undefined && shape !== 'soft')
      )
    })
  const motion = what.kind === 'move' ? (vocabulary.find(what.move)?.motion ?? []) : []
  return motion.some(needsHands) ? SIDES : []
}

const needsHands = (item: Motion): boolean =>
  item.verb === 'clap' || (item.verb === 'to' && item.place === 'prayer')
