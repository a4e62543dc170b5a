import { readFileSync } from 'node:fs'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { demo } from '../../tests/demo'
import { holds } from '../../tests/holds'
import { countsAt, songWith } from '../../tests/songs'
import { LAYERS } from '../core/body/layers'
import { otherSide } from '../core/body/side'
import { NUMBERS } from '../core/calling/numbers'
import { drillPerformance } from '../core/class/drillDance'
import type { Combination } from '../core/combination/combination'
import { aloneFrom } from '../core/combination/dancing'
import { USUAL_HOUSE } from '../core/house/house'
import { vocabulary } from '../core/moves/vocabulary'
import { performanceOf as performedOf } from '../core/performance/performance'
import { songFrom } from '../core/performance/songFrom'
import { SILENT, stretchOf } from '../core/performance/stretches'
import { materialsOf, roundOf } from '../core/plan/material'
import { RHYTHMS, STROKES } from '../core/rhythm/rhythms'
import { danced } from '../core/simulate/danced'
import { tick } from '../core/time/time'
import { holding } from './held'
import { renderSounds, scheduleOf } from './render'
import { renderMusic } from './renderMusic'
import { createSamples, FULL_MIX, type Sample } from './sounds'
import { hasWords, speakFrom, speechSeconds, trimmedRecording } from './speech'
import { writeWav } from './wav'

const materials = materialsOf(demo, vocabulary, USUAL_HOUSE)

const performanceOf = (at: number, tempo: number, repeats: number) => {
  const combination = demo[at % demo.length]!
  const drill = {
    combination: combination.id,
    phrases: [],
    layers: LAYERS,
    sides: [combination.lead, otherSide[combination.lead]],
    repeats,
    tempo,
  }
  const round = roundOf(drill, materials)
  if (!round) throw new Error('no round')
  const rhythm = RHYTHMS[at % RHYTHMS.length]
  return drillPerformance(drill, round, { rhythm, call: 'rounds', speech: speechSeconds() })
}

/** One sample that is found again. */
const spike: Sample = { samples: new Float32Array([0.25]), early: 0 }

describe('a rendered drill', () => {
  it('has each click on its sample exactly, however long it goes', () => {
    holds(
      fc.property(
        fc.nat(20),
        fc.integer({ min: 40, max: 220 }),
        fc.integer({ min: 1, max: 4 }),
        fc.constantFrom(8_000, 22_050, 44_100, 48_000),
        (at, tempo, repeats, rate) => {
          const performed = performanceOf(at, tempo, repeats)
          const onlyClicks = { ...FULL_MIX, half: 0, rhythm: 0, voice: 0, moves: 0 }
          const schedule = scheduleOf(performed)
          const samples = renderSounds(schedule, rate, onlyClicks, () => spike)
          const found: number[] = []
          for (let i = 0; i < samples.length; i++) if ((samples[i] ?? 0) > 0) found.push(i)
          const counts = performed.length / 12
          const wanted = Array.from({ length: counts }, (_, n) =>
            Math.round(((n * 60) / tempo) * rate),
          )
          expect(found.length).toBe(counts)
          for (const [i, place] of found.entries())
            expect(Math.abs(place - (wanted[i] ?? -9))).toBeLessThanOrEqual(1)
        },
      ),
      { numRuns: 24, seed: 81 },
    )
  })

  it('is much faster than it sounds, and a WAV file of the right length', async () => {
    const performed = performanceOf(0, 60, 4)
    const schedule = scheduleOf(performed)
    expect(schedule.seconds).toBeGreaterThan(120)
    let share = 0
    const before = performance.now()
    const samples = renderSounds(
      schedule,
      44_100,
      FULL_MIX,
      createSamples(44_100, () => undefined),
      (now) => {
        expect(now).toBeGreaterThanOrEqual(share)
        share = now
      },
    )
    const wav = new DataView(await writeWav(samples, 44_100))
    expect((performance.now() - before) / 1000).toBeLessThan(schedule.seconds / 4)
    expect(share).toBe(1)
    const text = (at: number) =>
      String.fromCharCode(...[0, 1, 2, 3].map((i) => wav.getUint8(at + i)))
    expect([text(0), text(8)]).toEqual(['RIFF', 'WAVE'])
    expect(wav.byteLength).toBeGreaterThanOrEqual(44 + samples.length * 2)
    expect(wav.byteLength).toBeLessThan(600 + samples.length * 2)
    // What was rendered is what is in the file, to the step of 16 bits.
    const data = wav.byteLength - samples.length * 2
    for (const at of [0, 100, 5000, 44_100, samples.length - 1])
      expect(wav.getInt16(data + at * 2, true) / 32_768).toBeCloseTo(samples[at] ?? 9, 3)
  })

  it('never clips, however much sounds at once', () => {
    const loud: Sample = { samples: new Float32Array(4000).fill(0.9), early: 0.01 }
    const samples = renderSounds(scheduleOf(performanceOf(1, 120, 1)), 8000, FULL_MIX, () => loud)
    expect(samples.reduce((most, x) => Math.max(most, Math.abs(x)), 0)).toBeLessThanOrEqual(1)
  })
})

