import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { casesOf, holds } from '../../tests/holds'
import { fromWhole, type HeldSound, holding, PIECE } from './held'
import { createMusic } from './music'

const RATE = 8000
/** Sound in which each sample tells where it is. */
const valueAt = (at: number) => (((at * 7) % 4001) - 2000) / 4001

const SECONDS = 70
const held: HeldSound = (() => {
  const sound = holding(RATE, 1)
  sound.take([Float32Array.from({ length: SECONDS * RATE }, (_, i) => valueAt(i))])
  return sound.all()
})()

/** How loud something is, as it was written ahead. */
class Gain {
  private written: { kind: 'set' | 'ramp'; value: number; at: number }[] = []
  setValueAtTime(value: number, at: number) {
    this.written.push({ kind: 'set', value, at })
  }
  linearRampToValueAtTime(value: number, at: number) {
    this.written.push({ kind: 'ramp', value, at })
  }
  cancelScheduledValues(from: number) {
    this.written = this.written.filter(({ at }) => at < from)
  }
  setTargetAtTime() {}
  valueAt(seconds: number): number {
    const sorted = [...this.written].sort((a, b) => a.at - b.at)
    const before = sorted.findLast(({ at }) => at <= seconds)
    const next = sorted.find(({ at }) => at > seconds)
    const value = before?.value ?? 1
    if (next?.kind !== 'ramp') return value
    const from = before?.at ?? 0
    return value + ((next.value - value) * (seconds - from)) / (next.at - from)
  }
}

interface Sounding {
  readonly gain: Gain
  readonly samples: Float32Array
  readonly at: number
  readonly offset: number
  until: number
}

/** An audio clock that only moves when it is told to, and what can be heard on it. */
function stepped() {
  const sounding: Sounding[] = []
  const context = {
    currentTime: 0,
    destination: {},
    createGain() {
      const node = { gain: new Gain(), connect: (to: object) => to, disconnect() {} }
      return node
    },
    createBuffer: (_: number, length: number) => {
      const samples = new Float32Array(length)
      return { samples, copyToChannel: (row: Float32Array) => samples.set(row) }
    },
    createBufferSource() {
      let to: { gain: Gain } | undefined
      let own: Sounding | undefined
      const node = {
        buffer: undefined as { samples: Float32Array } | undefined,
        onended: undefined,
        connect(target: { gain: Gain }) {
          to = target
        },
        start(at: number, offset: number) {
          const samples = node.buffer?.samples ?? new Float32Array()
          // What is started in the past sounds from now on: it would be late.
          own = {
            gain: to?.gain ?? new Gain(),
            samples,
            at,
            offset,
            until: Number.POSITIVE_INFINITY,
          }
          expect(at).toBeGreaterThanOrEqual(context.currentTime)
          sounding.push(own)
        },
        stop(at = context.currentTime) {
          if (own) own.until = at
        },
      }
      return node
    },
  }
  /** What is heard at a second, all that sounds then together. */
  const heardAt = (seconds: number) =>
    sounding
      .filter(({ at, until }) => seconds >= at && seconds < until)
      .reduce((sum, { samples, at, offset, gain }) => {
        const sample = samples[Math.round((seconds - at + offset) * RATE)] ?? 0
        return sum + sample * gain.valueAt(seconds)
      }, 0)
  return { context, heardAt }
}

/** Waits until what was asked for beside the clock is there. */
const arrived = async () => {
  for (let i = 0; i < 8; i++) await Promise.resolve()
}

describe('a song on the audio clock', () => {
  const anyRun = fc.record({
    from: fc.integer({ min: 0, max: 40 * RATE }).map((at) => at / RATE),
    rate: fc.constantFrom(1, 1, 0.8, 0.5),
    long: fc.oneof(fc.integer({ min: 1, max: 20 }), fc.constant(Number.POSITIVE_INFINITY)),
    wait: fc.integer({ min: 100, max: 9000 }).map((ms) => ms / 1000),
    takes: fc.boolean(),
  })

  it('sounds its own sample at each moment, over pieces, changes of speed and what is taken back', async () => {
    let told = 0
    await holds(
      fc.asyncProperty(fc.array(anyRun, { minLength: 1, maxLength: 6 }), async (runs) => {
        const { context, heardAt } = stepped()
        const music = createMusic(context as unknown as BaseAudioContext, {
          soundOf: (mark) => (mark === 'song' ? held : undefined),
          // At another speed each sample tells where it is at that speed.
          slow: async ({ from, length }) => [
            Int16Array.from({ length }, (_, i) => Math.round(32_767 * valueAt(from + i))),
          ],
          onCant: () => expect.unreachable(),
        })
        const wanted: { at: number; until: number; from: number; rate: number }[] = []
        const step = async (seconds: number) => {
          const until = context.currentTime + seconds
          while (context.currentTime < until) {
            context.currentTime = Math.min(until, context.currentTime + 0.5)
            music.goOn()
            await arrived()
          }
        }
        for (const { from, rate, long, wait, takes } of runs) {
          const last = wanted.at(-1)
          const begins = context.currentTime + 0.3
          if (last && last.until > begins) {
            // As a player does: what was to come is taken back, and something else is booked.
            music.takeBack(begins)
            last.until = begins
          }
          const own = { mark: 'song', from, rate }
          await music.ready(own)
          const at = Math.round(begins * RATE) / RATE
          music.book(own, begins, begins + long)
          wanted.push({ at, until: begins + long, from, rate })
          await arrived()
          await step(wait)
          if (takes) {
            const stops = context.currentTime + 0.25
            const one = wanted.at(-1) as (typeof wanted)[number]
            music.takeBack(stops)
            one.until = Math.min(one.until, stops)
            await step(0.6)
          }
        }
        const now = context.currentTime
        // Away from where something comes or goes.
        const edges = wanted.flatMap(({ at, until }) => [at, until])
        for (let n = 0; n < 200; n++) {
          const seconds = Math.round((now * RATE * n) / 200) / RATE
          if (edges.some((edge) => seconds > edge - 0.001 && seconds < edge + 0.012)) continue
          const own = wanted.find(({ at, until }) => seconds >= at && seconds < until)
          const heard = heardAt(seconds)
          if (!own) {
            expect(heard).toBe(0)
            continue
          }
          const from = Math.round((own.from / own.rate) * RATE)
          const place = from + Math.round((seconds - own.at) * RATE)
          if (place >= (SECONDS / own.rate) * RATE) continue
          const value = Math.round(32_767 * valueAt(place))
          expect(heard).toBeCloseTo(fromWhole(value), 3)
          told++
        }
      }),
      { numRuns: 40, seed: 91 },
    )
    expect(told).toBeGreaterThan(100 * casesOf(40))
  }, 60_000)

  it('goes on over a piece although the page slept, from where it then is', async () => {
    const { context, heardAt } = stepped()
    const music = createMusic(context as unknown as BaseAudioContext, {
      soundOf: () => held,
      slow: () => expect.unreachable(),
      onCant: () => expect.unreachable(),
    })
    music.book({ mark: 'song', from: 0, rate: 1 }, 1, Number.POSITIVE_INFINITY)
    const border = 1 + PIECE / RATE
    context.currentTime = border - 3
    music.goOn()
    // Over the border and two seconds behind it, without being woken.
    context.currentTime = border + 2
    expect(heardAt(border + 1)).toBe(0)
    music.goOn()
    const place = Math.round(4 * RATE) + PIECE
    expect(heardAt(border + 4)).toBeCloseTo(valueAt(place), 3)
    expect(heardAt(border + 2)).toBe(0)
  })
})
