import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { combination, feet, move } from '../../tests/write'
import { vocabulary } from '../core/moves/vocabulary'
import { simulate } from '../core/simulate/simulate'
import { countIn, dancePart, type Program, type Sound } from '../core/teaching/program'
import { labelOfTick, tick } from '../core/time/time'
import { createPlayer } from './player'

const danced = simulate(
  combination([[...feet('1 step R side; 2& touch L together'), move('hip-drop', '3', 'L')]]),
  vocabulary,
)
const all = { from: tick(0), to: tick(96) }
const round = (tempo: number) => dancePart(danced, 'R', all, tempo)

/** A player on a clock that only moves when it is told to. */
function stepped() {
  const clock = { currentTime: 10 }
  const booked: { sound: Sound; seconds: number }[] = []
  let wake: (() => void) | undefined
  const player = createPlayer({
    clock,
    book: (sound, seconds) => booked.push({ sound, seconds }),
    silence: () => booked.push({ sound: { at: tick(0), kind: 'and' }, seconds: -1 }),
    every: (_, call) => {
      wake = call
      return () => {
        wake = undefined
      }
    },
  })
  const run = (seconds: number, naps: () => number = () => 0.025) => {
    const until = clock.currentTime + seconds
    while (clock.currentTime < until) {
      clock.currentTime += naps()
      wake?.()
    }
  }
  return { clock, booked, player, run, isWaking: () => wake !== undefined }
}

const program = (tempo: number): Program => ({
  parts: [countIn(tempo), round(tempo)],
  loopFrom: 1,
})

describe('a count-in', () => {
  it('has the pickup danced in it, in the time of its last counts', () => {
    const early = { ...feet('1 touch R side')[0]!, id: 'early', at: tick(-6), length: tick(6) }
    const led = simulate(
      combination([[early, ...feet('1 step R side')]], { pickup: { counts: 6, each: false } }),
      vocabulary,
    )
    const part = countIn(120, { simulation: led, side: 'R' })
    expect(part.countIn).toEqual([3, 4, 5, 6, 7, 8])
    expect(part.dance).toEqual({ side: 'R', from: -72 })
    expect(part.sounds.filter(({ kind }) => kind === 'feet')).toEqual([{ at: 66, kind: 'feet' }])
  })
})

