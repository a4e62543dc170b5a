import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyCombination } from '../../../tests/arbitraries'
import { holds } from '../../../tests/holds'
import { demoId, materials, wishesOf } from '../../../tests/teaching'
import { LAYERS } from '../body/layers'
import type { Combination } from '../combination/combination'
import { USUAL_HOUSE } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import type { Segment } from '../performance/segments'
import type { Drill } from '../plan/drill'
import { countsPerSide, danceSeconds, materialsOf, roundOf, secondsOf } from '../plan/material'
import { planClass } from '../plan/planner'
import { rhythmOf } from '../rhythm/rhythms'
import { writeVtt } from '../sheet/vtt'
import { TICKS_PER_COUNT } from '../time/time'
import { choiceAfter, drillPerformance } from './drillDance'
import { USUAL_SOUND } from './soundChoice'

const speech = (text: string) => text.length * 0.04
const sound = { rhythm: undefined, call: 'rounds', speech } as const

const drillOf = (more: Partial<Drill> = {}): Drill => ({
  id: 'd',
  kind: 'all',
  combination: demoId('Copper Lantern'),
  phrases: [],
  layers: [...LAYERS],
  sides: ['R', 'L'],
  repeats: 2,
  tempo: 80,
  talk: 0,
  stand: 'back',
  ...more,
})

/** Whether some of its counts are to go without a word. */
const isQuiet = ({ call, phrases }: Combination): boolean =>
  call !== undefined || phrases.some((one) => one.call || one.remarks?.some(({ only }) => only))

const isPlayed = ({ seconds }: Drill) => seconds === undefined

function play(drill: Drill, from = materials) {
  const round = roundOf(drill, from)
  if (!round) throw new Error('no round')
  const performed = drillPerformance(drill, round, sound)
  const momentOf = (index: number, at: number) =>
    performed.momentAt(performed.tickOf({ index, at }))
  return { round, performed, segments: performed.segments, momentOf }
}

