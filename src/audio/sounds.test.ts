import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { holds } from '../../tests/holds'
import type { Sound, SoundKind } from '../core/performance/sounds'
import { tick } from '../core/time/time'
import { CHANNELS, createDrum, createSamples, FULL_MIX, loudnessOf, type Mix } from './sounds'

const KINDS: readonly SoundKind[] = [
  ...(['phrase', 'count', 'and', 'feet', 'hips', 'torso', 'arms', 'head'] as const),
  ...(['dum', 'tek', 'ka', 'slap', 'shaker', 'bell', 'wood', 'low', 'say'] as const),
]
const anySound: fc.Arbitrary<Sound> = fc
  .record({ kind: fc.constantFrom(...KINDS), loud: fc.double({ min: 0.1, max: 1, noNaN: true }) })
  .map(({ kind, loud }) => ({
    at: tick(0),
    kind,
    loud,
    ...(kind === 'say' && { say: { text: 'four', isFast: false, onBeat: true } }),
  }))
const anyMix: fc.Arbitrary<Mix> = fc.record({
  click: fc.constantFrom(0, 0.4, 1),
  half: fc.constantFrom(0, 0.4, 1),
  rhythm: fc.constantFrom(0, 0.4, 1),
  voice: fc.constantFrom(0, 0.4, 1),
  moves: fc.constantFrom(0, 0.4, 1),
})

/** A clock that sounds nothing and remembers what it was told to. */
function quietContext(rate = 8000) {
  const started: { at: number; gain: number; seconds: number; stopped: boolean }[] = []
  const ends: (() => void)[] = []
  const context = {
    sampleRate: rate,
    destination: {},
    createBuffer: (_: number, length: number) => ({
      duration: length / rate,
      copyToChannel: () => {},
    }),
    createGain: () => ({ gain: { value: 1 }, connect: (to: unknown) => to, disconnect: () => {} }),
    createBufferSource() {
      const note = { at: -1, gain: 1, seconds: 0, stopped: false }
      let gain: { gain: { value: number } } | undefined
      return {
        buffer: undefined as { duration: number } | undefined,
        onended: () => {},
        connect(to: typeof gain & { connect: (to: unknown) => unknown }) {
          gain = to
          return to
        },
        disconnect: () => {},
        start(at: number) {
          note.at = at
          note.gain = gain?.gain.value ?? 1
          note.seconds = this.buffer?.duration ?? 0
          started.push(note)
          ends.push(() => this.onended())
        },
        stop: () => {
          note.stopped = true
        },
      }
    },
  }
  return { context: context as unknown as BaseAudioContext, started, ends }
}

describe('the drum', () => {
  it('sounds each at its loudness in the mix, and nothing that is turned down', () => {
    holds(
      fc.property(fc.array(anySound, { maxLength: 20 }), anyMix, (sounds, mix) => {
        const { context, started } = quietContext()
        const drum = createDrum(context)
        drum.setMix(mix)
        for (const [i, sound] of sounds.entries()) drum.book(sound, i)
        const heard = sounds
          .map((sound, i) => ({ at: i, gain: loudnessOf(sound, mix) }))
          .filter(({ gain }) => gain > 0)
        expect(started.map(({ at, gain }) => ({ at, gain }))).toEqual(heard)
      }),
      { numRuns: 60, seed: 31 },
    )
  })

  it('takes back what is due from a moment on, and only that', () => {
    holds(
      fc.property(
        fc.array(fc.double({ min: 0, max: 9, noNaN: true }), { minLength: 1, maxLength: 20 }),
        fc.double({ min: 0, max: 9, noNaN: true }),
        (dues, from) => {
          const { context, started, ends } = quietContext()
          const drum = createDrum(context)
          for (const due of dues) drum.book({ at: tick(0), kind: 'count' }, due)
          // What has sounded already is over, whatever is taken back.
          ends[0]?.()
          drum.takeBack(from)
          expect(started.map(({ stopped }) => stopped)).toEqual(
            dues.map((due, i) => i > 0 && due >= from),
          )
        },
      ),
      { numRuns: 60, seed: 32 },
    )
  })

  it('begins a word early by its vowel, but never before the clock', () => {
    const { context, started } = quietContext()
    const drum = createDrum(context)
    const say: Sound = {
      at: tick(0),
      kind: 'say',
      say: { text: 'six', isFast: false, onBeat: true },
    }
    drum.book(say, 2)
    drum.setSpeak(() => ({ samples: new Float32Array(800), early: 0.15 }))
    drum.book(say, 2)
    drum.book(say, 0.1)
    // Before there is a voice it is a tone, on the beat.
    expect(started.map(({ at }) => at)).toEqual([2, 1.85, 0])
    expect(started[1]?.seconds).toBeCloseTo(0.1)
  })
})

describe('the sounds', () => {
  it('are made once each, are never the same twice, and never clip or hum on', () => {
    const sampleOf = createSamples(44_100, () => undefined)
    const all = KINDS.map((kind) => sampleOf({ at: tick(0), kind }))
    expect(KINDS.map((kind) => sampleOf({ at: tick(0), kind }))).toEqual(all)
    expect(new Set(all).size).toBe(KINDS.length)
    for (const [i, { samples }] of all.entries()) {
      const kind = KINDS[i]
      const peak = samples.reduce((most, one) => Math.max(most, Math.abs(one)), 0)
      expect(peak, kind).toBeGreaterThan(0.05)
      expect(peak, kind).toBeLessThanOrEqual(1)
      expect(Math.abs(samples[0] ?? 1), kind).toBeLessThan(0.02)
      const tail = samples.subarray(-Math.round(samples.length / 20))
      const left = tail.reduce((most, one) => Math.max(most, Math.abs(one)), 0)
      expect(left, kind).toBeLessThan(peak * 0.1)
      for (let k = 0; k < i; k++) expect(samples).not.toEqual(all[k]?.samples)
    }
  })

  it('have each a loudness of their own to be turned by', () => {
    for (const channel of CHANNELS) {
      const off = { ...FULL_MIX, [channel]: 0 }
      const silent = KINDS.filter((kind) => loudnessOf({ at: tick(0), kind }, off) === 0)
      expect(silent.length, channel).toBeGreaterThan(0)
      const others = CHANNELS.filter((one) => one !== channel)
      for (const other of others) {
        const alone = { ...FULL_MIX, [other]: 0 }
        for (const kind of silent)
          expect(loudnessOf({ at: tick(0), kind }, alone)).toBeGreaterThan(0)
      }
    }
  })
})
