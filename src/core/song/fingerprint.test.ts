import { describe, expect, it } from 'vitest'
import { play } from '../../../tests/pieces/song'
import { fingerprintOf, isSameSong, likeness } from './fingerprint'

const heard = (samples: Float32Array, rate: number) => ({
  seconds: samples.length / rate,
  print: fingerprintOf(samples, rate),
})

describe('a fingerprint of a sound', () => {
  const one = play('tune', 'drum4', { seed: 11, counts: 48 })
  const other = play('tune', 'drum4', { seed: 12, counts: 48 })
  const own = heard(one.samples, one.rate)

  it('knows a copy that is quieter, a little longer, at another rate, and rougher', () => {
    const quiet = one.samples.map((x) => 0.5 * x)
    expect(isSameSong(own, heard(quiet, one.rate))).toBe(true)
    const longer = new Float32Array(one.samples.length + Math.round(0.01 * one.rate))
    longer.set(one.samples)
    expect(isSameSong(own, heard(longer, one.rate))).toBe(true)
    const rough = one.samples.map((x) => Math.round(x * 127) / 127)
    expect(isSameSong(own, heard(rough, one.rate))).toBe(true)
    const half = Float32Array.from(
      { length: Math.floor(one.samples.length / 2) },
      (_, i) => ((one.samples[2 * i] ?? 0) + (one.samples[2 * i + 1] ?? 0)) / 2,
    )
    expect(likeness(own.print, fingerprintOf(half, one.rate / 2))).toBeGreaterThan(0.85)
  })

  it('does not know another song, the same cut, or silence', () => {
    expect(isSameSong(own, heard(other.samples, other.rate))).toBe(false)
    expect(isSameSong(own, heard(one.samples.subarray(2 * one.rate), one.rate))).toBe(false)
    expect(isSameSong(own, heard(new Float32Array(one.samples.length), one.rate))).toBe(false)
    expect(own.print).toHaveLength(640)
  })
})