describe('a drill as it is played', () => {
  it('lasts as long as its plan says, and dances as many counts a side, whatever it is', () => {
    holds(
      fc.property(
        anyCombination(),
        fc.integer({ min: 12, max: 90 }),
        fc.integer({ min: 40, max: 160 }),
        (combination, minutes, tempoNow) => {
          const own = materialsOf([combination], vocabulary, USUAL_HOUSE)
          const wishes = {
            ...wishesOf('Copper Lantern'),
            combinations: [combination.id],
            minutes,
            tempoNow,
          }
          for (const drill of planClass(wishes, own).drills.filter(isPlayed)) {
            const { segments, round, performed } = play(drill, own)
            // The first move is named while it is still talked.
            const [named] = segments
            const talked = named?.countIn?.length === 0 ? named.time.secondsAt(named.length) : 0
            expect(talked).toBeLessThanOrEqual(drill.talk + 60 / drill.tempo)
            // Count 1 of every step is announced, and no round with something new is dumb.
            expect(
              named?.calls.map(({ what }) => what),
              drill.id,
            ).toEqual(['names'])
            // A word of the round before may lie over all of a round of one count.
            for (const { isCalled, round: number, calls, length } of segments)
              if (
                !isQuiet(combination) &&
                drill.isNew &&
                number > 0 &&
                number < 3 &&
                length >= 4 * TICKS_PER_COUNT
              ) {
                expect(isCalled).toBe(true)
                expect(
                  calls.some(({ say }) => say),
                  JSON.stringify([drill, length, calls]),
                ).toBe(true)
              }
            const played = performed.time.secondsAt(performed.length) - talked
            expect(Math.ceil(played - 1e-6) + drill.talk).toBe(secondsOf(drill, own))
            expect(played).toBeCloseTo(danceSeconds(drill, round, drill.repeats), 6)
            const counts = { R: 0, L: 0 }
            for (const { round: number, dancing, length } of segments)
              if (number > 0) counts[dancing.side] += length / TICKS_PER_COUNT
            // What is shown is danced by nobody else.
            if (drill.kind === 'show') continue
            const planned = countsPerSide(drill, own)
            expect(counts.R + counts.L).toBe(planned.R + planned.L)
            if (!drill.moves) expect(counts).toEqual(planned)
          }
        },
      ),
      { numRuns: 60, seed: 101 },
    )
  })

  it('has only the layers that are drilled, heard and called', () => {
    const all = play(drillOf()).segments
    const feet = play(drillOf({ layers: ['feet'] })).segments
    const kinds = (segments: readonly Segment[]) =>
      new Set(segments.flatMap(({ sounds }) => sounds.map(({ kind }) => kind)))
    // Nobody turns a leg in it.
    const danced = LAYERS.filter((layer) => layer !== 'legs')
    expect([...LAYERS].filter((layer) => kinds(all).has(layer))).toEqual(danced)
    expect([...LAYERS].filter((layer) => kinds(feet).has(layer))).toEqual(['feet'])
    const texts = (segments: readonly Segment[]) =>
      new Set(segments.flatMap(({ calls }) => calls.map(({ text }) => text)))
    expect([...texts(feet)].filter((text) => !texts(all).has(text))).toEqual([])
    expect(texts(all).size).toBeGreaterThan(texts(feet).size)
  })

  it('is counted in with four counts, or a whole eight where that is liked', () => {
    const numbers = (countIn: number) => {
      const drill = drillOf()
      const { round } = play(drill)
      return drillPerformance(drill, round, { ...sound, countIn }).segments[0]?.countIn
    }
    expect(numbers(4)).toEqual([5, 6, 7, 8])
    expect(numbers(8)).toEqual([1, 2, 3, 4, 5, 6, 7, 8])
    // After a rest nobody has the beat any more.
    const rest = drillOf({ kind: 'pause' })
    expect(choiceAfter(USUAL_SOUND, rest).countIn).toBe(8)
    expect(choiceAfter(USUAL_SOUND, drillOf())).toBe(USUAL_SOUND)
  })

  it('says nothing at all where nothing is wanted, and keeps to its rhythm', () => {
    const drill = drillOf()
    const { round } = play(drill)
    const { segments } = drillPerformance(drill, round, {
      ...sound,
      call: 'none',
      rhythm: rhythmOf('maqsum'),
    })
    expect(segments.flatMap(({ calls }) => calls)).toEqual([])
    expect(segments.some(({ sounds }) => sounds.some(({ kind }) => kind === 'say'))).toBe(false)
    const dums = segments.map(({ sounds }) => sounds.filter(({ kind }) => kind === 'dum').length)
    // Two in each cycle of four counts, none while it is counted in.
    expect(dums).toEqual(
      segments.map((segment) => (segment.round === 0 ? 0 : segment.length / 12 / 2)),
    )
  })
})

