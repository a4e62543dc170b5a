import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyCombination } from '../../../tests/arbitraries'
import { demo } from '../../../tests/demo'
import { holds } from '../../../tests/holds'
import { anyTeachingHouse } from '../../../tests/teaching'
import { combination, feet, move, on } from '../../../tests/write'
import { factsOf } from '../body/feet'
import { LAYERS } from '../body/layers'
import { otherSide } from '../body/side'
import { drillPerformance } from '../class/drillDance'
import type { House } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import { materialsOf, roundOf } from '../plan/material'
import { rhythmOf } from '../rhythm/rhythms'
import { simulate } from '../simulate/simulate'
import { secondsOfTicks } from '../time/tempo'
import { TICKS_PER_COUNT, tick } from '../time/time'
import { steady } from '../time/timeMap'
import {
  AND_SECONDS,
  type Call,
  type CalledSegment,
  callModes,
  callsOf,
  type SpeechSeconds,
} from './calls'
import { cuesOf, leadOf } from './cues'

/** A voice that takes a tenth of a second a letter, quick a twentieth, and has no word with a `z`. */
const speech: SpeechSeconds = (text, isFast) =>
  text.includes('z') ? undefined : Math.min(0.9, 0.09 + text.length * (isFast ? 0.02 : 0.035))

const anyDrill = fc
  .record({
    combination: anyCombination(),
    tempo: fc.integer({ min: 40, max: 220 }),
    rounds: fc.integer({ min: 1, max: 6 }),
    inTurn: fc.boolean(),
    from: fc.nat(3),
    house: anyTeachingHouse,
  })
  .map(({ combination: one, tempo, rounds, inTurn, from, house }) => {
    const lead = simulate(one, vocabulary)
    const first = lead.passes[Math.min(from, lead.passes.length - 1)]
    const phrases = inTurn || !first || first.index === 0 ? [] : [first.phrase.id]
    const drill = {
      combination: one.id,
      phrases,
      layers: LAYERS,
      sides: [one.lead, otherSide[one.lead]],
      ...(inTurn && { inTurn: true as const }),
      repeats: rounds,
      tempo,
    }
    return { one, drill, house }
  })

const segmentsOf = ({
  one,
  drill,
  house,
}: {
  one: Parameters<typeof materialsOf>[0][number]
  drill: Parameters<typeof drillPerformance>[0] & { combination: string; phrases: string[] }
  house: House
}) => {
  const round = roundOf(drill, materialsOf([one], vocabulary, house))
  if (!round) throw new Error('no round')
  return {
    round,
    segments: drillPerformance(drill, round, { rhythm: rhythmOf('plain'), call: 'rounds', speech })
      .segments,
  }
}

const spoken = (calls: readonly Call[]) => calls.filter(({ say }) => say)

describe('what is called in any drill', () => {
  it('never lies over another word, and a cue is over its lead before its event', () => {
    holds(
      fc.property(anyDrill, ({ one, drill, house }) => {
        const { segments } = segmentsOf({ one, drill, house })
        let start = 0
        const all: Call[] = []
        for (const segment of segments) {
          all.push(
            ...segment.calls.map((call) => ({ ...call, at: call.at + start, of: call.of + start })),
          )
          start += segment.length
        }
        const said = spoken(all)
        for (let i = 1; i < said.length; i++) {
          const [a, b] = [said[i - 1], said[i]]
          if (a && b) expect(a.at + a.length).toBeLessThanOrEqual(b.at + 1e-6)
        }
        for (const call of said)
          if (call.what !== 'number' && call.what !== 'and')
            expect(call.at + call.length).toBeLessThanOrEqual(
              call.of - leadOf(call.what, house) * TICKS_PER_COUNT + 1e-6,
            )
      }),
      { numRuns: 400, seed: 71 },
    )
  })

  it('calls every landing by its own number in numbered rounds, unless a cue is said there', () => {
    holds(
      fc.property(anyDrill, ({ one, drill, house }) => {
        const { segments, round } = segmentsOf({ one, drill, house })
        for (const segment of segments) {
          if (segment.round === 0) {
            expect(segment.calls.filter(({ what }) => what === 'number')).toHaveLength(
              segment.countIn?.length ?? 0,
            )
            continue
          }
          const mode = callModes(segment.rounds)[segment.round - 1]
          const numbers = segment.calls.filter(({ what }) => what === 'number')
          if (mode !== 'all') {
            expect(numbers).toEqual([])
            continue
          }
          const from = segment.from
          const simulation = round.material.from(segment.dancing)
          for (const { at, action } of simulation.danced) {
            const here = at - from
            if (here < 0 || here >= segment.length || !factsOf(action.primitive).lands) continue
            if (at % TICKS_PER_COUNT !== 0) continue
            const pass = simulation.passes.findLast((each) => each.at <= at)
            const own = numbers.find((call) => call.at === here)
            if (own) {
              expect(own.say?.onBeat).toBe(true)
              expect(own.text).toBe(WORDS[(at - (pass?.at ?? 0)) / TICKS_PER_COUNT])
              continue
            }
            // A cue stands in its place: one that sounds within this count.
            const covering = spoken(segment.calls).some(
              (call) =>
                call.what !== 'number' &&
                call.at < here + TICKS_PER_COUNT &&
                call.at + call.length > here,
            )
            const before = here === 0 || here < 8
            expect(covering || before).toBe(true)
          }
          for (const call of segment.calls.filter(({ what }) => what === 'and')) {
            const next = spoken(segment.calls).find(({ at }) => at > call.at)
            const free = (next?.at ?? segment.length) - call.at
            expect(secondsOfTicks(free, drill.tempo)).toBeGreaterThan(AND_SECONDS - 1e-9)
          }
        }
      }),
      { numRuns: 250, seed: 72 },
    )
  })

  it('has as many counts in its segments as the drill, and the strokes of its rhythm in step', () => {
    holds(
      fc.property(anyDrill, ({ one, drill, house }) => {
        const { segments, round } = segmentsOf({ one, drill, house })
        const danced = segments.filter((segment) => segment.round > 0)
        expect(danced).toHaveLength(2 * drill.repeats)
        for (const segment of danced) {
          expect(segment.length).toBe(round.counts * TICKS_PER_COUNT)
          const strokes = segment.sounds.filter(({ kind }) => kind === 'dum' || kind === 'tek')
          const at = strokes.map((stroke) => stroke.at + segment.from)
          expect(at.every((one) => one % TICKS_PER_COUNT === 0)).toBe(true)
          expect([...segment.sounds].sort((a, b) => a.at - b.at)).toEqual(segment.sounds)
        }
        const countIns = segments.filter((segment) => segment.round === 0)
        expect(countIns).toHaveLength(drill.inTurn ? 1 : 2)
      }),
      { numRuns: 120, seed: 73 },
    )
  })
})

