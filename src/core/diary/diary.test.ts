import fc from 'fast-check'
import Papa from 'papaparse'
import { describe, expect, it } from 'vitest'
import { demo } from '../../../tests/demo'
import { holds } from '../../../tests/holds'
import { classOn, materials, tuesday, wishesOf } from '../../../tests/teaching'
import { LAYERS } from '../body/layers'
import { dancedByHand } from '../class/dancedRow'
import { USUAL_HOUSE } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import { materialsOf } from '../plan/material'
import { planClass } from '../plan/planner'
import { wordsOfPlan } from '../plan/words'
import { classesIcs } from './calendar'
import { countsByWeek, loadByClass, tempoByPhrase, untouched } from './charts'
import {
  addDays,
  ClassEntry,
  countsOn,
  type DancedDrill,
  daysBetween,
  readClass,
  readGroup,
  weekOf,
} from './diary'
import { diaryCsv } from './export'
import { gapDays, knownOf, nextClassOf, paceOf, reachedIn, weakerSides } from './reached'

const one = demo[0]!
const [a, b] = one.phrases.map(({ id, name }) => ({ id, name }))
if (!a || !b) throw new Error('the demo has too few phrases')

const drill = (more: Partial<DancedDrill> = {}): DancedDrill => ({
  id: 'd',
  kind: 'all',
  title: 'All layers · A',
  combination: one.id,
  combinationTitle: one.title,
  phrases: [a],
  layers: ['feet', 'hips'],
  rounds: { R: 4, L: 4 },
  counts: 8,
  tempo: 72,
  load: 3,
  ...more,
})

const anyDanced = fc
  .record({
    rounds: fc.record({ R: fc.nat(12), L: fc.nat(12) }),
    counts: fc.constantFrom(6, 8, 16),
    tempo: fc.integer({ min: 40, max: 220 }),
    phrases: fc.constantFrom([a], [b], [a, b]),
    layers: fc.constantFrom(['feet'], ['hips'], ['feet', 'arms'], [...LAYERS]),
    verdict: fc.constantFrom('clean', 'not-yet', undefined),
  })
  .map(({ verdict, ...more }) =>
    drill({ ...more, ...(verdict && { verdict }) } as Partial<DancedDrill>),
  )

const anyClasses = fc
  .uniqueArray(fc.nat(400), { minLength: 1, maxLength: 8 })
  .chain((days) =>
    fc.tuple(
      ...days.map((day) =>
        fc
          .array(anyDanced, { maxLength: 5 })
          .map((danced) => classOn(addDays('2026-01-05', day), danced)),
      ),
    ),
  )

describe('a diary of any classes', () => {
  it('counts every count once: by week, by phrase and by class', () => {
    holds(
      fc.property(anyClasses, (classes) => {
        const sum = (side: 'R' | 'L') =>
          classes
            .flatMap(({ danced }) => danced)
            .reduce((all, each) => all + countsOn(each, side), 0)
        const weeks = countsByWeek(classes)
        for (const side of ['R', 'L'] as const) {
          expect(weeks.reduce((all, week) => all + week.counts[side], 0)).toBe(sum(side))
          const reached = reachedIn(classes).reduce((all, each) => all + each.counts[side], 0)
          // A drill of two phrases is shared out in whole counts.
          expect(Math.abs(reached - sum(side))).toBeLessThanOrEqual(classes.length * 5)
        }
        for (let i = 1; i < weeks.length; i++)
          expect(daysBetween(weeks[i - 1]!.week, weeks[i]!.week)).toBe(7)
        const loads = loadByClass(classes)
        expect(loads.reduce((all, { load }) => all + load, 0)).toBeCloseTo(
          3 * (sum('R') + sum('L')),
          6,
        )
      }),
      { numRuns: 200, seed: 91 },
    )
  })

  it('knows what is due, the not yet clean first, and the side that is behind', () => {
    holds(
      fc.property(anyClasses, fc.nat(200), (classes, later) => {
        const reached = reachedIn(classes)
        const today = addDays('2027-02-10', later)
        const known = knownOf(reached, materials, today)
        const verdicts = known.reviews.map(
          ({ phrases }) => reached.find(({ phrase }) => phrase === phrases[0])?.last === 'not-yet',
        )
        expect([...verdicts].sort((x, y) => Number(y) - Number(x))).toEqual(verdicts)
        for (const { combination, phrase, layers, due, last } of reached) {
          const isDue = layers.length > 0 && due <= today
          expect(known.reviews.some(({ phrases }) => phrases[0] === phrase)).toBe(isDue)
          const isTaught = known.taught.includes(`${combination}|${phrase}|feet`)
          expect(isTaught).toBe(last !== 'not-yet' && layers.includes('feet'))
        }
        const [R, L] = (['R', 'L'] as const).map((side) =>
          reached.reduce((all, { counts }) => all + counts[side], 0),
        )
        const weaker = weakerSides(reached)[one.id]
        expect(weaker?.side).toBe(R === L ? undefined : (R ?? 0) < (L ?? 0) ? 'R' : 'L')
        expect(weaker?.behind ?? 0).toBe(Math.abs((R ?? 0) - (L ?? 0)))
      }),
      { numRuns: 200, seed: 92 },
    )
  })

  it('comes back from its table and its records as it was', () => {
    holds(
      fc.property(anyClasses, fc.string(), (classes, notes) => {
        const noted = classes.map((each) => ({ ...each, notes, next: '=1+1, "x"\nnext' }))
        const { data, errors } = Papa.parse<Record<string, string>>(diaryCsv(noted, [tuesday]), {
          header: true,
          skipEmptyLines: true,
        })
        expect(errors).toEqual([])
        const rows = noted.reduce((sum, { danced }) => sum + Math.max(1, danced.length), 0)
        expect(data).toHaveLength(rows)
        const rounds = data.reduce((all, row) => all + Number(row.rounds_right || 0), 0)
        const all = noted.flatMap(({ danced }) => danced)
        expect(rounds).toBe(all.reduce((sum, each) => sum + each.rounds.R, 0))
        expect(data.every(({ group }) => group === 'Tuesday improvers')).toBe(true)
        for (const each of noted) expect(readClass(JSON.parse(JSON.stringify(each)))).toEqual(each)
        // A cell that a spreadsheet would compute is made plain text.
        expect(data.every(({ next }) => !next?.startsWith('='))).toBe(true)
      }),
      { numRuns: 60, seed: 93 },
    )
  })
})

