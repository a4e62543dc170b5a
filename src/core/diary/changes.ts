import { z } from 'zod'
import { LAYERS, type Layer } from '../body/layers'
import type { Event, Phrase } from '../combination/combination'
import { layerWord, type Vocabulary } from '../moves/vocabulary'
import { entryText } from '../sheet/entryText'
import { labelIn } from '../time/time'

/** What begins on a count, as the sheet writes it, without what is only said of it. */
const Entry = z.object({ at: z.string(), text: z.string() }).readonly()
type Entry = z.infer<typeof Entry>

/** A phrase as a group was taught it, by layer, so that what was changed since can be told. */
export const TaughtAs = z
  .object({
    feet: z.array(Entry).readonly(),
    legs: z.array(Entry).readonly(),
    hips: z.array(Entry).readonly(),
    torso: z.array(Entry).readonly(),
    arms: z.array(Entry).readonly(),
    head: z.array(Entry).readonly(),
  })
  .partial()
  .readonly()
export type TaughtAs = z.infer<typeof TaughtAs>

/** What is danced of an event; how it is called and what is noted of it changes no step. */
function bare(event: Event): Event {
  const { as: _as, cue: _cue, note: _note, words: _words, leave: _leave, ...rest } = event
  const { easier: _easier, harder: _harder, optional: _optional, ...danced } = rest
  return danced
}

/** Some layers of a phrase as they are danced now. */
export const taughtAs = (
  phrase: Phrase,
  layers: readonly Layer[],
  vocabulary: Vocabulary,
): TaughtAs =>
  Object.fromEntries(
    layers.map((layer) => [
      layer,
      phrase.events
        .filter((event) => event.layer === layer && !event.optional)
        .toSorted((a, b) => a.at - b.at)
        .map((event) => ({
          at: labelIn(phrase)(event.at),
          text: entryText(bare(event), phrase, vocabulary),
        })),
    ]),
  )

/** Changes that are told one by one; more of them are the phrase as good as new. */
const MOST_CHANGES = 4

/**
 * What of a phrase is not as a group was taught it, a line each: `Hips: 3 hip-drop R, not
 * 3 hip-lift R.` None where nothing was changed, or nobody knows how it was.
 */
export function changesSince(
  before: TaughtAs,
  phrase: Phrase,
  vocabulary: Vocabulary,
): readonly string[] {
  const layers = LAYERS.filter((layer) => before[layer])
  const now = taughtAs(phrase, layers, vocabulary)
  const lines = layers.flatMap((layer) =>
    changedCounts(before[layer] ?? [], now[layer] ?? []).map(
      ({ was, is }) =>
        `${layerWord[layer]}: ${is === '' ? `no more ${was}` : was === '' ? `${is} is new` : `${is}, not ${was}`}.`,
    ),
  )
  return lines.length <= MOST_CHANGES
    ? lines
    : [...lines.slice(0, MOST_CHANGES - 1), `And ${lines.length - MOST_CHANGES + 1} more changes.`]
}

interface Changed {
  readonly at: string
  readonly was: string
  readonly is: string
}

function changedCounts(before: readonly Entry[], now: readonly Entry[]): readonly Changed[] {
  const on = (entries: readonly Entry[], at: string) =>
    entries
      .filter((entry) => entry.at === at)
      .map(({ text }) => text)
      .join(' and ')
  const counts = [...new Set([...now, ...before].map(({ at }) => at))]
  return counts
    .map((at) => ({ at, was: on(before, at), is: on(now, at) }))
    .filter(({ was, is }) => was !== is)
    .toSorted((a, b) => a.at.localeCompare(b.at, 'en', { numeric: true }))
}