describe('every stroke and sound', () => {
  it('has samples of its own that start and end quietly', () => {
    const sampleOf = createSamples(44_100, () => undefined)
    const seen = new Set<string>()
    for (const kind of [...STROKES, 'phrase', 'count', 'and', ...LAYERS] as const) {
      const { samples } = sampleOf({ at: 0 as never, kind })
      expect(Math.abs(samples[0] ?? 1)).toBeLessThan(0.02)
      expect(Math.abs(samples.at(-1) ?? 1)).toBeLessThan(0.02)
      expect(Math.max(...samples.map(Math.abs))).toBeGreaterThan(0.05)
      seen.add(samples.slice(0, 2000).join())
    }
    expect(seen.size).toBe(STROKES.length + 3 + LAYERS.length)
  })
})

describe('the voice', () => {
  const rate = 8000
  const bank = (value: number) => new Float32Array(80 * rate).fill(value)
  const speak = speakFrom({ normal: bank(0.5), fast: bank(0.25) }, rate, new Map())

  it('has a word for every count, and for every cue of the vocabulary', () => {
    for (const word of [...NUMBERS, 'and', 'uh']) expect(hasWords(word), word).toBe(true)
    // The phrases of a warm-up are numbered.
    for (const word of NUMBERS) expect(hasWords(`phrase ${word}`), word).toBe(true)
    const cues = vocabulary.moves.map(({ cue }) => cue).filter(Boolean)
    expect(cues.filter((cue) => !hasWords(cue))).toEqual([])
    expect(hasWords('quixotic')).toBe(false)
  })

  it('says the counts in time: whole ones under a third of a second, quick ones for half counts', () => {
    const seconds = speechSeconds()
    for (const word of ['one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight']) {
      expect(seconds(word, false)).toBeLessThanOrEqual(0.32)
      expect(seconds(word, true)).toBeLessThanOrEqual(0.216)
    }
  })

  it('puts a cue together from its words, takes the quick bank, and starts a count early by its vowel', () => {
    const cue = speak({ text: 'step touch', isFast: false, onBeat: false }, rate)
    expect(cue?.early).toBe(0)
    expect((cue?.samples.length ?? 0) / rate).toBeCloseTo(
      speechSeconds()('step touch', false) ?? 0,
      2,
    )
    const six = speak({ text: 'six', isFast: true, onBeat: true }, rate)
    expect(six?.early).toBeGreaterThan(0)
    expect(six?.samples[100]).toBe(0.25)
    expect(speak({ text: 'quixotic', isFast: false, onBeat: false }, rate)).toBeUndefined()
  })

  it('takes the instructor’s own word before the bank, trimmed, with its vowel found', () => {
    // A hiss, then a hum, with silence round them.
    const hiss = (i: number) => (i % 2 === 0 ? 0.2 : -0.2)
    const raw = new Float32Array(16_000)
    for (let i = 4000; i < 5600; i++) raw[i] = hiss(i)
    for (let i = 5600; i < 9600; i++) raw[i] = 0.4 * Math.sin((i * 2 * Math.PI * 200) / 16_000)
    const own = trimmedRecording(raw, 16_000)
    expect(own?.samples.length).toBeCloseTo(5600, -2)
    expect(own?.onset).toBeCloseTo(0.1, 1)
    expect(trimmedRecording(new Float32Array(16_000), 16_000)).toBeUndefined()
    if (!own) throw new Error('nothing recorded')
    const recorded = new Map([['drop', own]])
    expect(speechSeconds(recorded)('Drop', false)).toBeCloseTo(own.samples.length / 16_000, 6)
    const said = speakFrom(
      { normal: bank(0.5), fast: bank(0.25) },
      rate,
      recorded,
    )({ text: 'drop', isFast: false, onBeat: true }, 8000)
    expect(said?.samples.length).toBeCloseTo(own.samples.length / 2, 0)
    expect(said?.early).toBeCloseTo(own.onset, 6)
  })

  it('ships both banks, not much larger than they have to be', () => {
    const size = (name: string) =>
      readFileSync(new URL(`./voice/${name}.ogg`, import.meta.url)).length
    expect(size('normal') + size('fast')).toBeLessThan(450_000)
    expect(size('fast')).toBeGreaterThan(80_000)
  })
})

