import fc from 'fast-check'
import type { Combination } from '../src/core/combination/combination'
import { writtenOut } from '../src/core/combination/like'
import type { Edit } from '../src/core/edits/edit'
import * as edits from '../src/core/edits/edits'
import * as phrases from '../src/core/edits/phrases'
import { UserError } from '../src/core/errors'
import { vocabulary } from '../src/core/moves/vocabulary'
import { tick } from '../src/core/time/time'

type Picks = Readonly<Record<'a' | 'b' | 'c', number>>

/** An edit of something the combination has; which, is picked by numbers. */
const KINDS: Readonly<
  Record<string, (picks: Picks, event: string, phrase: string, one: Combination) => Edit>
> = {
  move: ({ a }, event) => edits.moveEvents([event], (a % 49) - 24),
  moveTo: ({ a }, event, phrase) => edits.moveEventTo(event, phrase, tick(a % 96)),
  stretch: ({ a }, event) => edits.stretchEvents([event], (a % 49) - 24, vocabulary),
  remove: (_, event) => edits.removeEvents([event]),
  side: ({ a }, event) => edits.changeSide([event], a % 2 === 0 ? 'R' : 'L'),
  turnOver: (_, event) => edits.turnOver([event]),
  cue: ({ a }, event) => edits.changeEvent(event, { cue: a % 2 === 0 ? 'now' : undefined }),
  tempo: ({ a }) => edits.describe({ tempo: 40 + (a % 181) }),
  name: ({ a }, _, phrase) => phrases.namePhrase(phrase, a % 2 === 0 ? 'Ember' : ''),
  counts: ({ a }, _, phrase) => phrases.setCounts(phrase, 1 + (a % 12)),
  insert: ({ a, b }, _, phrase) => phrases.insertCounts(phrase, 1 + (a % 8), 1 + (b % 2)),
  cut: ({ a, b }, _, phrase) => phrases.deleteCounts(phrase, 1 + (a % 8), 1 + (b % 2)),
  retime: ({ a }, _, phrase) => phrases.retime(phrase, a % 2 === 0 ? 2 : 0.5, vocabulary),
  pickup: ({ a, b }) => phrases.setPickup(a % 9, b % 2 === 0),
  ownPickup: ({ a }, _, phrase) => phrases.setOwnPickup(phrase, a % 4),
  number: ({ a }, _, phrase) => phrases.numberFrom(phrase, 1 + (a % 12)),
  add: ({ a, b }, _, __, one) =>
    one.phrases.some(({ id }) => id === `added-${a}`)
      ? (same) => same
      : phrases.addPhrase(`added-${a}`, a % one.order.length, 1 + (b % 8)),
  like: ({ a, b }, _, __, one) =>
    one.phrases.some(({ id }) => id === `like-${b}`)
      ? (same) => same
      : phrases.addLike(`like-${b}`, a % one.order.length),
  writtenOut: (_, __, phrase) => writtenOut(phrase),
  take: ({ a }, _, __, { order }) => phrases.removePass(a % order.length),
  order: ({ a, b }, _, __, { order }) => phrases.movePass(a % order.length, b % order.length),
  repeat: ({ a }, _, __, { order }) => phrases.repeatPass(a % order.length),
  mirror: ({ a }, _, __, { order }) => phrases.turnPass(a % order.length),
}

/** What an instructor might do next; what can't be done is left as it is. */
export const anyEdit: fc.Arbitrary<Edit> = fc
  .record({
    kind: fc.constantFrom(...Object.keys(KINDS)),
    picks: fc.record({ a: fc.nat(1000), b: fc.nat(1000), c: fc.nat(1000) }),
  })
  .map(({ kind, picks }) => {
    const edit: Edit = (combination) => {
      const events = combination.phrases.flatMap((phrase) => phrase.events)
      const event = events[picks.c % Math.max(1, events.length)]?.id ?? ''
      const phrase = combination.phrases[picks.b % combination.phrases.length]?.id ?? ''
      try {
        return KINDS[kind]?.(picks, event, phrase, combination)(combination) ?? combination
      } catch (error) {
        if (error instanceof UserError) return combination
        throw error
      }
    }
    return Object.assign(edit, {
      [fc.toStringMethod]: () => `${kind} ${Object.values(picks).join(' ')}`,
    })
  })

/** The same with the fields of its events in another order, as another program might have written it. */
export const reordered = (one: Combination): Combination => ({
  ...one,
  phrases: one.phrases.map((phrase) => ({
    ...phrase,
    events: phrase.events.map(
      (event) => Object.fromEntries(Object.entries(event).reverse()) as typeof event,
    ),
  })),
})
