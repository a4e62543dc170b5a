import { dequal } from 'dequal'
import type { Combination, Event, Phrase } from '../combination/combination'

/**
 * A changed combination that came from elsewhere, with the very objects of the one before
 * wherever nothing changed: what compares by identity then sees only the change.
 */
export function sharing(before: Combination, after: Combination): Combination {
  const events = new Map(
    before.phrases.flatMap(({ events: all }) => all.map((one) => [one.id, one])),
  )
  const phrases = new Map(before.phrases.map((phrase) => [phrase.id, phrase]))
  const sameEvent = (event: Event): Event => {
    const known = events.get(event.id)
    return known && dequal(known, event) ? known : event
  }
  const samePhrase = (phrase: Phrase): Phrase => {
    const known = phrases.get(phrase.id)
    if (known && dequal(known, phrase)) return known
    return { ...phrase, events: phrase.events.map(sameEvent) }
  }
  return { ...after, phrases: after.phrases.map(samePhrase) }
}
