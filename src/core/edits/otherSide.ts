import { dequal } from 'dequal'
import type { Combination, Event, Phrase } from '../combination/combination'
import type { DancedEvent } from '../combination/lengths'
import { mirror } from '../combination/mirror'
import { freeName } from '../combination/names'
import type { Pass } from '../combination/passes'
import { stepsToEnd } from '../combination/steps'
import { withoutWay } from '../combination/ways'
import type { Vocabulary } from '../moves/vocabulary'
import { type DancedStep, type Simulation, simulate } from '../simulate/simulate'
import { tick } from '../time/time'

/**
 * The other side, written out to be stored. Where turns are kept, every pass stands as it is
 * danced there: figures that turn are opened, and a phrase that goes another way the second
 * time becomes a phrase of its own. (A pickup of every round stands as it is danced first.)
 */
export function otherSideWritten(combination: Combination, vocabulary: Vocabulary): Combination {
  const side = mirror(combination)
  if (!side.otherTurns) return side
  const { otherTurns: _, ...plain } = side
  const simulation = simulate(side, vocabulary)
  if (simulation.danced.every(({ action }) => !action.turn)) return plain

  const phrases: Phrase[] = []
  const known = new Map<string, Phrase>()
  const phraseOf = (pass: Pass): Phrase => {
    const made = passWritten(pass, simulation)
    const key = JSON.stringify(made)
    const same = known.get(key)
    if (same) return same
    const isFirst = phrases.every(({ id }) => id !== made.id)
    // Beside those that are still to come, too.
    const own = isFirst ? made : withOwnName(made, [...phrases, ...side.phrases])
    phrases.push(own)
    known.set(key, own)
    return own
  }
  const order = simulation.passes.map((pass, i) => ({
    phrase: phraseOf(pass).id,
    mirrored: false,
    ...(combination.order[i]?.loops && { loops: true as const }),
  }))
  return { ...plain, phrases, order }
}

/** The phrase of a pass as it is danced in it. */
function passWritten(pass: Pass, simulation: Simulation): Phrase {
  const { phrase, mirrored, index } = pass
  // What is danced with an option is written out.
  const isVaried = simulation.combination.order[index]?.options !== undefined
  const [{ like: _, options, ...shown } = phrase] = mirrored
    ? mirror({ ...simulation.combination, phrases: [phrase] }).phrases
    : [phrase]
  const before = simulation.passes[index - 1]
  // What leads into it is danced over the end of the pass before.
  const leads = before?.leadIn?.into.index === index ? before : undefined
  const early = new Set(shown.events.filter(({ at }) => at < 0).map(({ id }) => id))
  const isLead = ({ id }: Pick<Event, 'id'>) => early.has(id)
  const danced = simulation.danced.filter((one) =>
    one.pass.index === index ? true : one.pass === leads && isLead(one.event),
  )
  const timed = new Map(
    [...(leads?.events.filter(isLead) ?? []), ...pass.events].map((event) => [event.id, event]),
  )
  const { facing } = simulation.combination.start
  return {
    ...shown,
    ...(options && !isVaried && { options }),
    events: shown.events
      .filter(({ at }) => at >= 0 || index === 0 || leads)
      .flatMap((event) =>
        eventWritten(event, timed.get(event.id), { pass, danced }, simulation.vocabulary),
      )
      .map(withoutWay),
    ...(shown.facings && {
      facings: shown.facings.map(({ at, degrees }) => ({ at, degrees: 2 * facing - degrees })),
    }),
  }
}

/** An event as its steps are danced; as it stands where that says the same. */
function eventWritten(
  event: Event,
  timed: DancedEvent | undefined,
  { pass, danced }: { readonly pass: Pass; readonly danced: readonly DancedStep[] },
  vocabulary: Vocabulary,
): readonly Event[] {
  // What is free is free on either side, and no step that could be written.
  if (event.layer !== 'feet' || !timed || event.what.kind === 'free') return [event]
  const steps = danced.filter((one) => one.event.id === event.id)
  const written = stepsToEnd(timed, vocabulary)
  const isSame = steps.every(({ action }, i) => dequal(action, written[i]?.action))
  if (isSame) return [event]
  const { as, length: _, held: __, either, ...plain } = event
  // Where a place is held, coming back from it is no step of its own: it may be on the border of the phrase.
  const { until } = timed
  const last = until === undefined ? steps.length : steps.length - 1
  return steps.slice(0, Math.max(1, last)).map((one, i) => ({
    ...plain,
    ...(until !== undefined && i === last - 1 && { held: tick(until - one.at + pass.at) }),
    ...(event.what.kind === 'foot' && as !== undefined && { as }),
    // The steps of a figure that is opened are on the feet they are on.
    ...(event.what.kind === 'foot' && either && { either }),
    id: i === 0 ? event.id : `${event.id}-${i}`,
    at: tick(one.at - pass.at),
    what: { kind: 'foot', action: one.action },
  }))
}

/** Beside a phrase of the same name: another one, with ids of its own. */
function withOwnName({ options: _, ...phrase }: Phrase, others: readonly Phrase[]): Phrase {
  const name = freeName(others, phrase.name)
  const idOf = (id: string) => `${id}-${name}`
  return {
    ...phrase,
    id: idOf(phrase.id),
    name,
    events: phrase.events.map((event) => ({ ...event, id: idOf(event.id) })),
    ...(phrase.remarks && {
      remarks: phrase.remarks.map((remark) => ({ ...remark, id: idOf(remark.id) })),
    }),
    ...(phrase.between && {
      between: phrase.between.map((one) => ({ ...one, id: idOf(one.id) })),
    }),
    ...(phrase.props && { props: phrase.props.map((one) => ({ ...one, id: idOf(one.id) })) }),
  }
}
