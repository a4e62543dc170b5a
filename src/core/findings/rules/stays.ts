import type { Layer } from '../../body/layers'
import { claimOf } from '../../combination/claims'
import type { DancedEvent } from '../../combination/lengths'
import { nameOf } from '../../combination/names'
import type { Pass } from '../../combination/passes'
import type { BodyPart } from '../../moves/move'
import type { Vocabulary } from '../../moves/vocabulary'
import { overlap, type Span, tick } from '../../time/time'
import type { Found } from '../finding'
import { type Rule, spotIn } from '../rule'

/** The parts that move where a layer does. */
const PARTS: Readonly<Partial<Record<Layer, readonly BodyPart[]>>> = {
  legs: ['legR', 'legL'],
  hips: ['pelvis'],
  torso: ['ribs', 'shoulders'],
  arms: ['armR', 'armL'],
  head: ['head'],
}

/** What is to stay and is moved, a pose in which something begins, what is prepared and never comes. */
export const stays: Rule = {
  id: 'stays',
  *check({ simulation, vocabulary }) {
    for (const pass of simulation.passes) {
      for (const event of pass.events)
        if (event.what.kind === 'stay') yield* movedIn(event, pass, vocabulary)
      for (const remark of pass.remarks) {
        if (remark.kind === 'pose') yield* begunIn(remark, pass, vocabulary)
        const { for: due } = remark
        const begins =
          pass.events.some(({ at }) => at === due) ||
          simulation.danced.some((step) => step.pass === pass && step.at - pass.at === due)
        if (due !== undefined && !begins)
          yield {
            code: 'prepare.lost',
            text: remark.text,
            spot: spotIn(pass, tick(pass.at + remark.at), 'feet'),
            events: [],
          }
      }
    }
  },
}

/** Where something is danced in a time in which nothing should be. */
const withinBoth = (pass: Pass, still: Span, event: DancedEvent) =>
  spotIn(pass, tick(pass.at + Math.max(still.at, event.at)), event.layer)

const isDanced = ({ what }: DancedEvent): boolean => what.kind !== 'stay' && what.kind !== 'free'

/** What moves a layer that is to stay. */
function* movedIn(stay: DancedEvent, pass: Pass, vocabulary: Vocabulary): Generator<Found> {
  const parts = PARTS[stay.layer] ?? []
  for (const event of pass.events) {
    const isMoved =
      event.layer === stay.layer ||
      claimOf(event, vocabulary).parts.some((part) => parts.includes(part))
    if (!isDanced(event) || !isMoved || !overlap(stay, event)) continue
    yield {
      code: 'stay.moved',
      stays: stay.layer,
      move: nameOf(event, vocabulary),
      spot: withinBoth(pass, stay, event),
      events: [event.id, stay.id],
    }
  }
}

/** What begins while one holds a pose, or shakes on; what arrives with it is part of it. */
function* begunIn(pose: Span, pass: Pass, vocabulary: Vocabulary): Generator<Found> {
  for (const event of pass.events) {
    const { kind } = claimOf(event, vocabulary)
    const arrives = event.at === pose.at && (kind === 'place' || event.what.kind === 'foot')
    const begins = event.at >= pose.at && event.at < pose.at + pose.length && !arrives
    const shakes = kind === 'texture' && overlap(pose, event)
    if (!isDanced(event) || (!begins && !shakes)) continue
    yield {
      code: 'stay.moved',
      stays: 'pose',
      move: nameOf(event, vocabulary),
      spot: withinBoth(pass, pose, event),
      events: [event.id],
    }
  }
}