describe('the player', () => {
  it('books every sound once, in order, exactly on its time, however unevenly it is woken', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 40, max: 220 }),
        fc.array(fc.double({ min: 0.004, max: 0.28, noNaN: true }), {
          minLength: 5,
          maxLength: 40,
        }),
        (tempo, naps) => {
          const { booked, player, run } = stepped()
          let i = 0
          player.play(program(tempo))
          run((60 / tempo) * 4 + (60 / tempo) * 8 * 5, () => naps[i++ % naps.length] ?? 0.02)
          const first = booked[0]?.seconds ?? 0
          const clicks = booked.filter(
            ({ sound }) => sound.kind === 'count' || sound.kind === 'phrase',
          )
          expect(clicks.length).toBeGreaterThan(40)
          for (const [n, { seconds }] of clicks.entries())
            expect(seconds).toBeCloseTo(first + (n * 60) / tempo, 6)
          for (let n = 1; n < booked.length; n++)
            expect(booked[n]!.seconds).toBeGreaterThanOrEqual(booked[n - 1]!.seconds - 1e-9)
        },
      ),
      { numRuns: 60, seed: 51 },
    )
  })

  it('sounds count-in, phrase start, counts, halves and the layers where they stand', () => {
    const { booked, player, run } = stepped()
    player.play({ parts: [countIn(120), round(120)] })
    run(2.05 + 4)
    const heard = booked.slice(4).map(({ sound }) => `${labelOfTick(sound.at)} ${sound.kind}`)
    expect(heard.slice(0, 9)).toEqual([
      '1 phrase',
      '1 feet',
      '1& and',
      '2 count',
      '2& and',
      '2& feet',
      '3 count',
      '3 hips',
      '3& and',
    ])
    expect(booked.slice(0, 4).map(({ sound }) => sound.kind)).toEqual(Array(4).fill('count'))
  })

  it('loses nothing on a page that is ever busier, once it has noticed', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 60, max: 200 }),
        fc.array(fc.double({ min: 0.01, max: 1, noNaN: true }), { minLength: 8, maxLength: 20 }),
        (tempo, shares) => {
          const { booked, player, run, clock } = stepped()
          player.play(program(tempo))
          // Up to 250 ms at first, then up to twice the longest before, never over half a second.
          let longest = 0.25
          let i = 0
          run(40, () => {
            const nap = (shares[i++ % shares.length] ?? 1) * Math.min(0.5, longest)
            longest = Math.max(longest, 2 * nap)
            return nap
          })
          const clicks = booked.filter(
            ({ sound }) => sound.kind === 'count' || sound.kind === 'phrase',
          )
          const first = clicks[0]?.seconds ?? 0
          for (const [n, { seconds }] of clicks.entries())
            expect(seconds).toBeCloseTo(first + (n * 60) / tempo, 6)
          expect(clicks.at(-1)?.seconds).toBeGreaterThan(clock.currentTime - 1.5)
        },
      ),
      { numRuns: 80, seed: 53 },
    )
  })

  it('drops what is late after the page was blocked, and bunches nothing', () => {
    const { booked, player, run, clock } = stepped()
    player.play(program(120))
    run(1)
    clock.currentTime += 3
    const woken = clock.currentTime
    run(1)
    const after = booked.filter(({ seconds }) => seconds > woken - 3 + 0.65)
    expect(after.every(({ seconds }) => seconds >= woken)).toBe(true)
    const counts = after.filter(({ sound }) => sound.kind === 'count' || sound.kind === 'phrase')
    for (let i = 1; i < counts.length; i++)
      expect(counts[i]!.seconds - counts[i - 1]!.seconds).toBeCloseTo(0.5, 6)
  })

  it('takes a new tempo from the first sound not yet booked, and shows the place that is heard', () => {
    const { booked, player, run } = stepped()
    player.play(program(60))
    run(5)
    const before = player.position()
    const known = booked.length
    player.setTempo(120)
    expect(player.position()?.at).toBeCloseTo(before?.at ?? -1, 6)
    run(4)
    const fresh = booked.slice(known).filter(({ sound }) => sound.kind === 'count')
    expect(fresh[2]!.seconds - fresh[1]!.seconds).toBeCloseTo(0.5, 6)
    expect(player.position()?.part.dance).toEqual({ side: 'R', from: 0 })
  })

  it('goes on in a changed program without a stumble', () => {
    const { booked, player, run } = stepped()
    player.play(program(120))
    run(4)
    const known = booked.length
    const changed = simulate(combination([feet('5 step R side; 7 step L side')]), vocabulary)
    player.swap({ parts: [countIn(120), dancePart(changed, 'R', all, 120)], loopFrom: 1 })
    run(6)
    const clicks = booked.filter(({ sound }) => sound.kind === 'count' || sound.kind === 'phrase')
    for (let i = 1; i < clicks.length; i++)
      expect(clicks[i]!.seconds - clicks[i - 1]!.seconds).toBeCloseTo(0.5, 6)
    const steps = booked.slice(known).filter(({ sound }) => sound.kind === 'feet')
    expect(steps.map(({ sound }) => labelOfTick(sound.at))).toEqual(['7', '5', '7'])
  })

  it('says what follows: the dance after its count-in, and the loop after itself', () => {
    const { player, run } = stepped()
    player.play(program(120))
    run(1)
    expect(player.position()?.part.countIn).toBeDefined()
    expect(player.position()?.next?.dance).toEqual({ side: 'R', from: 0 })
    run(2)
    const { part, next } = player.position() ?? {}
    expect(part?.countIn).toBeUndefined()
    expect(next).toBe(part)
    player.play({ parts: [countIn(120), round(120)] })
    run(3)
    expect(player.position()?.next).toBeUndefined()
  })

  it('plays a program without a loop to its end, stops, and wakes no more', () => {
    const { player, run, isWaking, booked } = stepped()
    player.play({ parts: [countIn(120), round(120)] })
    run(5.5)
    expect(player.isPlaying()).toBe(true)
    run(1)
    expect(player.isPlaying()).toBe(false)
    expect(isWaking()).toBe(false)
    expect(booked.at(-1)?.seconds).toBe(-1)
    expect(player.position()).toBeUndefined()
  })
})
