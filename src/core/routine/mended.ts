import type { Combination, Phrase } from '../combination/combination'
import { phraseDanced } from '../combination/passes'
import { faultsOf } from '../findings/faults'
import { placeWords } from '../song/lines'
import type { Border } from './border'
import type { Laid } from './laid'
import type { Routine } from './routine'
import type { LaidPass } from './turns'

/** A combination with one phrase danced otherwise, in place of the one it was made from. */
interface Mended {
  readonly made: Combination
  readonly routine: Routine
  /** The places at which its phrase is danced, as they are said. */
  readonly where: string
}

/**
 * A combination whose phrase is danced otherwise wherever it lies on a song. Undefined where it is
 * danced once, only in part or at another pace, or where it could less be danced by itself.
 * @param laid the phrase as it was laid
 * @param changed the same phrase with its new feet
 */
export function mendedWherever(
  laid: Phrase | undefined,
  changed: Phrase,
  pass: LaidPass,
  around: Border & { readonly laid: Laid },
): Mended | undefined {
  const { piece, combination, counts, whole } = pass
  const { routine, song, vocabulary, house, newId } = around
  const written = writtenOf(pass)
  if (!laid || !combination || !written || piece?.what.kind !== 'dance') return undefined
  const places = around.laid.passes.filter(
    (one) => one.combination === combination && writtenOf(one) === written,
  )
  if (places.length < 2 || counts < whole || piece.what.pace !== undefined) return undefined
  // What lies on a song has names of its own: those of the combination with more before them.
  const own = laid.id.slice(0, -written.id.length)
  const events = changed.events.map((event) =>
    event.id.startsWith(own) ? { ...event, id: event.id.slice(own.length) } : event,
  )
  const made: Combination = {
    ...combination,
    id: newId(),
    title: `${combination.title}, mended`.slice(0, 120),
    phrases: combination.phrases.map((one) => (one === written ? { ...one, events } : one)),
  }
  const faults = (one: Combination) => faultsOf(one, vocabulary, house).faults.length
  if (faults(made) > faults(combination)) return undefined
  return {
    made,
    routine: {
      ...routine,
      pieces: routine.pieces.map((one) =>
        one.what.kind === 'dance' && one.what.combination === combination.id
          ? { ...one, what: { ...one.what, combination: made.id } }
          : one,
      ),
    },
    where: `In all its places (${places.map(({ at }) => placeWords(song, at)).join(', ')})`,
  }
}

/** The phrase a pass dances, as its combination has it. */
const writtenOf = ({ combination, pass }: LaidPass): Phrase | undefined =>
  combination && phraseDanced(combination, pass)
