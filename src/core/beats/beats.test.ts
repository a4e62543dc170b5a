import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { holds } from '../../../tests/holds'
import { agreement } from '../../../tests/pieces/agreement'
import { type Piece, play, STYLES } from '../../../tests/pieces/song'
import { RHYTHMS } from '../rhythm/rhythms'
import { priorOf } from '../song/styles'
import { featuresOf } from './features'
import { hann, spectraOf } from './fft'
import { keptOf } from './kept'
import { type Listened, listen, readSound } from './listen'
import { atListenRate, gathering, LISTEN_RATE } from './resample'
import { copyFit, SAME_SONG } from './same'
import { tappedCounts } from './tapped'

describe('another copy of a song', () => {
  it('is known, and how much later it begins; another song is not', () => {
    const heard = ({ samples, rate }: Pick<Piece, 'samples' | 'rate'>) =>
      keptOf(featuresOf(atListenRate(samples, rate)))
    const one = play('one', 'drum4', { seed: 811, counts: 48 })
    const known = heard(one)
    for (const seconds of [-1.3, 0, 0.25, 2.2]) {
      const by = Math.round(one.rate * seconds)
      // It is also quieter, and something hisses in it.
      const samples = Float32Array.from(
        { length: one.samples.length + by },
        (_, i) => 0.4 * (one.samples[i - by] ?? 0) + 0.004 * Math.sin(i * i),
      )
      const { later, alike } = copyFit(known, heard({ samples, rate: one.rate }))
      expect(Math.abs(later - seconds)).toBeLessThan(0.011)
      expect(alike).toBeGreaterThan(SAME_SONG)
    }
    // Not even another song in the same style.
    for (const style of ['drum4', Object.keys(STYLES).find((id) => id !== 'drum4') as string]) {
      const other = play('other', style, { seed: 977, counts: 48 })
      expect(copyFit(known, heard(other)).alike).toBeLessThan(SAME_SONG)
    }
  })
})

describe('what sound is read by', () => {
  it('the strength of each frequency is that of the plain sum', () => {
    holds(
      fc.property(
        fc.array(fc.double({ min: -1, max: 1, noNaN: true }), { minLength: 32, maxLength: 32 }),
        (values) => {
          const made = new Float64Array(17)
          spectraOf(32).magnitudes(Float64Array.from(values), made)
          for (let k = 0; k <= 16; k++) {
            let [x, y] = [0, 0]
            for (const [n, value] of values.entries()) {
              x += value * Math.cos((2 * Math.PI * k * n) / 32)
              y -= value * Math.sin((2 * Math.PI * k * n) / 32)
            }
            expect(made[k]).toBeCloseTo(Math.hypot(x, y), 9)
          }
        },
      ),
      { numRuns: 60, seed: 41 },
    )
    expect(() => spectraOf(33)).toThrow(/power of 2/)
    expect(hann(4)[0]).toBe(0)
  })

  it('a tone keeps its pitch and its place at any rate, and what can’t be held is gone', () => {
    const heard = (rate: number, hertz: number) =>
      atListenRate(
        Float32Array.from({ length: rate }, (_, i) => Math.sin((2 * Math.PI * hertz * i) / rate)),
        rate,
      )
    for (const rate of [8000, 22_050, 44_100, 48_000, 96_000]) {
      const made = heard(rate, 441)
      expect(Math.abs(made.length - LISTEN_RATE)).toBeLessThan(2)
      for (let i = 2000; i < 2100; i++)
        expect(made[i]).toBeCloseTo(Math.sin((2 * Math.PI * 441 * i) / LISTEN_RATE), 1)
    }
    // In pieces it is the same as at once.
    const whole = Float32Array.from({ length: 150_001 }, (_, i) => Math.sin(i * i * 1e-6))
    for (const rate of [2000, 3000]) {
      const pieces = gathering(rate)
      for (let at = 0, k = 1; at < whole.length; at += 7001 * k, k = (k % 4) + 1)
        pieces.take(whole.subarray(at, at + 7001 * k))
      const [once, gathered] = [atListenRate(whole, rate), pieces.all()]
      expect(gathered.length).toBe(once.length)
      expect(gathered.every((value, i) => Math.abs(value - (once[i] as number)) < 1e-6)).toBe(true)
    }
    // Beside a tone that stays, one above half the rate leaves nothing.
    const both = Float32Array.from(
      { length: 44_100 },
      (_, i) =>
        0.5 * Math.sin((2 * Math.PI * 441 * i) / 44_100) +
        0.5 * Math.sin((2 * Math.PI * 16_000 * i) / 44_100),
    )
    const clean = atListenRate(both, 44_100)
    for (let i = 2000; i < 2100; i++)
      expect(clean[i]).toBeCloseTo(0.5 * Math.sin((2 * Math.PI * 441 * i) / LISTEN_RATE), 1)
  })
})

const heardIn = ({ samples, rate }: Pick<Piece, 'samples' | 'rate'>): Listened => {
  const heard = listen(samples, rate)
  if (typeof heard === 'string') throw new Error(heard)
  return heard
}

const mean = (values: readonly number[]) => values.reduce((a, b) => a + b, 0) / values.length

