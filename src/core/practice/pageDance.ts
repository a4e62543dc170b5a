import type { Layer } from '../body/layers'
import type { Side } from '../body/side'
import type { SpeechSeconds } from '../calling/called'
import type { Combination } from '../combination/combination'
import { aloneFrom, type Dancing } from '../combination/dancing'
import type { Pass } from '../combination/passes'
import { houseOf } from '../house/house'
import { type Performance, performanceOf } from '../performance/performance'
import { COUNT_IN, type Stretch } from '../performance/segments'
import { SILENT, stretchOf, wholeOf } from '../performance/stretches'
import { danceOf } from '../piece/dance'
import { type SeenDance, seenDance } from '../pose/seen'
import { remembered } from '../record/remembered'
import { usualRhythm } from '../rhythm/rhythms'
import type { Danced } from '../simulate/danced'
import { type Simulation, stateBefore } from '../simulate/simulate'
import { type CountWords, sayPass } from '../teaching/say'
import { metOnCounts } from '../teaching/sayTogether'
import { clampTempo } from '../time/tempo'
import { endOf, type Range, TICKS_PER_COUNT, tick } from '../time/time'
import { beaten, steady } from '../time/timeMap'
import { vocabularyOfUsed } from './movesUsed'
import type { Chunk, PageData, Stop } from './pageData'

/** How something is danced just now. */
export interface How {
  readonly side: Side
  /** Of the tempo of the dance. */
  readonly percent: number
  readonly layers: readonly Layer[]
}

/** From where a stop is danced, and whether again and again. */
interface From {
  /** Tick of the side's dance; its beginning where it is not said. */
  readonly from?: number | undefined
  readonly isLoop: boolean
}

/** One count of a walk. */
export interface WalkedCount {
  readonly words: CountWords
  /** Tick of the side's dance at which the count is over and everything on it is there. */
  readonly at: number
  /** Which foot is free then. */
  readonly free: string
}

/** The dance of a page, as the app dances it. */
export interface PageDance extends SeenDance {
  /** What is printed of it. */
  readonly printed: Pick<Danced, 'from' | 'company'> & { readonly combination: Combination }
  /** The dancing of the page on a side. */
  readonly dancingOn: (side: Side) => Dancing
  /** A stop of a chunk, to be heard and seen; what is shown comes a second time, slowly. */
  readonly stopAt: (chunk: Chunk, stop: Stop, how: How, on: From) => readonly Performance[]
  /** What comes before what is learned here, once; absent where that is the beginning. */
  readonly soFar: (how: How) => Performance | undefined
  /**
   * All of it once with its song, counted in as the song goes; absent where the page has none.
   * @param later seconds by which another copy of the song is later
   */
  readonly withSong: (how: How, later: number) => Performance | undefined
  /** All of it again and again, from the top or from a chunk, to the rhythm. */
  readonly allFrom: (chunk: Chunk | undefined, how: How) => Performance
  readonly walk: (chunk: Chunk, how: How) => readonly WalkedCount[]
  /** What starts on each count of the phrase that is danced at a tick. */
  readonly wordsAt: (
    dancing: Dancing,
    tick: number,
    layers: readonly Layer[],
  ) => readonly CountWords[]
}

interface Told {
  readonly dancing: Dancing
  readonly layers: readonly Layer[]
}

/** A show comes slowly once more, at this share of the tempo. */
const SLOWLY = 60
/** Where one chunk goes over into the next is where it breaks: danced twice, four counts on either side. */
const SEAM_ROUNDS = 2
const SEAM_TICKS = 4 * TICKS_PER_COUNT

/** The count a tick is in. */
const countAt = (at: number) => tick(Math.floor(at / TICKS_PER_COUNT) * TICKS_PER_COUNT)

