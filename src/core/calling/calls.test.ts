import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyPiece } from '../../../tests/anyPiece'
import { anyCombination } from '../../../tests/arbitraries'
import { demo } from '../../../tests/demo'
import { holds } from '../../../tests/holds'
import { anyTeachingHouse } from '../../../tests/teaching'
import { speech } from '../../../tests/voice'
import { combination, feet, move, on } from '../../../tests/write'
import { factsOf } from '../body/feet'
import { LAYERS } from '../body/layers'
import { otherSide } from '../body/side'
import { drillPerformance } from '../class/drillDance'
import type { Combination } from '../combination/combination'
import { partOf } from '../combination/partOf'
import { pickupTicks } from '../combination/passes'
import type { House } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import { countsOnce, materialsOf, roundOf } from '../plan/material'
import { rhythmOf } from '../rhythm/rhythms'
import { simulate } from '../simulate/simulate'
import { secondsOfTicks } from '../time/tempo'
import { HALF_COUNT, numberAt, TICKS_PER_COUNT, tick } from '../time/time'
import { steady } from '../time/timeMap'
import type { Call, CalledSegment } from './called'
import { AND_SECONDS, callModes, callsOf } from './calls'
import { cuesOf, leadOf } from './cues'
import { numberWord } from './numbers'

