import type { Combination } from '../combination/combination'
import { UserError } from '../errors'
import { severityOf } from '../findings/finding'
import { countWords } from '../time/countWords'
import type { Border } from './border'
import { dancedLike, lengthened, moved, restedOn, turned } from './edits'
import type { FactsOf } from './facts'
import type { SongFact } from './fit'
import { joinedAt } from './joined'
import { leftInSection } from './room'
import { endOfPiece, type Piece, type RestHow, type Routine } from './routine'
import { likeWords } from './words'

/** A way to put something of a routine right: tried before it is offered. */
export interface Offer {
  readonly words: string
  /** What it costs beside others (song 5). */
  readonly price: number
  readonly routine: Routine
  /** A combination that is danced in it, and is kept with it. */
  readonly made?: Combination
}

/** What each way costs, and what each count over an eight of rest costs more (h). */
const PRICES = {
  otherSide: 0.4,
  earlier: 0.5,
  wait: 0.6,
  rest: 0.8,
  more: 0.1,
  repeat: 1,
  whole: 1,
  cut: 1.2,
} as const
const EIGHT = 8

const REST_OFFERS: Readonly<Record<RestHow, string>> = {
  wait: 'Wait for',
  pose: 'Hold a pose for',
  free: 'Dance freely for',
  walk: 'Walk for',
}

/** What is needed to try an offer. */
interface Around extends Border {
  /** All that is worth a look in a routine. */
  readonly factsOf: FactsOf
}

/** Ways to put something right, the cheapest first; none of them brings about a fault that was not there. */
export function offersFor(fact: SongFact, around: Around): readonly Offer[] {
  const { routine, factsOf } = around
  const before = faultsIn(factsOf(routine))
  return waysFor(fact, around)
    .flatMap(({ words, price, make, made: also }): readonly Offer[] => {
      try {
        const made = make()
        const facts = factsOf(made, also)
        const isGone = facts.every((one) => one.code !== fact.code || one.at !== fact.at)
        return isGone && faultsIn(facts) <= before
          ? [{ words, price, routine: made, ...(also && { made: also }) }]
          : []
      } catch (error) {
        if (!(error instanceof UserError)) throw error
        return []
      }
    })
    .sort((a, b) => a.price - b.price)
}

const faultsIn = (facts: readonly SongFact[]): number =>
  facts.filter((fact) => fact.code === 'song.dance' && severityOf(fact.finding) === 'fault').length

interface Way {
  readonly words: string
  readonly price: number
  readonly make: () => Routine
  readonly made?: Combination
}

function waysFor(fact: SongFact, around: Around): readonly Way[] {
  const { routine, song, find, newId } = around
  switch (fact.code) {
    case 'song.gap':
    case 'song.end': {
      const { at } = fact
      const counts = Math.min(fact.counts, leftInSection(song, at))
      const before = routine.pieces.find((piece) => endOfPiece(piece) === at)
      const next = routine.pieces.find((piece) => piece.at === at + counts)
      const said = countWords(counts)
      return [
        ...(Object.keys(REST_OFFERS) as RestHow[]).map(
          (how): Way => ({
            words: `${REST_OFFERS[how]} ${said}`,
            price:
              (how === 'wait' ? PRICES.wait : PRICES.rest) +
              PRICES.more * Math.max(0, counts - EIGHT),
            make: () => restedOn(routine, song, { at, counts, how, id: newId() }),
          }),
        ),
        ...(before && endsOnPhrase(before, counts, find)
          ? [
              {
                words: `Go on with what is before it for ${said}`,
                price: PRICES.repeat,
                make: () => lengthened(routine, song, before.id, counts),
              },
            ]
          : []),
        ...(next && counts < EIGHT
          ? [
              {
                words: `Begin what comes next ${said} earlier`,
                price: PRICES.earlier,
                make: () => moved(routine, song, next.id, -counts),
              },
            ]
          : []),
      ]
    }
    case 'song.cut': {
      const { piece, counts, whole } = fact
      if (!piece) return []
      return [
        {
          words: `Dance the whole phrase, ${countWords(whole - counts)} more`,
          price: PRICES.whole,
          make: () => lengthened(routine, song, piece.id, whole - counts),
        },
        {
          words: `End before it, ${countWords(counts)} earlier`,
          price: PRICES.cut,
          make: () => lengthened(routine, song, piece.id, -counts),
        },
      ]
    }
    case 'song.dance': {
      const { piece, finding, at } = fact
      if (piece?.what.kind !== 'dance') return []
      return [
        {
          words: 'Dance it from its other side',
          price: PRICES.otherSide,
          make: () => turned(routine, piece.id),
        },
        ...(severityOf(finding) === 'fault'
          ? joinedAt(at, around).map(({ words, cost, made, routine: joined }) => ({
              words,
              price: cost,
              made,
              make: () => joined,
            }))
          : []),
      ]
    }
    case 'song.pickup': {
      const { piece, counts } = fact
      return piece
        ? [
            {
              words: `Begin it ${countWords(counts)} later`,
              price: PRICES.wait,
              make: () => moved(routine, song, piece.id, counts),
            },
          ]
        : []
    }
    case 'song.same': {
      const { like, section } = fact
      return [
        {
          words: `Dance it as ${likeWords(like, song)}`,
          price: PRICES.whole,
          make: () => dancedLike(routine, song, section, like, newId),
        },
      ]
    }
    case 'song.facing':
    case 'song.load':
    case 'song.lost':
      return []
  }
}

/** Whether a piece that goes on for so many counts ends with a phrase. */
function endsOnPhrase(
  { counts, what }: Piece,
  more: number,
  find: (id: string) => Combination | undefined,
): boolean {
  const combination = what.kind === 'dance' ? find(what.combination) : undefined
  if (what.kind !== 'dance' || !combination) return false
  const { order, phrases } = combination
  // Counted as it is written.
  let left = (counts + more) * (what.pace ?? 1)
  for (let index = what.from; left > 0; index++) {
    const entry = order[index % order.length]
    left -= phrases.find(({ id }) => id === entry?.phrase)?.counts ?? left
  }
  return left === 0
}