describe('the counts of a song', () => {
  // A minute of each style, with seeds nothing was tuned on.
  const pieces = Object.keys(STYLES).map((style, i) =>
    play(style, style, { seed: 9100 + i, wander: 0.01, loose: 0.008, counts: 96, pickup: i % 2 }),
  )
  const all = pieces.map((piece) => ({ piece, heard: heardIn(piece) }))
  const seconds = ({ counts }: Listened, places: readonly number[]) =>
    places.map((place) => counts[place] as number)

  it('are where they were played, at their level or twice it, in all styles', () => {
    const levels = all.map(({ piece, heard }) => {
      const gap = mean(piece.beats.slice(1).map((at, i) => at - (piece.beats[i] as number)))
      const ratio = (heard.tempo * gap) / 60
      return [0.5, 1, 2].some((level) => Math.abs(ratio / level - 1) < 0.05)
    })
    expect(levels.filter(Boolean).length).toBe(pieces.length)
    expect(
      mean(all.map(({ piece, heard }) => agreement(heard.counts, piece.beats))),
    ).toBeGreaterThan(0.93)
  })

  it('begin bars and eights where the song does', () => {
    const bars = all.map(({ piece, heard }) => agreement(seconds(heard, heard.bars), piece.bars))
    const ones = all.map(({ piece, heard }) => agreement(seconds(heard, heard.ones), piece.ones))
    expect(mean(bars)).toBeGreaterThan(0.85)
    expect(mean(ones)).toBeGreaterThan(0.75)
    for (const { heard } of all) {
      expect(heard.ones.every((one) => heard.bars.includes(one))).toBe(true)
      const { level, counts, bars, eights, sections } = heard.sure
      expect(counts).toHaveLength(heard.counts.length)
      for (const sure of [level, bars, eights, sections, ...counts]) {
        expect(sure).toBeGreaterThanOrEqual(0)
        expect(sure).toBeLessThanOrEqual(1)
      }
    }
  })

  it('rise, are the same again, and move with the song', () => {
    const [piece] = pieces
    if (!piece) throw new Error('no piece')
    const once = heardIn(piece)
    expect(once.counts.every((at, i) => i === 0 || at > (once.counts[i - 1] as number))).toBe(true)
    expect(heardIn(piece)).toEqual(once)
    // A second of silence before it moves every count by a second.
    const later = new Float32Array(piece.samples.length + piece.rate)
    later.set(piece.samples, piece.rate)
    const moved = heardIn({ samples: later, rate: piece.rate })
    expect(
      agreement(
        moved.counts.map((at) => at - 1),
        once.counts,
        0.02,
      ),
    ).toBeGreaterThan(0.97)
  })

  it('are put right by eight taps, a little early and uneven, at any level', () => {
    const random = fc.sample(fc.double({ min: -1, max: 1, noNaN: true }), {
      numRuns: 200,
      seed: 77,
    })
    let used = 0
    const right: number[] = []
    for (const { piece, heard } of all) {
      const features = featuresOf(atListenRate(piece.samples, piece.rate))
      for (const truth of [piece.beats, piece.beats.filter((_, i) => i % 2 === 0)]) {
        const taps = truth
          .slice(16, 24)
          .map((at) => at - 0.02 + 0.025 * (random[used++ % random.length] as number))
        const counts = tappedCounts(features, taps)
        right.push(agreement(counts, truth))
      }
      expect(() => tappedCounts(features, heard.counts.slice(0, 5))).toThrow(/too few/)
    }
    expect(mean(right)).toBeGreaterThan(0.97)
  })

  it('are heard as they are told: from a 1 that is known, at a tempo, in the pace of a rhythm', () => {
    const { samples, rate } = pieces[0] as Piece
    const plain = heardIn({ samples, rate })
    const told = listen(samples, rate, { one: { at: plain.counts[10] as number, counts: 6 } })
    if (typeof told === 'string') throw new Error(told)
    expect(told.ones).toEqual(told.counts.flatMap((_, i) => ((i - 10) % 6 === 0 ? [i] : [])))
    expect(told.sure.eights).toBe(1)
    const half = listen(samples, rate, { prior: { centre: plain.tempo / 2, spread: 0.06 } })
    if (typeof half === 'string') throw new Error(half)
    const ratio = half.tempo / plain.tempo
    expect([0.5, 1].some((level) => Math.abs(ratio / level - 1) < 0.05)).toBe(true)
    for (const { id } of RHYTHMS) {
      const { centre = 100, spread = 0.6 } = priorOf(id) ?? {}
      expect(centre * 2 ** spread).toBeGreaterThan(60)
      expect(centre / 2 ** spread).toBeLessThan(200)
    }
  })

  it('are none in silence, in too little sound, or where nothing repeats', () => {
    expect(listen(new Float32Array(20 * LISTEN_RATE), LISTEN_RATE)).toBe('silent')
    expect(listen((pieces[0] as Piece).samples.subarray(0, 3 * LISTEN_RATE), LISTEN_RATE)).toBe(
      'short',
    )
    const shares: number[] = []
    const { samples, rate } = pieces[0] as Piece
    readSound(samples.subarray(0, 20 * rate), rate, (share) => shares.push(share))
    expect(shares.length).toBeGreaterThan(1)
    expect(shares).toEqual([...shares].sort((a, b) => a - b))
    for (const share of shares) expect(share).toBeLessThan(1)
  })
})
