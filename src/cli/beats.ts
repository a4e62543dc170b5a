import { type Listened, listen, type NotHeard } from '../core/beats/listen'
import { ANY_STYLE } from '../core/beats/pace'
import { readWav } from './wav'

/** What `beats --json` prints; times in seconds. */
export interface BeatsReport {
  readonly tempo: number | null
  readonly bar: number
  readonly beats: readonly number[]
  readonly downbeats: readonly number[]
  readonly eights: readonly number[]
  readonly sections: readonly {
    readonly from: number
    readonly to: number
    readonly counts: number
  }[]
  readonly confidence: { readonly tempo: number; readonly beats: number }
  readonly seconds: number
}

const WHY: Readonly<Record<NotHeard, string>> = {
  silent: 'Nothing is heard in it. Tap the counts yourself.',
  short: 'Too short to find a count. Tap it.',
  beatless: 'No steady beat found. Tap along, or use it without a count.',
}

/** A level that was told is looked for this near, in octaves. */
const TOLD_SPREAD = 0.06

/**
 * Counts a WAV file.
 * @param tempo counts a minute, where they are known
 * @param say is told what was wrong
 */
export function beatsReport(
  path: string,
  tempo: number | undefined,
  say: (text: string) => void,
): BeatsReport {
  const { samples, rate, remark } = readWav(path)
  if (remark) say(remark)
  const seconds = thousandths(samples.length / rate)
  const prior = tempo === undefined ? ANY_STYLE : { centre: tempo, spread: TOLD_SPREAD }
  const heard = listen(samples, rate, undefined, prior)
  if (typeof heard !== 'string') return reported(heard, seconds)
  say(WHY[heard])
  return {
    tempo: null,
    bar: 4,
    beats: [],
    downbeats: [],
    eights: [],
    sections: [],
    confidence: { tempo: 0, beats: 0 },
    seconds,
  }
}

const thousandths = (value: number): number => Math.round(value * 1000) / 1000
const hundredths = (value: number): number => Math.round(value * 100) / 100

function reported(heard: Listened, seconds: number): BeatsReport {
  const { counts, bar, bars, ones, sections, tempo, sure } = heard
  const at = (place: number) => thousandths(counts[place] ?? seconds)
  const eights = sure.eights.reduce((sum, one) => sum + one, 0) / Math.max(1, sure.eights.length)
  return {
    tempo: Math.round(tempo * 10) / 10,
    bar,
    beats: counts.map(thousandths),
    downbeats: bars.map(at),
    eights: ones.map(at),
    sections: sections.map((from, i) => {
      const to = sections[i + 1] ?? counts.length
      return { from: at(from), to: at(to), counts: to - from }
    }),
    confidence: { tempo: hundredths(sure.level), beats: hundredths(eights) },
    seconds,
  }
}

/** The same as a table that is read by people. */
export const beatsText = ({ tempo, bar, beats, eights, sections, seconds }: BeatsReport): string =>
  [
    tempo === null
      ? `${seconds} s, no count`
      : `${seconds} s, ${tempo} counts a minute, ${bar} a bar, ${beats.length} counts, ${eights.length} eights`,
    ...sections.map(({ from, to, counts }) => `${clock(from)} to ${clock(to)}  ${counts} counts`),
  ].join('\n')

const clock = (seconds: number): string =>
  `${Math.floor(seconds / 60)}:${(seconds % 60).toFixed(1).padStart(4, '0')}`
