import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyCombination } from '../../../tests/arbitraries'
import { holds } from '../../../tests/holds'
import { checkCombination } from '../findings/check'
import { severityOf } from '../findings/finding'
import { findingText, spotText } from '../findings/findingText'
import { matches, summaryOf } from '../findings/summary'
import { USUAL_HOUSE } from '../house/house'
import { footJoins } from '../joins/joins'
import { vocabulary } from '../moves/vocabulary'
import { repairsFor } from '../repair/offers'
import { readSheet } from '../sheet/readSheet'
import { placesBefore } from '../simulate/course'
import { placesAfter, startPlaces } from '../simulate/places'
import { roundEnds, simulate, stateAt } from '../simulate/simulate'
import { weightStretches } from '../simulate/weightStretches'
import { asDanced, type DancedEvent, dancedIn } from './lengths'
import { mirrorEvent } from './mirror'
import { withOptions } from './options'
import { passAt, passesOf } from './passes'
import { withWays } from './ways'

const read = (lines: string) => readSheet(`sway 1\n${lines}`, vocabulary).combination

describe('the passes of a combination', () => {
  it('stand one behind the other, mirrored where they say so, with the pickup only in the first', () => {
    holds(
      fc.property(anyCombination(), (combination) => {
        const { pickup: _, ...plain } = combination
        // Only the first phrase has one, and it is danced once.
        const once = {
          ...plain,
          pickup: { counts: 1, ...combination.pickup, each: false },
          phrases: combination.phrases.map((phrase) =>
            phrase.id === combination.order[0]?.phrase
              ? phrase
              : { ...phrase, events: phrase.events.filter(({ at }) => at >= 0) },
          ),
        }
        const passes = passesOf(once, vocabulary)
        let at = 0
        for (const pass of passes) {
          expect(pass.at).toBe(at)
          at += pass.length
          const written = once.phrases.find(({ id }) => id === pass.phrase.id)!
          const entry = once.order[pass.index]
          const varied = withOptions(written, entry?.options ?? [], vocabulary)
          const phrase = withWays(varied, { lead: once.lead, vocabulary })
          const early = phrase.events.filter((event) => event.at < 0)
          const own =
            pass.index === 0
              ? phrase.events
              : phrase.events.filter((event) => !early.includes(event))
          const seen = pass.mirrored ? own.map(mirrorEvent) : own
          expect(pass.events).toEqual(asDanced(seen, phrase.counts, vocabulary))
          expect(passAt(passes, pass.at)).toBe(pass)
          expect(passAt(passes, pass.at + pass.length - 0.5)).toBe(pass)
        }
        expect(passes.filter(({ time, times }) => time > times)).toEqual([])
      }),
      { numRuns: 300, seed: 101 },
    )
  })

  it('end with the pickup again where every round has one, in place of what stands there', () => {
    const each = read(
      'pickup 1 each\nphrase A 4\n feet <4 touch R; 1 step R; 2 touch L; 3 step L; 4 close R\n hips 4 hip-bump R',
    )
    const [pass] = passesOf(each, vocabulary)
    expect(pass?.events.filter(({ at }) => at === 36).map(({ what }) => what.kind)).toEqual([
      'move',
      'foot',
    ])
    // What else is danced there goes on: the pickup is one of the feet.
    expect(pass?.events.filter(({ layer }) => layer === 'hips')).toHaveLength(1)
    const { danced, end } = simulate(each, vocabulary)
    expect(danced.map(({ at, action }) => `${at / 12} ${action.primitive} ${action.foot}`)).toEqual(
      ['-1 touch R', '0 step R', '1 touch L', '2 step L', '3 touch R'],
    )
    expect(end.weight).toBe('L')
    expect(footJoins(simulate(each, vocabulary), vocabulary)).toEqual({
      repeats: true,
      switches: false,
    })
  })

  it('end as they are written where the phrase that is led into is danced once, and its pickup too', () => {
    const text =
      'phrase A 4\n feet <4 touch R; 1 step R; 2 touch L; 3 step L; 4 touch R\nphrase B 4\n feet 1 step R; 2 touch L; 3 step L; 4 touch R\norder A | B'
    const each = simulate(read(`pickup 1 each\n${text}`), vocabulary)
    const once = simulate(read(`pickup 1\n${text}`), vocabulary)
    expect(each.passes).toEqual(once.passes)
    expect(footJoins(each, vocabulary)).toEqual({ repeats: true, switches: false })
    expect(roundEnds(each)).toEqual({ from: each.opening, to: each.end })
  })

  it('dance a pickup of every round once at each end, also one longer than the last phrase', () => {
    holds(
      fc.property(
        anyCombination(),
        fc.integer({ min: 1, max: 3 }),
        fc.integer({ min: 1, max: 3 }),
        (any, counts, short) => {
          // A last phrase shorter than the pickup, so that it reaches into the one before.
          const one = {
            ...any,
            pickup: { counts, each: true },
            phrases: [
              {
                ...any.phrases[0]!,
                counts: Math.max(counts, any.phrases[0]!.counts),
                events: any.phrases[0]!.events.filter(({ at }) => at >= counts * -12),
              },
              ...any.phrases.slice(1),
              { id: 'short', name: 'Short', title: '', counts: short, events: [] },
            ].map((phrase, i) =>
              i === 0 ? phrase : { ...phrase, events: phrase.events.filter(({ at }) => at >= 0) },
            ),
            order: [
              // Where a round begins later, its pickup is danced once.
              ...any.order.map(({ loops: _, ...entry }) => entry),
              { phrase: 'short', mirrored: false },
              { phrase: 'short', mirrored: true },
            ],
          }
          const passes = passesOf(one, vocabulary)
          const { danced, length } = simulate(one, vocabulary)
          const all = passes.flatMap((pass) =>
            pass.events.map((event) => ({
              id: event.id,
              at: pass.at + event.at,
              layer: event.layer,
              what: event.what,
            })),
          )
          const early = all.filter(({ at }) => at < 0)
          // Layer by layer, from the first thing the pickup does there.
          const begins = new Map<string, number>()
          for (const { layer, at } of early)
            begins.set(layer, Math.min(at + length, begins.get(layer) ?? Number.POSITIVE_INFINITY))
          const isTaken = ({ layer, at }: { layer: string; at: number }) =>
            at >= (begins.get(layer) ?? Number.POSITIVE_INFINITY)
          const late = all.filter(isTaken)
          const byId = (a: { id: string }, b: { id: string }) => (a.id < b.id ? -1 : 1)
          expect([...late].sort(byId)).toEqual(
            early.map((event) => ({ ...event, at: event.at + length })).sort(byId),
          )
          for (const pass of passes.slice(1))
            expect(pass.events.every(({ at }) => at >= 0 && at < pass.length)).toBe(true)
          const times = danced.map(({ at }) => at)
          expect([...times].sort((a, b) => a - b)).toEqual(times)
          // What the pickup takes away is named, or it is danced there all the same.
          const { findings, left } = checkCombination(one, vocabulary)
          const named = new Set(
            [...findings, ...left]
              .filter(({ code }) => code === 'pickup.over')
              .flatMap(({ events }) => events),
          )
          const text = (at: number, layer: string, what: unknown) =>
            JSON.stringify([at, layer, what])
          const there = new Set(
            passes.flatMap((pass) =>
              pass.events.map(({ at, layer, what }) => text(pass.at + at, layer, what)),
            ),
          )
          for (const pass of passesOf({ ...one, pickup: { counts, each: false } }, vocabulary))
            for (const event of pass.events)
              if (event.at >= 0 && isTaken({ layer: event.layer, at: pass.at + event.at }))
                expect(
                  named.has(event.id) ||
                    there.has(text(pass.at + event.at, event.layer, event.what)) ||
                    // Said once for a phrase that is danced at several ends.
                    pass.times > 1,
                ).toBe(true)
        },
      ),
      { numRuns: 200, seed: 103 },
    )
  })

  it('say what a pickup of every round takes the place of, and where its own slips are written', () => {
    const over = read(
      'pickup 4 each\nphrase A 8\n feet <5 step R forward; <6 step L forward; 1-8 walk R\n',
    )
    const said = checkCombination(over, vocabulary).findings.find(
      ({ code }) => code === 'pickup.over',
    )
    expect(said).toBeUndefined()
    const steps = read(
      'pickup 2 each\nphrase A 4\n feet <3 touch R; <4 step L; 1 step R; 2 touch L; 3 step L; 4 close R\n hips 4 hip-bump R',
    )
    const { findings } = checkCombination(steps, vocabulary)
    const over2 = findings.find(({ code }) => code === 'pickup.over')
    expect(over2 && findingText(over2)).toContain('3 step L')
    expect(over2 && findingText(over2)).toContain('4 close R.')
    expect(over2 && spotText(over2.spot)).toBe('A3')
    // The step of the pickup is on the foot that carries: said where it is written, not at A4.
    const slip = findings.filter(({ code }) => code === 'feet.loaded')
    expect(slip.map(({ spot }) => spotText(spot))).toEqual(['A<4'])
    const fixed = repairsFor(steps, over2!, vocabulary, USUAL_HOUSE, () => 'new')
    expect(fixed.map(({ label }) => label)).toEqual([
      'Dance the pickup only once',
      'Leave out what is not danced',
    ])
    const same = read(
      'pickup 1 each\nphrase A 4\n feet <4 touch R; 1 step R; 2 touch L; 3 step L; 4 touch R',
    )
    expect(checkCombination(same, vocabulary).findings.map(({ code }) => code)).not.toContain(
      'pickup.over',
    )
  })

  it('are led into by the pickup of any phrase, over the end of whatever comes before', () => {
    const text = (b: string) =>
      `phrase A 8\n feet 1-8 walk-forward R\n hips 8 hip-bump R\nphrase B 8\n feet ${b}\norder A B B~`
    const led = simulate(
      read(text('<8 kick R forward; 1 step R side; 2-8 hold; 8 close L')),
      vocabulary,
    )
    const [a, b, again] = led.passes
    expect(led.danced.flatMap(({ fault }) => fault ?? [])).toEqual([])
    expect(a?.events.map(({ layer, at }) => `${layer} ${at}`)).toContain('hips 84')
    expect(a?.leadIn?.into.index).toBe(1)
    expect(b?.leadIn?.into).toMatchObject({ index: 2, mirrored: true })
    expect(again?.leadIn).toBeUndefined()
    const kicks = led.danced.filter(({ action }) => action.primitive === 'kick')
    expect(kicks.map(({ at, action }) => `${at / 12} ${action.foot}`)).toEqual(['7 R', '15 L'])
    // In one of its orders the first step of a pickup is on the foot that carries: said where it is written.
    const slip = read(text('<8 step L; 1 step R side; 2 close L'))
    const { findings } = checkCombination(slip, vocabulary)
    expect(findings.filter(({ code }) => code === 'pickup.over')).toEqual([])
    const loaded = findings.filter(({ code }) => code === 'feet.loaded')
    expect(loaded.map(({ spot }) => spotText(spot))).toContain('B<8, first time')
    const over = read(
      text('<8 kick R forward; 1 step R side').replace(
        '1-8 walk-forward R',
        '1-7 walk-forward R; 8 touch L',
      ),
    )
    const said = checkCombination(over, vocabulary).findings.find(
      ({ code }) => code === 'pickup.over',
    )
    expect(said && findingText(said)).toBe(
      'The pickup of B is danced here, in place of 8 touch L in-place. Write that earlier, or leave out what is not danced.',
    )
  })

  it('begin from what the pickup leads to, and a round meets count 1, not the pickup', () => {
    const led = read(
      'pickup 1\nphrase A 4\n feet <4 step R side; 1 step L; 2 step R; 3 step L; 4 step R',
    )
    const simulation = simulate(led, vocabulary)
    expect(simulation.opening.weight).toBe('R')
    expect(stateAt(simulation, -12).weight).toBe('R')
    expect(simulation.danced.flatMap(({ fault }) => fault ?? [])).toEqual([])
    expect(footJoins(simulation, vocabulary).repeats).toBe(true)
    expect(checkCombination(led, vocabulary).findings.map((f) => spotText(f.spot))).toEqual(['A4'])
  })

  it('have the weight in one unbroken line from start to end', () => {
    holds(
      fc.property(anyCombination(), (combination) => {
        const simulation = simulate(combination, vocabulary)
        const stretches = weightStretches(simulation, 0, simulation.length, 2)
        expect(stretches[0]?.from).toBe(-2)
        expect(stretches.at(-1)?.to).toBe(simulation.length)
        for (const [i, stretch] of stretches.entries()) {
          if (i > 0) expect(stretch.from).toBe(stretches[i - 1]!.to)
          if (stretch.to > Math.max(0, stretch.from))
            expect(stateAt(simulation, stretch.to - 0.75).weight).toBe(stretch.weight)
        }
      }),
      { numRuns: 200, seed: 102 },
    )
  })
})

