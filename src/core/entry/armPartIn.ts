import { type Hand, HandShape, PalmWay } from '../body/hands'
import type { ArmPlace } from '../body/places'
import { armPlaceIn } from './armPlaceIn'
import { EntryProblem } from './reader'
import type { Token } from './tokens'

/** What is said of one arm behind its side: `front fist palm in`, `palm up`, `cross-chest over`. */
interface ArmPart {
  readonly place: ArmPlace | undefined
  readonly hand: Hand | undefined
  /** It crosses in front of the other one. */
  readonly over: boolean
  /** How many words that is. */
  readonly words: number
}

/**
 * Reads what is said of one arm; undefined where it is something else.
 * @param wordAt the words behind its side, from 0
 * @throws EntryProblem where a palm is begun, but not where it looks
 */
export function armPartIn(wordAt: (i: number) => Token | undefined): ArmPart | undefined {
  const found = armPlaceIn(wordAt(0), wordAt(1))
  let words = found?.words ?? 0
  let hand: Hand | undefined
  let over = false
  for (;;) {
    const word = wordAt(words)
    const said = word?.quoted ? undefined : word?.text.toLowerCase()
    const shape = HandShape.safeParse(said)
    if (shape.success) {
      hand = { ...hand, shape: shape.data }
      words++
      continue
    }
    if (found && said === 'over') {
      over = true
      words++
      continue
    }
    if (!word || said !== 'palm') break
    const way = PalmWay.safeParse(wordAt(words + 1)?.text.toLowerCase())
    if (!way.success)
      throw new EntryProblem(
        `Say where the palm looks: palm ${PalmWay.options.join(', palm ')}.`,
        wordAt(words + 1) ?? word,
      )
    hand = { ...hand, palm: way.data }
    words += 2
  }
  if (!found && !hand) return undefined
  return { place: found?.place, hand, over, words }
}
