import { type FootAction, factsOf } from '../body/feet'
import { type Combination, type Event, lengthOf } from '../combination/combination'
import { UserError } from '../errors'
import { COUNT, type Span, tick } from '../time/time'
import { changeEvents, changePhrase, type Edit } from './edit'

const footOf = (event: Event | undefined): FootAction | undefined =>
  event?.what.kind === 'foot' ? event.what.action : undefined

const canTurn = (event: Event): boolean => {
  const action = footOf(event)
  return action !== undefined && factsOf(action.primitive).lands
}

function withTurn(event: Event, turn: number): Event {
  const action = footOf(event)
  if (!action) return event
  const { turn: _, ...plain } = action
  return { ...event, what: { kind: 'foot', action: turn === 0 ? plain : { ...plain, turn } } }
}

/** Gives half of a step's turn to the next step of its phrase, or to the one before where there is none. */
export const shareTurn =
  (id: string): Edit =>
  (combination) => {
    const phrase = combination.phrases.find(({ events }) => events.some((event) => event.id === id))
    const event = phrase?.events.find((one) => one.id === id)
    const turn = footOf(event)?.turn
    if (!phrase || !event || !turn) return combination
    const steps = phrase.events.filter((one) => one.layer === 'feet' && canTurn(one))
    const partner =
      steps.find(({ at }) => at > event.at) ?? steps.findLast(({ at }) => at < event.at)
    if (!partner || partner.kept) return combination
    const half = Math.round(turn / 2)
    return changeEvents(new Set([id, partner.id]), (one) =>
      one.id === id ? withTurn(one, turn - half) : withTurn(one, (footOf(one)?.turn ?? 0) + half),
    )(combination)
  }

/**
 * One turn shared by all that lands in a span of a phrase, figures too: they stay figures.
 * @throws UserError where nothing steps there.
 */
export const sharedTurn =
  (phraseId: string, span: Span, degrees: number, id: string): Edit =>
  (combination) => {
    const end = span.at + span.length
    const phrase = combination.phrases.find((one) => one.id === phraseId)
    const isThere = ({ layer, at }: Event) => layer === 'feet' && at >= span.at && at < end
    const isFigure = (event: Event) => isThere(event) && event.what.kind === 'move'
    if (!phrase?.events.some(isFigure) || degrees === 0)
      return spreadTurn(phraseId, span, degrees)(combination)
    return changePhrase(phraseId, (one) => ({
      ...one,
      events: [
        ...one.events
          .filter((event) => !isThere(event) || event.what.kind !== 'share')
          .map((event) => (isThere(event) && canTurn(event) ? withTurn(event, 0) : event)),
        { id, layer: 'feet', ...span, what: { kind: 'share', degrees } },
      ],
    }))(combination)
  }

/**
 * One turn shared over the single steps that start in a span of a phrase: whole degrees each, and
 * together exactly the turn.
 * @throws UserError where nothing steps there.
 */
export const spreadTurn =
  (phraseId: string, { at, length }: Span, degrees: number): Edit =>
  (combination) => {
    const phrase = combination.phrases.find(({ id }) => id === phraseId)
    const end = at + length
    const steps = (phrase?.events ?? []).filter(
      (event) => event.layer === 'feet' && event.at >= at && event.at < end && canTurn(event),
    )
    if (steps.length === 0)
      throw new UserError(
        'Nothing steps on these counts, so nothing can turn.',
        'Select counts with single steps; open a figure into its steps first.',
      )
    const shareUpTo = (i: number) => Math.round((degrees * i) / steps.length)
    const shares = new Map(steps.map(({ id }, i) => [id, shareUpTo(i + 1) - shareUpTo(i)]))
    return changeEvents(new Set(shares.keys()), (event) =>
      withTurn(event, shares.get(event.id) ?? 0),
    )(combination)
  }

/** Starts the combination facing another way: 45 across the diagonal, 180 with the back to the front. */
export const startFacing =
  (facing: number): Edit =>
  (combination) => ({ ...combination, start: { ...combination.start, facing } })

const EACH_WALL = 90

/**
 * Ends each round a quarter turn further, so that four rounds show it to all four walls: the
 * last step turns what is missing, and the facing is written there to be checked.
 * @param facing where the round faces at its end now, and where it began.
 * @throws UserError where no single step stands at the end.
 */
export const toFourWalls =
  (facing: { readonly start: number; readonly end: number }, way: 1 | -1): Edit =>
  (combination) => {
    const entry = combination.order.at(-1)
    const phrase = combination.phrases.find(({ id }) => id === entry?.phrase)
    const last = phrase?.events.findLast((event) => event.layer === 'feet' && canTurn(event))
    if (!phrase || !last || entry?.mirrored || danced(combination, phrase.id) > 1)
      throw new UserError(
        'The last phrase has no single step of its own to turn on.',
        'Open its figure into steps, or make the last phrase one that is danced once.',
      )
    const missing = facing.start + way * EACH_WALL - facing.end
    const turned = changeEvents(new Set([last.id]), (event) =>
      withTurn(event, (footOf(event)?.turn ?? 0) + missing),
    )(combination)
    const at = tick(Math.min(last.at + (last.length ?? COUNT), lengthOf(phrase)) - 1)
    return changePhrase(phrase.id, (one) => ({
      ...one,
      facings: [
        ...(one.facings ?? []).filter((written) => written.at < last.at),
        { at, degrees: facing.start + way * EACH_WALL },
      ],
    }))(turned)
  }

const danced = ({ order }: Combination, phrase: string): number =>
  order.filter((entry) => entry.phrase === phrase).length