describe('what the floor shows', () => {
  it('counts in, then every count of every phrase, and says what comes ever nearer', () => {
    const { segments, momentOf } = play(drillOf())
    for (const [i, segment] of segments.entries()) {
      const shown = Array.from({ length: segment.length / TICKS_PER_COUNT }, (_, count) =>
        momentOf(i, count * TICKS_PER_COUNT + 3),
      )
      const wanted =
        segment.round === 0
          ? (segment.countIn ?? [])
          : segment.simulation.passes.flatMap(({ phrase }) =>
              Array.from({ length: phrase.counts }, (_, n) => n + 1),
            )
      expect(shown.map(({ count }) => count)).toEqual(wanted.map(String))
      expect(shown.every(({ isCountIn }) => isCountIn === (segment.round === 0))).toBe(true)
      for (let n = 1; n < shown.length; n++) {
        const [before, now] = [shown[n - 1]?.next, shown[n]?.next]
        if (before && now && before.text === now.text && now.counts < before.counts)
          expect(before.counts - now.counts).toBe(1)
        expect(now?.counts ?? 1).toBeGreaterThanOrEqual(1)
      }
    }
  })

  it('announces the other side before it comes', () => {
    const { segments, momentOf } = play(drillOf({ repeats: 1 }))
    const right = segments.findIndex(({ dancing, round }) => dancing.side === 'R' && round === 1)
    const segment = segments[right]
    if (!segment) throw new Error('no right side')
    const last = momentOf(right, segment.length - TICKS_PER_COUNT)
    expect(last.next).toEqual({ text: 'left side', counts: 1 })
  })

  it('holds a cue from where it is said until what it announces', () => {
    const { segments, momentOf } = play(drillOf({ repeats: 4 }))
    let held = 0
    for (const [i, segment] of segments.entries())
      for (const call of segment.calls) {
        if (call.what === 'number' || call.what === 'and' || !call.say) continue
        const later = segment.calls.some(
          (other) =>
            other !== call &&
            other.what !== 'number' &&
            other.what !== 'and' &&
            other.at > call.at &&
            other.at <= call.at + call.length,
        )
        if (later) continue
        expect(momentOf(i, call.at + call.length / 2).said).toBe(call.text)
        held++
      }
    expect(held).toBeGreaterThan(3)
  })

  it('shows no word before it is called, and each until what it announces, over any border', () => {
    holds(
      fc.property(
        anyCombination(),
        fc.integer({ min: 40, max: 200 }),
        fc.integer({ min: 1, max: 4 }),
        fc.boolean(),
        (combination, tempo, repeats, inTurn) => {
          const own = materialsOf([combination], vocabulary, USUAL_HOUSE)
          const drill = drillOf({
            combination: combination.id,
            tempo,
            repeats,
            ...(inTurn && { inTurn: true as const }),
          })
          const { segments, momentOf } = play(drill, own)
          let start = 0
          const called = segments.flatMap((segment) => {
            const from = start
            start += segment.length
            return segment.calls
              .filter(({ what }) => what !== 'number' && what !== 'and')
              .map((call) => ({
                text: call.text,
                at: call.at + from,
                of: call.of + from + (call.say?.onBeat ? TICKS_PER_COUNT : 0),
              }))
          })
          start = 0
          for (const [i, segment] of segments.entries()) {
            for (let at = 0; at < segment.length; at += 4) {
              const now = start + at
              const held = called.filter((call) => call.at <= now && now < call.of)
              // What is held longer than a segment and its neighbour is a word nobody needs any more.
              const near = held.filter((call) => call.at >= start - (segments[i - 1]?.length ?? 0))
              const { said } = momentOf(i, at)
              if (said === '') expect(near).toEqual([])
              else expect(held.map(({ text }) => text)).toContain(said)
            }
            start += segment.length
          }
        },
      ),
      { numRuns: 60, seed: 102 },
    )
  })

  it('marks the other side in a round of moves', () => {
    const drill = drillOf({ moves: ['hip-sway', 'side-rise'], sides: ['R'] })
    const { combination: _, ...warmUp } = drill
    const { segments, momentOf } = play(warmUp)
    const round = segments.findIndex((segment) => segment.round === 1)
    const sides = [0, 8, 16, 24].map((count) => momentOf(round, count * TICKS_PER_COUNT).isMirrored)
    expect(sides).toEqual([false, true, false, true])
  })
})

describe('the captions of a drill', () => {
  it('have every count at its time, and what is called, spoken or shown', () => {
    const { segments, performed } = play(drillOf({ tempo: 60 }))
    const text = writeVtt(performed)
    const times = [...text.matchAll(/(\d\d):(\d\d):(\d\d\.\d{3}) -->/g)].map(
      ([, h, m, s]) => Number(h) * 3600 + Number(m) * 60 + Number(s),
    )
    const counts = segments.reduce((sum, { length }) => sum + length / TICKS_PER_COUNT, 0)
    // One count a second.
    expect(times).toEqual(Array.from({ length: counts }, (_, i) => i))
    const called = segments.flatMap(({ calls }) =>
      calls.filter(({ what }) => what !== 'number' && what !== 'and'),
    )
    for (const call of called) expect(text).toContain(call.text)
    expect(text.match(/^5( ·|$)/gm)?.length).toBeGreaterThanOrEqual(2)
  })
})
