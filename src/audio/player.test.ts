import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { holds } from '../../tests/holds'
import { countsAt, songWith } from '../../tests/songs'
import { combination, feet, move } from '../../tests/write'
import { aloneFrom } from '../core/combination/dancing'
import { vocabulary } from '../core/moves/vocabulary'
import { type Performance, performanceOf } from '../core/performance/performance'
import type { SegmentMusic } from '../core/performance/played'
import { songPlayed } from '../core/performance/songPlayed'
import { isClick, type Sound } from '../core/performance/sounds'
import { SILENT, stretchOf } from '../core/performance/stretches'
import { type Simulation, simulate } from '../core/simulate/simulate'
import { labelOfTick, tick } from '../core/time/time'
import { steady } from '../core/time/timeMap'
import { createPlayer } from './player'

const danced = simulate(
  combination([[...feet('1 step R side; 2& touch L together'), move('hip-drop', '3', 'L')]]),
  vocabulary,
)
/** Counted in and danced, and on and on where it is not only once. */
const program = (tempo: number, once = false, simulation: Simulation = danced): Performance =>
  performanceOf(
    [stretchOf({ lead: simulation, from: () => simulation }, aloneFrom('R'))],
    { time: steady(tempo), speech: SILENT },
    once ? undefined : 1,
  )