describe('the places of the body', () => {
  const places = (lines: string, at = 95) => {
    const combination = read(`phrase A 8\n${lines}`)
    return placesBefore(simulate(combination, vocabulary), at)
  }

  it.each([
    ['hips 1 at R', { hips: 'R' }],
    ['hips 1 half-circle-front R', { hips: 'R' }],
    ['hips 1 half-circle-front L', { hips: 'L' }],
    ['hips 1 at F; 2 hip-bump R', { hips: 'F' }],
    ['hips 1 hip-circle-large cw', { hips: 'C' }],
    ['torso 1 rib-slide L', { ribs: 'L' }],
    ['arms 1 R crown', { arms: { R: 'crown', L: 'low' } }],
    ['arms 1 crown-second L', { arms: { R: 'second', L: 'crown' } }],
    ['arms 1 side-rise', { arms: { R: 'crown', L: 'crown' } }],
    ['arms 1 veil-wrap-hold R', { arms: { R: 'shoulder-opposite', L: 'cross-low' } }],
    ['head 1 look over L', { gaze: 'over-L' }],
    ['head 1 look-over-shoulder R', { gaze: 'over-R' }],
    ['head 1 head-half-roll R', { gaze: 'tilt-L' }],
    ['feet 1 step R', { hips: 'C' }],
  ])('after %s are %j', (line, expected) => expect(places(line)).toMatchObject(expected))

  it('just before a move are those the moves before it led to', () => {
    const line = 'hips 1 at R; 3 at L; 5 at B'
    expect([0, 1, 24, 25, 48, 49].map((at) => places(line, at).hips)).toEqual([
      'C',
      'R',
      'R',
      'L',
      'L',
      'B',
    ])
  })

  it('of the other side are the mirrored places', () => {
    holds(
      fc.property(anyCombination({ kept: false }), (combination) => {
        for (const event of combination.phrases.flatMap((phrase) => dancedIn(phrase, vocabulary))) {
          const before = startPlaces(combination.start)
          const other: DancedEvent = { ...event, ...mirrorEvent(event), length: event.length }
          const there = placesAfter(before, other, vocabulary)
          const here = placesAfter(before, event, vocabulary)
          const twice = placesAfter(
            before,
            { ...other, ...mirrorEvent(other), length: event.length },
            vocabulary,
          )
          expect(twice).toEqual(here)
          if (event.layer === 'hips' && here.hips !== before.hips)
            expect(there.hips.replace(/[RL]$/, '')).toBe(here.hips.replace(/[RL]$/, ''))
        }
      }),
      { numRuns: 150, seed: 103 },
    )
  })
})