describe('how far a group has come', () => {
  it('asks again the same day what was not yet clean, and ever later what was', () => {
    expect([0, 1, 2, 3, 9].map((streak) => gapDays(streak, 'clean'))).toEqual([6, 6, 12, 24, 90])
    expect(gapDays(3, 'not-yet')).toBe(0)
    const classes = [
      classOn('2026-03-03', [
        drill({ verdict: 'clean' }),
        drill({ phrases: [b], verdict: 'not-yet', tempo: 66 }),
      ]),
      classOn('2026-03-10', [drill({ verdict: 'clean', tempo: 80 })]),
    ]
    const [first, second] = reachedIn(classes)
    expect(first).toMatchObject({
      name: a.name,
      cleanTempo: 80,
      streak: 2,
      due: '2026-03-22',
      last: 'clean',
    })
    expect(second).toMatchObject({
      name: b.name,
      streak: 0,
      due: '2026-03-03',
      last: 'not-yet',
      lastTempo: 66,
    })
    const known = knownOf(reachedIn(classes), materials, '2026-03-11')
    expect(known.reviews.map(({ phrases }) => phrases)).toEqual([[b.id]])
    expect(known.reviews[0]?.because).toBe('not yet clean 8 days ago')
    expect(known.reviews[0]?.tempo).toBe(59)
  })

  it('tells what was changed of a phrase since a group was taught it, in its walk', () => {
    const row = dancedByHand({ combination: one.id, phrase: a.id }, 'row', materials)
    if (!row) throw new Error('nothing to dance')
    const classes = [classOn('2026-03-03', [{ ...row, verdict: 'clean' }])]
    const changedIn = (phrases: typeof one.phrases) => {
      const now = materialsOf([{ ...one, phrases }], vocabulary, USUAL_HOUSE)
      const next = nextClassOf(classes, tuesday, now, '2026-03-04')
      const { drills } = planClass(next?.wishes ?? wishesOf(one.title), now)
      const walk = drills.find(({ kind, changed }) => kind === 'walk' && changed)
      return {
        reviews: next?.wishes.known.reviews,
        walk,
        say: walk && wordsOfPlan({ drills, wishes: next!.wishes }, now).get(walk.id)?.say,
      }
    }
    // The day after, clean and as it was, nothing is due; nor where only its words are others.
    const words = one.phrases.map((phrase) => ({
      ...phrase,
      events: phrase.events.map((event) => ({ ...event, cue: 'hey', note: 'soft' })),
    }))
    expect(changedIn(one.phrases)).toEqual({ reviews: [], walk: undefined, say: undefined })
    expect(changedIn(words).reviews).toEqual([])

    const [phrase] = one.phrases
    const hips = phrase?.events.filter(({ layer }) => layer === 'hips') ?? []
    const [first, second] = hips
    if (!phrase || !first || !second) throw new Error('too few hips')
    const mended = {
      ...phrase,
      events: phrase.events.flatMap((event) =>
        event === first ? [{ ...event, size: 60 }] : event === second ? [] : [event],
      ),
    }
    const { reviews, walk, say } = changedIn([mended, ...one.phrases.slice(1)])
    expect(reviews?.[0]?.because).toBe('last danced yesterday, and changed since')
    expect(reviews?.[0]?.changed).toEqual([
      expect.stringMatching(/^Hips: .* size 60%, not .*[.]$/),
      expect.stringMatching(/^Hips: no more .*[.]$/),
    ])
    expect(say?.slice(0, 2)).toEqual(
      reviews?.[0]?.changed?.map((line) => `Changed since last time. ${line}`),
    )
    expect(walk?.talk).toBe(2 * USUAL_HOUSE.limits['plan.talkThing'])
  })

  it('plans the next class: review first, then what is new, the weaker side first', () => {
    const classes = [
      classOn('2026-03-03', [
        drill({ rounds: { R: 12, L: 4 }, verdict: 'not-yet', layers: ['feet', 'hips', 'arms'] }),
      ]),
    ]
    const next = nextClassOf(classes, tuesday, materials, '2026-03-10')
    if (!next) throw new Error('no next class')
    expect(next.because.join('; ')).toMatch(/not yet clean 7 days ago/)
    expect(next.because.join('; ')).toMatch(/begins on the left: 64 counts behind/)
    expect(next.because.join('; ')).toMatch(/still to teach/)
    const { drills } = planClass(next.wishes, materials)
    const kinds = drills.map(({ kind }) => kind)
    // Walked once, then danced, before anything new.
    expect(kinds.slice(kinds.lastIndexOf('warm-up') + 1).slice(0, 2)).toEqual(['walk', 'review'])
    const both = drills.filter(
      ({ combination, sides, kind }) => combination && sides.length === 2 && kind !== 'join',
    )
    for (const each of both) expect(each.sides[0]).toBe('L')
    expect(both.length).toBeGreaterThan(1)
    expect(drills.some(({ kind }) => kind === 'catch-up')).toBe(true)
    expect(nextClassOf([], tuesday, materials, '2026-03-10')).toBeUndefined()
  })

  it('knows how long a group takes for eight new counts: the middle of the last classes with anything new', () => {
    expect(paceOf([], materials)).toBeUndefined()
    const counts = (id: string) =>
      materials.find(drill({}).combination ?? '')?.combination.phrases.find((one) => one.id === id)
        ?.counts ?? 0
    const first = classOn('2026-03-03', [drill({})])
    expect(paceOf([first], materials)).toBeCloseTo((60 * 0.5 * 8) / counts(a.id), 9)
    // The same again is nothing new, and a class of nothing new says nothing.
    expect(paceOf([first, classOn('2026-03-10', [drill({})])], materials)).toBe(
      paceOf([first], materials),
    )
    const slower = classOn('2026-03-17', [drill({ phrases: [b] })], { minutes: 90 })
    expect(paceOf([first, slower], materials)).toBeCloseTo((90 * 0.5 * 8) / counts(b.id), 9)
  })

  it('shows tempo by phrase, and what was not touched for long', () => {
    const classes = [
      classOn('2026-03-03', [drill({ tempo: 60 }), drill({ tempo: 66, verdict: 'clean' })]),
      classOn('2026-03-10', [
        drill({ tempo: 72, phrases: [b] }),
        drill({ layers: ['arms'], tempo: 90 }),
      ]),
    ]
    expect(tempoByPhrase(classes).map(({ title, points }) => [title, points])).toEqual([
      [`${one.title} ${a.name}`, [{ day: '2026-03-03', tempo: 66, isClean: true }]],
      [`${one.title} ${b.name}`, [{ day: '2026-03-10', tempo: 72, isClean: false }]],
    ])
    expect(untouched(classes, '2026-04-10', 14).map(({ name, days }) => [name, days])).toEqual([
      [a.name, 31],
      [b.name, 31],
    ])
    expect(untouched(classes, '2026-03-11', 14)).toEqual([])
  })
})

