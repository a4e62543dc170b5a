import type { Event, LeftOut, Option, Phrase } from './combination'

type Change = <T extends Event | LeftOut>(list: readonly T[]) => readonly T[]

/** A phrase with what is danced in it changed in one way, in its options too. */
export const phraseWith = (phrase: Phrase, change: Change): Phrase => ({
  ...phrase,
  events: change(phrase.events),
  ...(phrase.options && { options: phrase.options.map((option) => optionWith(option, change)) }),
})

/** An option with all that it says changed in one way. */
export function optionWith({ events, without, ...option }: Option, change: Change): Option {
  const gone = change(without ?? [])
  return { ...option, events: change(events), ...(gone.length > 0 && { without: gone }) }
}