/** A player on a clock that only moves when it is told to. */
function stepped() {
  const clock = { currentTime: 10 }
  let booked: { sound: Sound; seconds: number }[] = []
  let wake: (() => void) | undefined
  let music: { music: SegmentMusic; at: number; until: number }[] = []
  const player = createPlayer({
    clock,
    music: {
      book: (own, at, until) => music.push({ music: own, at, until }),
      takeBack: (from) => {
        music = music
          .filter(({ at }) => at < from)
          .map((one) => ({ ...one, until: Math.min(one.until, from) }))
      },
      goOn() {},
    },
    book: (sound, seconds) => booked.push({ sound, seconds }),
    takeBack: (from) => {
      booked = booked.filter(({ seconds }) => seconds < from)
    },
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
  /** Booked and not taken back, up to now and what stands ahead. */
  const sounds = () => booked
  const clicks = () => booked.filter(({ sound }) => isClick(sound.kind) && sound.kind !== 'and')
  return {
    clock,
    sounds,
    clicks,
    songs: () => music,
    player,
    run,
    isWaking: () => wake !== undefined,
  }
}

describe('a count-in', () => {
  it('has the pickup danced in it, in the time of its last counts', () => {
    const early = { ...feet('1 touch R side')[0]!, id: 'early', at: tick(-6), length: tick(6) }
    const led = simulate(
      combination([[early, ...feet('1 step R side')]], { pickup: { counts: 6, each: false } }),
      vocabulary,
    )
    const segment = program(120, true, led).segments[0]
    expect(segment?.countIn).toEqual([3, 4, 5, 6, 7, 8])
    expect(segment?.from).toBe(-72)
    expect(segment?.sounds.filter(({ kind }) => kind === 'feet')).toEqual([
      { at: 66, kind: 'feet' },
    ])
  })
})

const naps = (most: number) =>
  fc.array(fc.double({ min: 0.004, max: most, noNaN: true }), { minLength: 5, maxLength: 40 })

describe('the player', () => {
  it('books every sound once, in order, exactly on its time, however busy the page is', () => {
    holds(
      fc.property(fc.integer({ min: 40, max: 220 }), naps(1.9), (tempo, naps) => {
        const { sounds, clicks, player, run } = stepped()
        let i = 0
        player.play(program(tempo))
        run((60 / tempo) * 4 + (60 / tempo) * 8 * 5, () => naps[i++ % naps.length] ?? 0.02)
        const first = sounds()[0]?.seconds ?? 0
        expect(clicks().length).toBeGreaterThan(40)
        for (const [n, { seconds }] of clicks().entries())
          expect(seconds).toBeCloseTo(first + (n * 60) / tempo, 6)
        for (let n = 1; n < sounds().length; n++)
          expect(sounds()[n]!.seconds).toBeGreaterThanOrEqual(sounds()[n - 1]!.seconds - 1e-9)
      }),
      { numRuns: 80, seed: 51 },
    )
  })

  it('hears every change within a third of a second, and loses and doubles nothing by it', () => {
    const change = fc.oneof(
      fc.integer({ min: 40, max: 220 }).map((tempo) => ({ tempo })),
      fc.constant('swap' as const),
      fc.constant('rebook' as const),
    )
    const changes = fc.array(fc.tuple(fc.double({ min: 0.01, max: 3, noNaN: true }), change), {
      minLength: 1,
      maxLength: 8,
    })
    holds(
      fc.property(fc.integer({ min: 40, max: 220 }), naps(0.2), changes, (tempo, naps, changes) => {
        const { clock, sounds, clicks, player, run } = stepped()
        let i = 0
        const nap = () => naps[i++ % naps.length] ?? 0.02
        player.play(program(tempo))
        let now = tempo
        for (const [wait, change] of changes) {
          run(wait, nap)
          const heard = player.position()
          if (change === 'swap') player.swap(program(now))
          else if (change === 'rebook') player.rebook()
          else {
            now = change.tempo
            player.swap(program(now))
          }
          expect(player.position()?.at).toBeCloseTo(heard?.at ?? -1, 6)
        }
        const changed = clock.currentTime
        run(6, nap)
        // Counts follow each other by at least the fastest and at most the slowest tempo.
        const gaps = clicks()
          .slice(1)
          .map(({ seconds }, n) => seconds - clicks()[n]!.seconds)
        expect(Math.min(...gaps)).toBeGreaterThan(60 / 220 - 1e-6)
        expect(Math.max(...gaps)).toBeLessThan(60 / 40 + 1e-6)
        // A third of a second after the last change only its tempo is heard.
        const since = clicks().filter(({ seconds }) => seconds > changed + 1 / 3)
        for (let n = 1; n < since.length; n++)
          expect(since[n]!.seconds - since[n - 1]!.seconds).toBeCloseTo(60 / now, 6)
        // All four counts in, then the rounds: every tick of the dance in its order.
        const ticks = clicks().map(({ sound }) => sound.at)
        const whole = [0, 12, 24, 36, ...Array.from(ticks, (_, n) => (n % 8) * 12)]
        expect(ticks).toEqual(whole.slice(0, ticks.length))
        const steps = sounds().filter(({ sound }) => sound.kind === 'feet')
        expect(new Set(steps.map(({ seconds }) => seconds.toFixed(6))).size).toBe(steps.length)
      }),
      { numRuns: 150, seed: 53 },
    )
  })

  it('sounds count-in, phrase start, counts, halves and the layers where they stand', () => {
    const { sounds, player, run } = stepped()
    player.play(program(120, true))
    run(2.05 + 3)
    const heard = sounds()
      .slice(4)
      .map(({ sound }) => `${labelOfTick(sound.at)} ${sound.kind}`)
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
    expect(
      sounds()
        .slice(0, 4)
        .map(({ sound }) => sound.kind),
    ).toEqual(Array(4).fill('count'))
  })

  it('drops what is late after the page was blocked, and bunches nothing', () => {
    const { clicks, player, run, clock } = stepped()
    player.play(program(120))
    run(1)
    clock.currentTime += 5
    const woken = clock.currentTime
    run(1)
    // Booked before it was blocked, two seconds of it; then nothing until it woke.
    const after = clicks().filter(({ seconds }) => seconds > woken - 2.9)
    expect(after.length).toBeGreaterThan(2)
    expect(after.every(({ seconds }) => seconds >= woken)).toBe(true)
    for (let i = 1; i < after.length; i++)
      expect(after[i]!.seconds - after[i - 1]!.seconds).toBeCloseTo(0.5, 6)
  })

  it('goes on in a changed program without a stumble', () => {
    const { sounds, clicks, clock, player, run } = stepped()
    player.play(program(120))
    run(4)
    const changedAt = clock.currentTime
    const changed = simulate(combination([feet('5 step R side; 7 step L side')]), vocabulary)
    player.swap(program(120, false, changed))
    run(6)
    for (let i = 1; i < clicks().length; i++)
      expect(clicks()[i]!.seconds - clicks()[i - 1]!.seconds).toBeCloseTo(0.5, 6)
    const steps = sounds().filter(
      ({ sound, seconds }) => sound.kind === 'feet' && seconds > changedAt + 0.25,
    )
    expect(steps.map(({ sound }) => labelOfTick(sound.at))).toEqual(['7', '5', '7'])
  })

  it('reports each segment as it begins to be heard, also when the page was blocked over several', () => {
    const { player, run, clock } = stepped()
    const turns: number[] = []
    player.onTurn((turn) => turns.push(turn))
    player.play(program(120))
    run(1)
    expect(turns).toEqual([0])
    run(1.2)
    expect(turns).toEqual([0, 1])
    const { turn, tick: at } = player.position() ?? {}
    // The loop is on the same ticks each time it is danced.
    expect(turn).toBe(1)
    run(4)
    expect(player.position()?.turn).toBe(2)
    expect(player.position()?.tick).toBeCloseTo(at ?? -1, 6)
    clock.currentTime += 1.5
    run(0.1)
    run(12)
    expect(turns).toEqual(Array.from(turns, (_, i) => i))
    expect(turns.at(-1)).toBe(player.position()?.turn)
  })

  it('plays a program without a loop to its end, stops, and wakes no more', () => {
    const { player, run, isWaking, sounds, clock } = stepped()
    player.play(program(120, true))
    run(5.5)
    expect(player.performed() !== undefined).toBe(true)
    run(1)
    expect(player.performed() !== undefined).toBe(false)
    expect(isWaking()).toBe(false)
    expect(sounds().every(({ seconds }) => seconds < clock.currentTime)).toBe(true)
    expect(player.position()).toBeUndefined()
  })

  it('keeps a song that drifts and its clicks together, whatever is changed, looped or missed', () => {
    const anySong = fc
      .array(fc.integer({ min: 300, max: 900 }), { minLength: 24, maxLength: 60 })
      .map((gaps) => {
        let at = 700
        return songWith(countsAt([at, ...gaps.map((gap) => (at += gap))]))
      })
    const anyChange = fc.record({
      wait: fc.double({ min: 0.05, max: 5, noNaN: true }),
      rate: fc.integer({ min: 8, max: 24 }).map((twentieths) => twentieths / 20),
      kind: fc.constantFrom('swap', 'rebook', 'again'),
    })
    const anyPart = fc.record({
      from: fc.nat(12),
      counts: fc.integer({ min: 2, max: 20 }),
      isLooped: fc.boolean(),
      countIn: fc.constantFrom(0, 4),
    })
    let told = 0
    holds(
      fc.property(
        anySong,
        anyPart,
        fc.array(anyChange, { maxLength: 8 }),
        naps(0.6),
        (song, { from, counts, ...how }, changes, naps) => {
          const { sounds, songs, player, run } = stepped()
          const played = (rate: number) =>
            songPlayed(song, { from, to: from + counts, rate, isNumbered: false, ...how })
          let i = 0
          const nap = () => naps[i++ % naps.length] ?? 0.02
          let rate = 1
          player.play(played(rate))
          for (const change of changes) {
            run(change.wait, nap)
            if (change.kind === 'rebook') player.rebook()
            else rate = change.rate
            if (change.kind === 'swap') player.swap(played(rate))
            if (change.kind === 'again') player.play(played(rate))
          }
          run(4, nap)
          const { ms } = song.counts
          for (const { sound, seconds } of sounds()) {
            const own = songs().find(({ at, until }) => seconds >= at - 1e-9 && seconds < until)
            if (!own) continue
            const place = own.music.from + own.music.rate * (seconds - own.at)
            const off = Math.min(...ms.map((at) => Math.abs(at / 1000 - place)))
            expect(off, JSON.stringify(sound)).toBeLessThan(1e-6)
            told++
          }
          // Pieces of it follow each other without a gap, a loop from its first count again.
          for (const [n, one] of songs().entries()) {
            const next = songs()[n + 1]
            if (!next || one.until < next.at - 1e-9) continue
            expect(one.until).toBeCloseTo(next.at, 9)
            const end = one.music.from + one.music.rate * (one.until - one.at)
            const again = (ms[from] as number) / 1000
            expect(
              Math.min(Math.abs(next.music.from - end), Math.abs(next.music.from - again)),
            ).toBeLessThan(1e-6)
          }
        },
      ),
      { numRuns: 120, seed: 58 },
    )
    expect(told).toBeGreaterThan(50)
  })
})