describe('what is said of it', () => {
  const sentences = (lines: string) =>
    checkCombination(read(`phrase A 8\n${lines}`), vocabulary).findings.map(
      (finding) => `${severityOf(finding)} ${findingText(finding)}`,
    )

  it.each([
    [
      'feet 1 step R; 2 step R',
      /^fault You already stand on your right foot, so it can't step in-place\. Use the left foot/,
    ],
    ['feet 1 step R; 2 touch R', /^fault Your right foot carries you here, so it can't touch\./],
    ['feet 1 hop R', /^fault You stand on your left foot, so you can't hop on the other one/],
    ['feet 1 centre; 2 hop R', /^fault A hop needs you on your right foot alone/],
    ['feet 1 centre; 2 pivot 180', /^snag A turn of .* on both feet: up to 90°/],
    ['feet 1 lift R; 2 sway R', /^fault One foot is off the floor, so you can't sway/],
    [
      'hips 1-2 hip-sway R; 2-3 hip-sway L',
      /^fault “hip sway R” and “hip sway L” both need the hips/,
    ],
    ['feet 1-3 grapevine R', /Grapevine does not fit here: give it more counts/],
    ['feet 1-6 grapevine R', /Grapevine leaves 2 counts over at its end/],
    ['feet 1 step R\n hips 1 ?old-move', /has no move called “old-move”/],
    ['feet 1 step R; 2 close L', /repeats on the same side; to switch, make the last step a touch/],
    ['feet 1 step R', /It switches sides by itself/],
    ['feet 1 step R; 2 centre', /repeats on the same side and switches, both without a stop/],
  ])('%s: %s', (line, sentence) =>
    expect(sentences(line).some((said) => sentence.test(said))).toBe(true),
  )

  it('is summed up for the shelf, and found by its words', () => {
    const combination = {
      ...read(
        'title Café Lantern\nfamily latin, belly\nlevel new\ntags evening, slow\nphrase A 8\n feet 1 step R; 2 step R',
      ),
      id: 'x',
    }
    const summary = summaryOf(combination, vocabulary)
    expect(summary).toMatchObject({
      counts: 8,
      faults: 1,
      level: 'new',
      switches: true,
      phrases: [{ at: 0, name: 'A' }],
    })
    const found = (wish: Partial<Parameters<typeof matches>[1]>) =>
      matches(summary, { text: '', switches: false, ...wish })
    expect(found({ text: 'cafe SLOW' })).toBe(true)
    expect(found({ text: 'lantern morning' })).toBe(false)
    expect(found({ family: 'belly', level: 'new', switches: true })).toBe(true)
    expect(found({ family: 'bollywood' })).toBe(false)
    expect(found({ level: 'advanced' })).toBe(false)
    expect(matches({ ...summary, switches: false }, { text: '', switches: true })).toBe(false)
  })
})