const WORDS =
  'one two three four five six seven eight nine ten eleven twelve thirteen fourteen fifteen sixteen'.split(
    ' ',
  )

const round = (lines: Parameters<typeof combination>[0], more = {}): CalledSegment => {
  const simulation = simulate(combination(lines, more), vocabulary)
  return {
    kind: 'round',
    simulation,
    range: { from: tick(0), to: simulation.length },
    layers: LAYERS,
    mode: 'all',
    isSwitch: false,
  }
}

const heard = (segments: readonly CalledSegment[], tempo = 60) =>
  spoken(callsOf(segments, steady(tempo), speech)).map(
    ({ at, text }) => `${text}@${Math.round((at / 12) * 100) / 100}`,
  )

describe('a round that is called', () => {
  it('says a cue in place of the number it covers, and “and” where a foot lands between', () => {
    const said = heard([
      round([
        [
          ...feet('1 step R side; 2 close L; 2& step R side; 3 close L'),
          move('hip-drop', '6', 'R', { cue: 'drop' }),
        ],
      ]),
    ])
    expect(said).toContain('and@1.5')
    expect(said.some((text) => text.startsWith('drop@3.'))).toBe(true)
    expect(said).toContain('four@3')
    expect(said).toContain('five@4')
  })

  it('lets the more important of two cues be said, and shows the other', () => {
    const segments = [
      round([
        [
          ...feet('1 step R side'),
          move('hip-drop', '5', 'R', { cue: 'drop' }),
          on('arms', '5', { kind: 'move', move: 'clap' }, { cue: 'clap' }),
        ],
      ]),
    ]
    const calls = callsOf(segments, steady(60), speech).filter(
      ({ what }) => what === 'layer' || what === 'accent',
    )
    expect(calls).toHaveLength(2)
    expect(calls.filter(({ say }) => say)).toHaveLength(1)
  })

  it('says nothing but the switch in the last round, before the other side is counted in', () => {
    const countIn: CalledSegment = { kind: 'count-in', numbers: [5, 6, 7, 8], length: 48 }
    const first = { ...round([feet('1 step R side; 3 step L side')]), mode: 'switch' as const }
    const second = { ...first, isSwitch: true }
    const said = heard([countIn, first, countIn, second])
    expect(said.filter((text) => text.startsWith('switch'))).toHaveLength(1)
    const calls = callsOf([countIn, first, countIn, second], steady(60), speech)
    const change = calls.find(({ what }) => what === 'switch')
    expect(change?.of).toBe(48 + 96)
    expect((change?.at ?? 0) + (change?.length ?? 0)).toBeLessThanOrEqual(48 + 96 - 24)
    expect(said.filter((text) => /five|six|seven|eight/.test(text))).toHaveLength(8)
  })

  it('calls early rounds by number, later ones by cue, the last by the switch alone', () => {
    expect(callModes(1)).toEqual(['all'])
    expect(callModes(2)).toEqual(['all', 'switch'])
    expect(callModes(5)).toEqual(['all', 'all', 'cues', 'cues', 'switch'])
  })
})

describe('a phrase', () => {
  it.each([
    ['2', 'phrase two'],
    ['12', 'phrase twelve'],
    ['B', 'phrase B'],
  ])('“%s” is called “%s”, which the voice can say', (name, called) => {
    const [demoOne] = demo
    if (!demoOne) throw new Error('no demo')
    const phrases = demoOne.phrases.map((one, i) => (i === 1 ? { ...one, name } : one))
    const lead = simulate({ ...demoOne, phrases }, vocabulary)
    const texts = lead.passes.flatMap((pass) => cuesOf(lead, pass, LAYERS)).map(({ text }) => text)
    expect(texts).toContain(called)
  })
})