/** @param speech how long the voice takes; nobody speaks where it is not given */
export function pageDance(data: PageData, speech: SpeechSeconds = SILENT): PageDance {
  const { combination, tempo } = data
  const house = houseOf(data.house)
  const dance = danceOf(combination, vocabularyOfUsed(data.moves), house)
  const { part } = data
  const dancingOn = (side: Side): Dancing => (part === undefined ? aloneFrom(side) : { part, side })
  const seen = seenDance(dance.from, combination)
  /** What she does on each count, alone and with the others; asked with every picture, so made once a pass. */
  const toldOf = remembered(
    (pass: Pass, { dancing, layers }: Told): readonly CountWords[] => {
      const simulation = dance.from(dancing)
      const said = sayPass(simulation, pass, new Set(layers), simulation.vocabulary)
      const company = part === undefined ? undefined : dance.company?.(dancing)
      if (!company || !layers.includes('arms')) return said
      const met = metOnCounts(company, pass.index, part)
      return said.map((words) => ({
        ...words,
        layers: [
          ...words.layers,
          ...(met.get(words.count) ?? []).map((text) => ({ layer: 'arms' as const, text })),
        ],
      }))
    },
    (one, other) =>
      one.dancing.side === other.dancing.side && one.layers.join() === other.layers.join(),
  )
  const rhythm = usualRhythm(combination.families, dance.lead.passes[0]?.phrase.counts)
  const passOf = ({ passes }: Simulation, { id }: Pick<Chunk, 'id'>): Pass | undefined =>
    passes.find(({ phrase }) => phrase.id === id)
  const at = (percent: number) => ({
    time: steady(clampTempo((tempo * percent) / 100)),
    speech,
  })
  const round = (how: How, range: Range, i: number, rounds: number, isCounted = i === 0): Stretch =>
    stretchOf(dance, dancingOn(how.side), {
      // She hears what is hers.
      company: undefined,
      range,
      layers: how.layers,
      mode: 'all',
      countIn: isCounted ? COUNT_IN : undefined,
      round: i + 1,
      rounds,
    })
  const times = (how: How, range: Range, rounds: number) =>
    Array.from({ length: rounds }, (_, i) => round(how, range, i, rounds))
  const rangeOf = (how: How, chunk: Chunk): Range => {
    const simulation = dance.from(dancingOn(how.side))
    const pass = passOf(simulation, chunk)
    return pass ? { from: pass.at, to: endOf(pass) } : wholeOf(dance)
  }
  /** From the top, after the place where the chunk before goes over into this one. */
  const fromTop = (how: How, chunk: Chunk, rounds: number): readonly Stretch[] => {
    const { from, to } = rangeOf(how, chunk)
    const seam = {
      from: tick(Math.max(0, from - SEAM_TICKS)),
      to: tick(Math.min(to, from + SEAM_TICKS)),
    }
    return [
      ...Array.from({ length: SEAM_ROUNDS }, (_, i) => round(how, seam, i, SEAM_ROUNDS, true)),
      ...times(how, { from: tick(0), to }, rounds),
    ]
  }
  return {
    ...seen,
    printed: { combination, from: dance.from, ...(dance.company && { company: dance.company }) },
    dancingOn,
    stopAt(chunk, stop, how, { from, isLoop }) {
      const danced = (percent: number, stretches: readonly Stretch[], isToRhythm = false) =>
        performanceOf(
          stretches,
          { ...at(percent), ...(isToRhythm && { rhythm }) },
          // It is counted in once.
          isLoop ? 1 : undefined,
        )
      const range = rangeOf(how, chunk)
      if (from !== undefined) {
        const begin = stop.do === 'from-top' ? from : Math.max(range.from, from)
        const rest = { from: countAt(begin), to: range.to }
        return [danced(how.percent, times(how, rest, 1), stop.do === 'dance')]
      }
      if (stop.do === 'show')
        return [how.percent, (how.percent * SLOWLY) / 100].map((percent) =>
          danced(percent, times(how, range, 1)),
        )
      if (stop.do === 'from-top' && !isLoop)
        return [danced(how.percent, fromTop(how, chunk, stop.rounds))]
      return [danced(how.percent, times(how, range, stop.rounds), stop.do === 'dance')]
    },
    soFar(how) {
      const [first] = data.chunks
      const { from } = first ? rangeOf(how, first) : { from: 0 }
      if (from <= 0) return undefined
      return performanceOf([round(how, { from: tick(0), to: tick(from) }, 0, 1)], at(how.percent))
    },
    withSong(how, later) {
      const { song } = data
      const first = song?.knots[0]
      if (!song || !first) return undefined
      const time = beaten(
        song.knots.map(([at, second]) => ({ tick: at, seconds: second - first[1] })),
      )
      return performanceOf([round({ ...how, side: song.side }, wholeOf(dance), 0, 1)], {
        time,
        speech,
        music: { mark: song.title, from: first[1] + later, rate: 1 },
      })
    },
    allFrom(chunk, how) {
      const whole = wholeOf(dance)
      const first = chunk ? { ...whole, from: rangeOf(how, chunk).from } : whole
      return performanceOf(
        [round(how, first, 0, 1), round(how, whole, 1, 1)],
        { ...at(how.percent), rhythm },
        // The count-in and the first round are danced once.
        2,
      )
    },
    walk(chunk, { side, layers }) {
      const simulation = dance.from(dancingOn(side))
      const pass = passOf(simulation, chunk)
      if (!pass) return []
      return toldOf(pass, { dancing: dancingOn(side), layers }).map((words, i) => {
        const over = pass.at + (i + 1) * TICKS_PER_COUNT
        const { weight } = stateBefore(simulation, over)
        return {
          words,
          at: over - 0.01,
          free:
            weight === 'both' ? 'both feet' : weight === 'R' ? 'left foot free' : 'right foot free',
        }
      })
    },
    wordsAt(dancing, now, layers) {
      const simulation = dance.from(dancing)
      const pass =
        simulation.passes.findLast((one) => one.at <= Math.max(0, now)) ?? simulation.passes[0]
      return pass ? toldOf(pass, { dancing, layers }) : []
    },
  }
}
