import { LAYERS, type Layer } from '../body/layers'
import type { Combination, Phrase } from '../combination/combination'
import { type DancedEvent, dancedIn } from '../combination/lengths'
import { nameOf, placeIn } from '../combination/names'
import { phraseDanced } from '../combination/passes'
import { changeEvent } from '../edits/edits'
import { checkCombination } from '../findings/check'
import type { Finding } from '../findings/finding'
import { findingText } from '../findings/findingText'
import type { House } from '../house/house'
import { type Vocabulary, vocabularyFor } from '../moves/vocabulary'
import { COUNT, endOf, labelIn, labelOfSpan, tick } from '../time/time'
import { kindOf } from '../what/kinds'
import { asAsked, asItWas, type FillWish } from './asked'
import { waysToFill } from './fill'
import { gapsOf } from './gaps'
import { type Gap, isUnclean, newFindings, offersFor, placed } from './suggest'

/** Why nothing clean was found, and what comes nearest to it. */
export interface InTheWay {
  readonly text: string
  /** What could be taken all the same, and what it comes with. */
  readonly nearest?: {
    readonly words: string
    readonly combination: Combination
  }
}

/** Moves that are tried for what they run into. */
const TRIED = 16
/** Of what is held so much is freed at its end, in counts. */
const FREED = 2

/**
 * Why nothing clean was found for a layer of a phrase: it is full, it can't end as asked, the group
 * knows nothing that goes there, or what most moves there run into; with the nearest that can be taken.
 */
export function inTheWayOf(
  combination: Combination,
  wish: FillWish,
  base: Vocabulary,
  house: House,
): InTheWay {
  const { pass, layer, end, group, within } = wish
  const vocabulary = vocabularyFor(combination, base)
  const phrase = phraseDanced(combination, pass)
  if (!phrase) return { text: 'There is no phrase.' }
  if (gapsOf(combination, pass, layer, vocabulary, within).length === 0)
    return fullOf(combination, phrase, wish, base, house)
  if (end || group) {
    // What was asked for besides may be all there is in the way.
    const [plain] = waysToFill(
      combination,
      { ...wish, end: undefined, group: undefined },
      base,
      house,
      1,
    )
    if (plain) {
      const why = group
        ? group.known.length === 0
          ? 'This group has danced nothing yet: its diary is empty.'
          : group.news > 0
            ? 'Nothing with one new thing goes there.'
            : 'Nothing of what this group knows goes there.'
        : `None ends so that it ${end === 'switch' ? 'switches sides' : 'repeats'}.`
      return {
        text: why,
        nearest: { words: plain.names.join(', '), combination: plain.combination },
      }
    }
  }
  return runningInto(asAsked(combination, wish), combination, wish, base, house)
}

/** What is tried on the first empty counts, by what it runs into: what most do, and the move with least. */
function runningInto(
  meant: Combination,
  own: Combination,
  { pass, layer, within }: FillWish,
  base: Vocabulary,
  house: House,
): InTheWay {
  const vocabulary = vocabularyFor(meant, base)
  const before = checkCombination(meant, base, house)
  const told = new Map<string, { times: number; text: string }>()
  let nearest: { name: string; fresh: readonly Finding[]; changed: Combination } | undefined
  const [gap] = gapsOf(meant, pass, layer, vocabulary, within)
  for (const offer of gap ? offersFor(before, gap, vocabulary, TRIED) : []) {
    const { changed } = placed(meant, gap as Gap, offer, 'tried')
    const fresh = newFindings(before, checkCombination(changed, base, house)).filter(isUnclean)
    for (const finding of fresh) {
      const { times = 0 } = told.get(finding.code) ?? {}
      told.set(finding.code, { times: times + 1, text: findingText(finding, house.units) })
    }
    if (fresh.length > 0 && fresh.length < (nearest?.fresh.length ?? Number.POSITIVE_INFINITY))
      nearest = { name: offer.name, fresh, changed }
  }
  const [most] = [...told.values()].sort((a, b) => b.times - a.times)
  if (!most || !nearest)
    return { text: 'Single moves fit there, but no phrase of them: use Ideas for a count of it.' }
  const with_ = nearest.fresh.map((finding) => findingText(finding, house.units)).join(' ')
  return {
    text: `Most moves there run into this: ${most.text}`,
    nearest: {
      words: `${nearest.name}, with this: ${with_}`,
      combination: asItWas(nearest.changed, own),
    },
  }
}

const PLURAL: ReadonlySet<Layer> = new Set(
  LAYERS.filter((layer) => layer !== 'torso' && layer !== 'head'),
)

/** A layer without an empty count: the last that is held long enough gives its end away. */
function fullOf(
  combination: Combination,
  phrase: Phrase,
  wish: FillWish,
  base: Vocabulary,
  house: House,
): InTheWay {
  const vocabulary = vocabularyFor(combination, base)
  const { layer } = wish
  const held = dancedIn(phrase, vocabulary)
    .filter(
      (event) => event.layer === layer && event.length > FREED * COUNT && isHeld(event, vocabulary),
    )
    .at(-1)
  const is = `${layer} ${PLURAL.has(layer) ? 'are' : 'is'}`
  if (!held)
    return {
      text: `No count of it is free: the ${is} full. Take something out first, or choose another layer.`,
    }
  const label = labelIn(phrase)
  const free = { at: tick(endOf(held) - FREED * COUNT), length: tick(FREED * COUNT) }
  const until = placeIn(
    phrase.name,
    labelOfSpan({ at: tick(endOf(held) - COUNT), length: COUNT }, label),
  )
  const freed = labelOfSpan(free, label)
  const shorter = changeEvent(held.id, { length: tick(held.length - FREED * COUNT) })(combination)
  const [filled] = waysToFill(shorter, { ...wish, within: free }, base, house, 1)
  return {
    text: `The ${is} held through ${until} (${nameOf(held, vocabulary)}): free ${freed}, or keep ${PLURAL.has(layer) ? 'them' : 'it'}.`,
    nearest: {
      words: filled ? `Free ${freed}: ${filled.names.join(', ')}` : `Free ${freed}`,
      combination: filled?.combination ?? shorter,
    },
  }
}

/** A place that is kept, something that goes on and on, or counts that are left free. */
const isHeld = ({ what, layer }: DancedEvent, vocabulary: Vocabulary): boolean =>
  what.kind === 'free' || HELD.has(kindOf(what).claim(what, { layer, vocabulary }).kind)

const HELD: ReadonlySet<string> = new Set(['place', 'texture'])