const anyDrill = fc
  .record({
    combination: fc.oneof(
      { weight: 3, arbitrary: anyCombination() },
      { weight: 1, arbitrary: anyPiece() },
    ),
    tempo: fc.integer({ min: 40, max: 220 }),
    rounds: fc.integer({ min: 1, max: 6 }),
    inTurn: fc.boolean(),
    from: fc.nat(3),
    house: anyTeachingHouse,
  })
  .map(({ combination: one, tempo, rounds, inTurn, from, house }) => {
    const own = partOf(one, '1')
    const lead = simulate(own, vocabulary)
    const first = lead.passes[Math.min(from, lead.passes.length - 1)]
    const phrases = inTurn || !first || first.index === 0 ? [] : [first.phrase.id]
    const drill = {
      combination: one.id,
      phrases,
      layers: LAYERS,
      sides: [own.lead, otherSide[own.lead]],
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

/** The same with the numbers on all of its counts. */
const numbered = ({ call: _, ...one }: Combination): Combination => ({
  ...one,
  phrases: one.phrases.map(({ call: _, remarks, ...phrase }) => ({
    ...phrase,
    ...(remarks && { remarks: remarks.map(({ only: _, ...remark }) => remark) }),
  })),
})

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
          if (
            call.what !== 'number' &&
            call.what !== 'and' &&
            call.what !== 'names' &&
            call.what !== 'extra'
          ) {
            // On its own count while it is learned, else over in time.
            if (call.say?.onBeat) expect(call.at).toBe(call.of)
            else
              expect(call.at + call.length).toBeLessThanOrEqual(
                call.of - leadOf(call.what, house) * TICKS_PER_COUNT + 1e-6,
              )
          }
      }),
      { numRuns: 400, seed: 71 },
    )
  })

  it('calls every landing by its own number in numbered rounds, unless a cue is said there', () => {
    holds(
      fc.property(anyDrill, ({ one, drill, house }) => {
        const { segments, round } = segmentsOf({ one: numbered(one), drill, house })
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
              expect(own.text).toBe(pass && numberWord(numberAt(at - pass.at, pass.phrase)))
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
          const isCountedIn = segments[segments.indexOf(segment) - 1]?.round === 0
          const once = isCountedIn ? 0 : countsOnce(round)
          expect(segment.length).toBe((round.counts - once) * TICKS_PER_COUNT)
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
    // While it is learned the name is said on its own count.
    expect(said).toContain('drop@5')
    expect(said).not.toContain('six@5')
    expect(said).toContain('five@4')
  })

  it('says a row of accents whole, each in place of its number, and a turn ahead', () => {
    const accent = (at: string, cue: string) => move('hip-drop', at, 'R', { cue })
    const row = round([
      [
        ...feet('1 step R side; 7 step L side turn 360'),
        accent('1', 'up'),
        accent('2', 'down'),
        accent('3', 'up'),
        accent('4', 'kick'),
      ],
    ])
    for (const tempo of [60, 96, 120]) {
      const said = heard([row], tempo)
      for (const one of ['up@0', 'down@1', 'up@2', 'kick@3', 'five@4']) expect(said).toContain(one)
    }
    // Once it is known every name is over a count ahead.
    const ahead = heard([{ ...row, mode: 'cues' } as CalledSegment])
    expect(ahead).not.toContain('down@1')
    expect(ahead.some((text) => text.startsWith('kick@1.'))).toBe(true)
  })

  it('says “and” before a pickup in the count-in, where there is time for it', () => {
    const led = (pickup?: number): CalledSegment => ({
      kind: 'count-in',
      numbers: [5, 6, 7, 8],
      length: 48,
      ...(pickup !== undefined && { pickup }),
    })
    expect(heard([led(36)])).toEqual(['five@0', 'six@1', 'seven@2', 'and@2.5', 'eight@3'])
    expect(heard([led()])).not.toContain('and@2.5')
    // It begins with the count-in, or is too quick.
    expect(heard([led(0)]).some((text) => text.startsWith('and'))).toBe(false)
    expect(heard([led(36)], 200).some((text) => text.startsWith('and'))).toBe(false)
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
    // One on its count, the other before it; where there is no room it is only shown.
    expect(calls).toHaveLength(2)
    expect(calls.map(({ at, of }) => at === of).sort()).toEqual([false, true])
    const hurried = callsOf(segments, steady(220), () => 0.9).filter(({ of }) => of === 48)
    expect(hurried.filter(({ say }) => say).length).toBeLessThan(2)
  })

  it('says nothing but the switch in the last round, before the other side is counted in', () => {
    const countIn: CalledSegment = { kind: 'count-in', numbers: [5, 6, 7, 8], length: 48 }
    const first = { ...round([feet('1 step R side; 3 step L side')]), mode: 'switch' as const }
    const second = { ...first, isSwitch: true }
    const said = heard([countIn, first, countIn, second])
    expect(said.filter((text) => text.startsWith('other side'))).toHaveLength(1)
    // And then which side it is, on its first count.
    expect(said).toContain('right@16')
    const calls = callsOf([countIn, first, countIn, second], steady(60), speech)
    const change = calls.find(({ what }) => what === 'switch')
    expect(change?.of).toBe(48 + 96)
    expect((change?.at ?? 0) + (change?.length ?? 0)).toBeLessThanOrEqual(48 + 96 - 24)
    expect(said.filter((text) => /five|six|seven|eight/.test(text))).toHaveLength(8)
  })

  it('calls early rounds by number and name, later ones by name, and none dumb but for a run without a word', () => {
    expect(callModes(1)).toEqual(['all'])
    expect(callModes(2)).toEqual(['all', 'cues'])
    expect(callModes(2, { isNew: true })).toEqual(['all', 'all'])
    expect(callModes(3)).toEqual(['all', 'all', 'cues'])
    expect(callModes(5)).toEqual(['all', 'all', 'all', 'cues', 'cues'])
    expect(callModes(2, { endsSilent: true })).toEqual(['all', 'switch'])
  })
})

describe('a phrase', () => {
  const lead = (more: { title?: string; say?: string }) => {
    const [demoOne] = demo
    if (!demoOne) throw new Error('no demo')
    const phrases = demoOne.phrases.map((one, i) =>
      i === 1
        ? {
            ...one,
            name: 'B',
            title: more.title ?? '',
            remarks: more.say
              ? [
                  {
                    id: 'said',
                    kind: 'say' as const,
                    at: tick(0),
                    length: tick(12),
                    text: more.say,
                  },
                ]
              : [],
          }
        : one,
    )
    return simulate({ ...demoOne, phrases }, vocabulary)
  }
  const called = (of: ReturnType<typeof lead>) =>
    of.passes.flatMap((pass) => cuesOf(of, pass, LAYERS)).filter(({ kind }) => kind === 'phrase')

  it('is called by what is said on it, its title or its first move, and never by its letter', () => {
    expect(called(lead({ say: 'lamp', title: 'Round it' }))[0]).toMatchObject({
      text: 'lamp',
      or: expect.arrayContaining(['Round it', 'next']),
    })
    expect(called(lead({ title: 'Round it' }))[0]?.text).toBe('Round it')
    for (const one of [lead({}), lead({ title: 'Round it' })])
      for (const { text, or = [] } of called(one))
        for (const word of [text, ...or]) expect(word).not.toMatch(/^(phrase )?B$/)
    // The voice takes the first it has words for.
    const calls = (title: string) =>
      callsOf(
        [
          {
            kind: 'round',
            simulation: lead({ title }),
            range: { from: tick(0), to: lead({}).length },
            layers: LAYERS,
            mode: 'cues',
            isSwitch: false,
          },
        ],
        steady(60),
        speech,
      ).find(({ what, text }) => what === 'phrase' && text === title)
    expect(calls('Zigzag')?.text).toBe('Zigzag')
    expect(calls('Zigzag')?.say?.text).not.toMatch(/z/i)
  })
})

describe('what is said where nothing else is', () => {
  const extras = { praise: ['good'], watch: ['ribs', 'knees'], breathe: true }
  const called = (drill: Parameters<typeof segmentsOf>[0], more: object) => {
    const { round: danced } = segmentsOf(drill)
    return drillPerformance(drill.drill, danced, {
      rhythm: undefined,
      call: 'rounds',
      speech,
      ...more,
    }).calls
  }

  it('moves no cue and no number, lies over nothing, and is not there unless it is wished for', () => {
    let said = 0
    holds(
      fc.property(anyDrill, (drill) => {
        const plain = called(drill, {})
        expect(called(drill, { extras: {} })).toEqual(plain)
        const more = called(drill, { extras })
        expect(more.filter(({ what }) => what !== 'extra')).toEqual(plain)
        const all = spoken(more)
        for (const [i, call] of all.entries()) {
          const next = all[i + 1]
          if (next) expect(call.at + call.length).toBeLessThanOrEqual(next.at + 1e-6)
        }
        said += all.filter(({ what }) => what === 'extra').length
        // What a voice has no word for is no tone in between.
        expect(called(drill, { extras: { praise: ['zest'] } })).toEqual(plain)
      }),
      { numRuns: 150, seed: 75 },
    )
    expect(said).toBeGreaterThan(5)
  })

  it('is praise at the end of a round, and a breath where nothing begins', () => {
    const still: CalledSegment = {
      ...round([feet('1 step R side')]),
      mode: 'cues',
    } as CalledSegment
    const said = callsOf([still, still], steady(60), speech, extras).filter(
      ({ what }) => what === 'extra',
    )
    const told = said.map(({ text, at }) => `${text}@${Math.floor(at / 12)}`)
    expect(told.filter((text) => text.startsWith('breathe')).length).toBe(1)
    expect(told.some((text) => /^good@(7|15)$/.test(text))).toBe(true)
    // A slip is watched from the second round on.
    expect(
      told
        .filter((text) => text.startsWith('ribs'))
        .every((text) => Number(text.split('@')[1]) >= 8),
    ).toBe(true)
  })
})

describe('before it is counted in', () => {
  it('every drill names its first moves, so that count 1 is no surprise', () => {
    holds(
      fc.property(anyDrill, ({ one, drill, house }) => {
        const { round: danced } = segmentsOf({ one, drill, house })
        const { segments } = drillPerformance({ ...drill, talk: 5 }, danced, {
          rhythm: undefined,
          call: 'rounds',
          speech,
        })
        const [first, second] = segments
        expect(first?.countIn).toEqual([])
        expect(first?.calls.map(({ what }) => what)).toEqual(['names'])
        expect(first?.calls[0]?.text).not.toBe('')
        // Nothing goes over the count-in; only a pickup has its “and”, half a count before it.
        const other = spoken(second?.calls ?? []).filter(({ what }) => what !== 'number')
        // As long as the combination's own, or as that of its first phrase.
        const before = (second?.length ?? 0) - pickupTicks(one) - HALF_COUNT
        for (const { what, at } of other) expect([what, at]).toEqual(['and', before])
        expect(secondsOfTicks(first?.length ?? 0, drill.tempo)).toBeLessThan(3 + 60 / drill.tempo)
      }),
      { numRuns: 100, seed: 74 },
    )
  })
})
