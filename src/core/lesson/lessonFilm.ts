import { otherSide, type Side, sideWord } from '../body/side'
import type { SpeechSeconds } from '../calling/called'
import type { Dancing } from '../combination/dancing'
import { aloneFrom } from '../combination/dancing'
import { type Performance, performanceOf } from '../performance/performance'
import { COUNT_IN, type Stretch } from '../performance/segments'
import { stretchOf, wholeOf } from '../performance/stretches'
import type { Chunk } from '../practice/pageData'
import { usualRhythm } from '../rhythm/rhythms'
import type { Danced } from '../simulate/danced'
import type { Tempo } from '../time/tempo'
import { endOf, type Range, tick } from '../time/time'
import { steady } from '../time/timeMap'
import type { Chapter } from './chapters'
import { chapterOf, PAUSE } from './script'

/** A place where a film stands still, so that who looks can stop it. */
export interface Hold {
  /** Seconds of what is danced at which it does. */
  readonly at: number
  readonly seconds: number
  readonly text: string
}

/** A lesson danced by the figure: part by part, with places where it waits. */
export interface LessonFilm {
  readonly performance: Performance
  readonly holds: readonly Hold[]
  /** By the seconds of the film, its waits among them. */
  readonly chapters: readonly Chapter[]
  /** Of the film. */
  readonly seconds: number
}

const HOLD_SECONDS = 4
/** Times a part is danced before who looks is to dance it. */
const ROUNDS = 2

interface Part {
  readonly stretches: readonly Stretch[]
  readonly chapter?: string
  readonly hold?: string
}

/**
 * A lesson as a film of the figure: each chunk on its sides and from the top, a wait after each, and
 * all of it at the end.
 * @param dancing what is filmed: whose part, and the side it begins with
 */
export function lessonFilm(
  dance: Danced,
  chunks: readonly Chunk[],
  { dancing, tempo, speech }: { dancing: Dancing; tempo: Tempo; speech: SpeechSeconds },
): LessonFilm {
  const onSide = (side: Side): Dancing => (dance.company ? { ...dancing, side } : aloneFrom(side))
  const danced = (side: Side, range: Range, rounds: number): readonly Stretch[] =>
    Array.from({ length: rounds }, (_, i) =>
      stretchOf(dance, onSide(side), {
        range,
        mode: 'all',
        countIn: i === 0 ? COUNT_IN : undefined,
        round: i + 1,
        rounds,
      }),
    )
  const rangeOf = (side: Side, { id }: Chunk): Range => {
    const pass = dance.from(onSide(side)).passes.find(({ phrase }) => phrase.id === id)
    return pass ? { from: pass.at, to: endOf(pass) } : wholeOf(dance)
  }
  const lead = dancing.side
  const other = otherSide[lead]
  const hasOther = chunks.some(({ stops }) => stops.some((stop) => stop.do === 'other-side'))
  const parts: readonly Part[] = [
    ...chunks.flatMap((chunk): readonly Part[] => {
      const does = new Set(chunk.stops.map((stop) => stop.do))
      const own = rangeOf(lead, chunk)
      return [
        { stretches: danced(lead, own, ROUNDS), chapter: chapterOf(chunk), hold: PAUSE },
        ...(does.has('other-side')
          ? [{ stretches: danced(other, rangeOf(other, chunk), ROUNDS), hold: PAUSE }]
          : []),
        ...(does.has('from-top')
          ? [{ stretches: danced(lead, { from: tick(0), to: own.to }, 1), hold: PAUSE }]
          : []),
      ]
    }),
    ...[lead, ...(hasOther ? [other] : [])].map(
      (side): Part => ({
        stretches: danced(side, wholeOf(dance), 1),
        chapter: hasOther ? `All of it, ${sideWord[side]}` : 'All of it',
      }),
    ),
  ]
  const performance = performanceOf(
    parts.flatMap(({ stretches }) => stretches),
    {
      time: steady(tempo),
      rhythm: usualRhythm(dance.written.families, dance.lead.passes[0]?.phrase.counts),
      speech,
    },
  )
  const holds: Hold[] = []
  const marks: Chapter[] = []
  let segment = 0
  let waited = 0
  for (const { stretches, chapter, hold } of parts) {
    const secondsAt = (index: number) =>
      performance.time.secondsAt(performance.tickOf({ index, at: 0 }))
    if (chapter !== undefined) marks.push({ at: secondsAt(segment) + waited, title: chapter })
    // A stretch that is counted in has its count-in before it.
    segment += stretches.reduce((sum, { countIn }) => sum + (countIn === undefined ? 1 : 2), 0)
    if (hold !== undefined) {
      holds.push({ at: secondsAt(segment), seconds: HOLD_SECONDS, text: hold })
      waited += HOLD_SECONDS
    }
  }
  return {
    performance,
    holds,
    chapters: marks,
    seconds: performance.time.secondsAt(performance.length) + waited,
  }
}

/** Where a second of the film is in what is danced, and what is read there while it waits. */
export function heldAt(
  holds: readonly Hold[],
  second: number,
): { readonly danced: number; readonly text: string | undefined } {
  let waited = 0
  for (const { at, seconds, text } of holds) {
    if (second < at + waited) break
    if (second < at + waited + seconds) return { danced: at, text }
    waited += seconds
  }
  return { danced: second - waited, text: undefined }
}

/** What sounds, with silence where the film waits. @param rate samples a second */
export function heldSamples(
  samples: Float32Array,
  holds: readonly Hold[],
  rate: number,
): Float32Array<ArrayBuffer> {
  const waited = holds.reduce((sum, { seconds }) => sum + seconds, 0)
  const held = new Float32Array(samples.length + Math.round(waited * rate))
  let from = 0
  let to = 0
  for (const { at, seconds } of holds) {
    const until = Math.min(samples.length, Math.round(at * rate))
    held.set(samples.subarray(from, until), to)
    to += until - from + Math.round(seconds * rate)
    from = until
  }
  held.set(samples.subarray(from, from + held.length - to), to)
  return held
}