describe('a song in a file', () => {
  const RATE = 22_050
  const gaps = Array.from({ length: 40 }, (_, i) => 520 + 60 * Math.sin(i))
  let last = 800
  const ms = [
    last,
    ...gaps.map((gap) => {
      last += gap
      return Math.round(last)
    }),
  ]
  const song = songWith(countsAt(ms))
  // A stroke on each of its counts, quieter on its other side.
  const struck = Float32Array.from({ length: Math.ceil((last / 1000 + 2) * RATE) }, () => 0)
  for (const at of ms)
    for (let i = 0; i < 0.03 * RATE; i++)
      struck[Math.round((at / 1000) * RATE) + i] = Math.sin(i * 0.9) * Math.exp(-i / (0.006 * RATE))
  const held = holding(RATE, 2)
  held.take([struck, struck.map((value) => value / 2)])
  const sound = held.all()
  const [combination] = demo as readonly [Combination]
  const dance = danced(combination, vocabulary, USUAL_HOUSE)

  it.each([1, 0.8, 0.6])(
    'is in it count by count at %s of its speed, and not in the count-in',
    async (rate) => {
      const performance = performedOf([stretchOf(dance, aloneFrom('R'))], {
        ...songFrom(song, 3, rate),
        speech: SILENT,
      })
      const schedule = scheduleOf(performance)
      const row = await renderMusic(schedule, sound, 0.6)
      const [{ at, until }] = schedule.music as unknown as [{ at: number; until: number }]
      expect(at).toBeCloseTo(performance.segments[0]?.time.secondsAt(48) ?? 0, 9)
      const loudest = (from: number, to: number) =>
        row
          .subarray(Math.round(from * RATE), Math.round(to * RATE))
          .reduce((most, x) => Math.max(most, Math.abs(x)), 0)
      expect(loudest(0, at - 0.001)).toBe(0)
      const time = performance.segments[1]?.time
      for (let i = 1; i < 32; i++) {
        const due = at + (time?.secondsAt(12 * i) ?? 0)
        if (due > until - 0.05) break
        const top = loudest(due - 0.05, due + 0.05)
        expect(top).toBeGreaterThan(0.2)
        // It begins within a hundredth of a second of its place.
        const begins = row
          .subarray(Math.round((due - 0.05) * RATE))
          .findIndex((x) => Math.abs(x) > top / 3)
        expect(Math.abs(begins / RATE - 0.05), `count ${i}`).toBeLessThan(0.01)
        expect(loudest(due + 0.12, due + 0.2)).toBeLessThan(0.2)
      }
      // Under a word it is half as loud; with the clicks it is one sound.
      const word = at + (time?.secondsAt(12 * 4) ?? 0)
      const said = { text: 'one', isFast: false, onBeat: true } as const
      const quieter = await renderMusic(
        {
          ...schedule,
          sounds: [{ sound: { at: tick(0), kind: 'say', say: said }, seconds: word }],
        },
        sound,
        0.6,
      )
      const peak = (of: Float32Array) =>
        of
          .subarray(Math.round((word - 0.01) * RATE), Math.round((word + 0.03) * RATE))
          .reduce((most, x) => Math.max(most, Math.abs(x)), 0)
      expect(Math.abs(peak(quieter) / peak(row) - 0.5)).toBeLessThan(0.15)
      const silent = { early: 0, samples: new Float32Array(1) }
      const whole = renderSounds(schedule, RATE, FULL_MIX, () => silent, undefined, row)
      expect(row.every((x, i) => whole[i] === x)).toBe(true)
    },
  )
})
