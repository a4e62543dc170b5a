import { type Listened, listen, type NotHeard, type Told } from '../core/beats/listen'
import { mean } from '../core/beats/numbers'
import type { PartKind } from '../core/beats/parts'
import { LISTEN_RATE } from '../core/beats/resample'
import { clockTenths } from '../core/time/clock'
import { readWav } from './wav'

/** What `beats --json` prints; times in seconds, in three decimals. */
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
    readonly kind: PartKind
    /** Which earlier section it is like, from 0. */
    readonly as: number | null
  }[]
  readonly confidence: Readonly<Record<'tempo' | 'beats' | 'bars' | 'eights' | 'sections', number>>
  readonly seconds: number
}

const WHY: Readonly<Record<NotHeard, string>> = {
  silent: 'Nothing is heard in it. Tap the counts yourself.',
  short: 'Too short to find a count. Tap it.',
  beatless: 'No steady beat found. Tap along, or use it without a count.',
}

/**
 * Counts a WAV file.
 * @param say is told what was wrong
 */
export function beatsReport(path: string, told: Told, say: (text: string) => void): BeatsReport {
  const { samples, remark } = readWav(path)
  if (remark) say(remark)
  const seconds = thousandths(samples.length / LISTEN_RATE)
  const heard = listen(samples, LISTEN_RATE, told)
  if (typeof heard !== 'string') return reported(heard, seconds)
  say(WHY[heard])
  return {
    tempo: null,
    bar: 4,
    beats: [],
    downbeats: [],
    eights: [],
    sections: [],
    confidence: { tempo: 0, beats: 0, bars: 0, eights: 0, sections: 0 },
    seconds,
  }
}

const thousandths = (value: number): number => Math.round(value * 1000) / 1000
const hundredths = (value: number): number => Math.round(value * 100) / 100

function reported(heard: Listened, seconds: number): BeatsReport {
  const { counts, bar, bars, ones, sections, tempo, sure } = heard
  const at = (place: number) => thousandths(counts[place] ?? seconds)
  return {
    tempo: Math.round(tempo * 10) / 10,
    bar,
    beats: counts.map(thousandths),
    downbeats: bars.map(at),
    eights: ones.map(at),
    sections: sections.map(({ at: from, kind, as }, i) => {
      const to = sections[i + 1]?.at ?? counts.length
      return { from: at(from), to: at(to), counts: to - from, kind, as: as ?? null }
    }),
    confidence: {
      tempo: hundredths(sure.level),
      beats: hundredths(mean(sure.counts)),
      bars: hundredths(sure.bars),
      eights: hundredths(sure.eights),
      sections: hundredths(sure.sections),
    },
    seconds,
  }
}

/** The same as a table that is read by people. */
export const beatsText = ({ tempo, bar, beats, eights, sections, seconds }: BeatsReport): string =>
  [
    tempo === null
      ? `${seconds} s, no count`
      : `${seconds} s, ${tempo} counts a minute, ${bar} a bar, ${beats.length} counts, ${eights.length} eights`,
    ...sections.map(
      ({ from, to, counts, kind, as }) =>
        `${clockTenths(from)} to ${clockTenths(to)}  ${String(counts).padStart(3)} counts  ${kind}${as === null ? '' : `, as ${clockTenths(sections[as]?.from ?? 0)}`}`,
    ),
  ].join('\n')