describe('days and files', () => {
  it('finds the Monday of any day, over months and leap days', () => {
    expect(weekOf('2026-11-25')).toBe('2026-11-23')
    expect(weekOf('2028-03-01')).toBe('2028-02-28')
    expect(daysBetween('2028-02-28', '2028-03-01')).toBe(2)
  })

  it('writes class dates for a calendar', () => {
    const text = classesIcs(
      [classOn('2026-12-01', [], { next: 'Bring scarves; B again' })],
      [tuesday],
    )
    expect(text).toMatch(/BEGIN:VCALENDAR[\s\S]*BEGIN:VEVENT[\s\S]*END:VCALENDAR/)
    expect(text).toMatch(/DTSTART:20261201T183000\r\n/)
    expect(text).toMatch(/DURATION:PT60M/)
    expect(text).toMatch(/SUMMARY:Tuesday · Tuesday improvers/)
    expect(text).toMatch(/LOCATION:Long room/)
    expect(text).toMatch(/UID:class 2026-12-01@molten-sway/)
    expect(classesIcs([], [])).toMatch(/BEGIN:VCALENDAR/)
  })

  it('refuses a record of a newer version with what to do, and a damaged one', () => {
    expect(() => readClass({ ...classOn('2026-12-01', []), schemaVersion: 9 })).toThrow(
      /newer version/,
    )
    expect(() => readGroup({ ...tuesday, name: '' })).toThrow()
    expect(readGroup({ ...tuesday })).toEqual(tuesday)
    expect(ClassEntry.safeParse(classOn('2026-13-01', [])).success).toBe(false)
  })
})
