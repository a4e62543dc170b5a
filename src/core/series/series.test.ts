import { describe, expect, it } from 'vitest'
import { demo } from '../../../tests/demo'
import { PIECES } from '../../../tests/ordinary'
import { SIDES } from '../body/side'
import { afterAction, beginClass, classAfter } from '../class/underWay'
import { type ClassEntry, newClass } from '../diary/diary'
import { USUAL_HOUSE } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import { materialsOf, secondsOf } from '../plan/material'
import { readSheet } from '../sheet/readSheet'
import { seriesIcs } from './calendar'
import { planOfClass } from './classOf'
import { type Around, type Course, columnOf, courseOf } from './course'
import {
  classDays,
  dropped,
  lockedIn,
  movedDay,
  newSeries,
  offDay,
  readSeries,
  type Series,
  splitUnit,
  taughtIn,
  taughtMoved,
  timedDay,
  withoutDay,
  withWeeks,
  wrongWith,
} from './series'
import { changeWords, clashesWith, lackOf, standingWords } from './words'

const [lantern, steps] = demo
if (!lantern || !steps) throw new Error('no demo')
const materials = materialsOf(demo, vocabulary, USUAL_HOUSE)
let ids = 0
const newId = () => `id${++ids}`

/** Six Tuesdays of an hour from the first of December on. */
const sixWeeks = (more: Partial<Series> = {}): Series => ({
  ...withWeeks(
    taughtIn(
      newSeries('s', { title: 'Lantern', level: 'improver', minutes: 60 }),
      { combination: lantern.id },
      true,
    ),
    { from: '2026-12-01', weeks: 6, newId: () => `d${++ids}` },
  ),
  ...more,
})
const around = (classes: readonly ClassEntry[] = [], today = '2026-11-30'): Around => ({
  materials,
  routines: [],
  plans: [],
  classes,
  today,
})
const unitsIn = ({ columns }: Course) =>
  columns.map(({ units }) => units.map(({ name }) => name).join(''))

/** A class of a series as it was given: all its units whole on both sides, but for some that were not yet. */
function given(
  series: Series,
  course: Course,
  index: number,
  notYet: readonly string[] = [],
): ClassEntry {
  const column = course.columns[index]
  if (!column) throw new Error('no such class')
  const entry = newClass({
    id: `class ${index}`,
    date: column.day.day,
    start: '18:30',
    title: 'Class',
    minutes: 60,
    series: { id: series.id, day: column.day.id },
  })
  return {
    ...entry,
    danced: column.units.map((unit, i) => ({
      id: `row ${index} ${i}`,
      kind: 'all' as const,
      title: '',
      combination: unit.combination,
      phrases: [{ id: unit.phrase, name: unit.name }],
      layers: ['feet', 'legs', 'hips', 'torso', 'arms', 'head'] as const,
      rounds: { R: 3, L: 3 },
      counts: 8,
      tempo: 64,
      load: 3,
      verdict: notYet.includes(unit.name) ? ('not-yet' as const) : ('clean' as const),
    })),
  }
}

describe('a series', () => {
  it('is read as it was written, and refused when it is of a newer version or makes no sense', () => {
    const series = lockedIn(sixWeeks({ group: 'g', start: '18:30' }), 'u', 'd1')
    expect(readSeries(JSON.parse(JSON.stringify(series)))).toEqual(series)
    expect(() => readSeries({ ...series, schemaVersion: 2 })).toThrow(/newer version/)
    const [first] = series.days
    expect(() => readSeries({ ...series, days: [first, first] })).toThrow()
    expect(() => readSeries({ ...series, minutes: 5 })).toThrow()
  })

  it('shares a dance out over its weeks: new first, nothing new at the end, all of it once', () => {
    const course = courseOf(sixWeeks(), around())
    expect(unitsIn(course).join('')).toBe('ABCD')
    expect(course.left).toEqual([])
    expect(unitsIn(course).slice(4)).toEqual(['', ''])
    expect(course.columns[0]?.units.length).toBeGreaterThan(0)
    for (const { room, units } of course.columns)
      expect(units.reduce((sum, { seconds }) => sum + seconds, 0)).toBeLessThanOrEqual(room + 1)
    expect(standingWords(course)).toBe('on plan')
    // The very same again.
    expect(courseOf(sixWeeks(), around()).left).toEqual([])
  })

  it('says what is missing before there is anything to share out', () => {
    const bare = newSeries('s', { title: '', level: 'new', minutes: 45 })
    const wrong = (series: Series, today = '2026-11-30') => wrongWith(series, today)?.what
    expect(wrong(bare)).toBe('Nothing is taught yet.')
    const taught = taughtIn(bare, { combination: lantern.id }, true)
    expect(wrong(taught)).toBe('No dates yet.')
    expect(wrong(sixWeeks())).toBeUndefined()
    expect(wrong(sixWeeks(), '2027-03-01')).toBe('All dates are over.')
    const [first] = sixWeeks().days
    if (!first) throw new Error('no day')
    const series = sixWeeks()
    expect(wrong(timedDay(series, series.days[0]?.id ?? '', 15))).toBe(
      'Too short for a series: 20 minutes at least.',
    )
    expect(courseOf(bare, around()).columns).toEqual([])
  })

  it('leaves what is over as it was, takes up again what was not reached, and says so', () => {
    const series = sixWeeks({ group: 'g' })
    const first = courseOf(series, around())
    // The second class goes slower: what was new in it is not yet there.
    const one = given(series, first, 0)
    const slow = first.columns[1]?.units.map(({ name }) => name) ?? []
    const before = courseOf(series, around([one], '2026-12-02'))
    expect(before.columns[0]?.taught.map(({ name }) => name)).toEqual(
      first.columns[0]?.units.map(({ name }) => name),
    )
    const two = given(series, before, 1, slow)
    const after = courseOf(series, around([one, two], '2026-12-09'))
    expect(after.late.map(({ name }) => name)).toEqual(slow)
    expect(standingWords(after)).toMatch(/ late/)
    expect(after.columns.slice(0, 2).map(({ isPast }) => isPast)).toEqual([true, true])
    expect(after.columns[1]?.units.map(({ name }) => name)).toEqual(slow)
    expect(after.columns[1]?.taught).toEqual([])
    // All of it is still taught once, in order.
    const coming = after.columns.filter(({ isPast }) => !isPast).flatMap(({ units }) => units)
    expect(
      [...after.columns.flatMap(({ taught }) => taught), ...coming, ...after.left]
        .map(({ name }) => name)
        .join(''),
    ).toBe('ABCD')
    expect(changeWords(before, after, (day) => day)).toMatch(
      new RegExp(`${slow[0]} moves to 2026-12-\\d\\d`),
    )
    // A class nobody wrote down has taught nothing.
    const none = courseOf(series, around([], '2026-12-09'))
    expect(none.columns[0]?.taught).toEqual([])
    expect(none.late.length).toBeGreaterThan(0)
  })

  it('keeps what is decided by hand: locks, what is left out, feet first, other days and times', () => {
    const series = sixWeeks()
    const course = courseOf(series, around())
    const last = course.units.at(-1)
    const [first] = course.units
    const third = classDays(series)[3]
    if (!last || !first || !third) throw new Error('nothing is taught')
    const locked = courseOf(lockedIn(series, last.id, third.id), around())
    expect(columnOf(locked, last.id)?.day.id).toBe(third.id)
    expect(locked.left).toEqual([])
    expect(
      courseOf(lockedIn(lockedIn(series, last.id, third.id), last.id, undefined), around()),
    ).toEqual(course)
    const without = courseOf(dropped(series, first.id, true), around())
    expect(unitsIn(without).join('')).toBe('BCD')
    expect(courseOf(dropped(dropped(series, first.id, true), first.id, false), around())).toEqual(
      course,
    )
    const split = courseOf(splitUnit(series, first.id, true), around())
    expect(split.units.slice(0, 2).map(({ half }) => half)).toEqual(['feet', 'on'])
    expect((split.units[0]?.seconds ?? 0) + (split.units[1]?.seconds ?? 0)).toBeCloseTo(
      first.seconds,
      0,
    )
    const off = courseOf(offDay(series, third.id, 'holiday'), around())
    expect(off.columns).toHaveLength(5)
    expect(unitsIn(off).join('')).toBe('ABCD')
    expect(courseOf(withoutDay(series, third.id), around()).columns).toHaveLength(5)
    const moved = movedDay(series, third.id, '2026-11-30')
    expect(classDays(moved)[0]?.id).toBe(third.id)
    // Too short by half: something has no room, and it is said how much is lacking.
    const short = courseOf({ ...series, minutes: 20, days: series.days.slice(0, 2) }, around())
    expect(short.left.length).toBeGreaterThan(0)
    expect(lackOf(short)).toBeGreaterThan(0)
    expect(changeWords(course, short, (day) => day)).toMatch(
      /no room: leave .* out, or add \d+ minutes/,
    )
    const two = taughtIn(series, { combination: steps.id }, true)
    expect(taughtMoved(two, 1, -1).teaches[0]).toEqual({ combination: steps.id })
    expect(courseOf(two, around()).units.length).toBeGreaterThan(course.units.length)
  })

  it('goes into a calendar as one rule, without the weeks that are off, and with the days that moved', () => {
    const series = sixWeeks({ start: '18:30' })
    const days = classDays(series)
    const [, second, third] = days
    if (!second || !third) throw new Error('no days')
    const plain = seriesIcs(series, undefined)
    expect(plain.match(/BEGIN:VEVENT/g)).toHaveLength(1)
    expect(plain).toContain('RRULE:FREQ=WEEKLY;COUNT=6')
    expect(plain).toContain('DTSTART:20261201T183000')
    const changed = seriesIcs(
      movedDay(offDay(series, second.id, 'holiday'), third.id, '2026-12-17'),
      undefined,
    )
    expect(changed.match(/BEGIN:VEVENT/g)).toHaveLength(2)
    expect(changed).toContain('DTSTART:20261217T183000')
    for (const day of ['20261208', '20261215'])
      expect(changed).toMatch(new RegExp(`EXDATE[^\\n]*${day}`))
  })

  it('says when a group would have two classes at once', () => {
    const series = sixWeeks({ group: 'g' })
    const other = { ...sixWeeks({ group: 'g' }), id: 'other', title: 'Ember' }
    expect(clashesWith(series, [series, other], (day) => day)).toHaveLength(6)
    expect(clashesWith({ ...series, group: 'h' }, [series, other], (day) => day)).toEqual([])
  })

  it('has a plan for each class that teaches what is new in it, lasts as long as it, and reviews the rest', () => {
    const pieces = PIECES.slice(0, 2).flatMap(
      (sheet) => readSheet(sheet, vocabulary).combination ?? [],
    )
    const all = [...demo, ...pieces]
    const every = materialsOf(all, vocabulary, USUAL_HOUSE)
    for (const combination of all) {
      const minutes = [45, 60, 90][all.indexOf(combination) % 3] ?? 60
      const series = taughtIn(
        { ...sixWeeks(), minutes, teaches: [] },
        { combination: combination.id },
        true,
      )
      const place = { ...around(), materials: every }
      const course = courseOf(series, place)
      for (const column of course.columns) {
        const planned = planOfClass(series, course, column, { ...place, practised: [], newId })
        if (!planned) continue
        const { plan, proposal } = planned
        expect(plan.title).toBe(`Lantern, ${column.index + 1} of 6`)
        expect(plan.drills.reduce((sum, drill) => sum + secondsOf(drill, every), 0)).toBe(
          60 * minutes,
        )
        expect(proposal.over).toBe(0)
        // What was given its minutes has room.
        expect(proposal.left).toEqual([])
        const isNew = new Set(
          plan.drills
            .filter((one) => one.kind === 'all' && one.combination === combination.id)
            .flatMap((one) => one.phrases),
        )
        const wanted = column.units.map(({ phrase }) => phrase)
        if (combination.phrases.length > 1) for (const id of wanted) expect(isNew).toContain(id)
        // Nothing that comes later is danced yet.
        const known = new Set(
          course.columns
            .filter(({ index }) => index <= column.index)
            .flatMap(({ units }) => units.map(({ phrase }) => phrase)),
        )
        for (const drill of plan.drills)
          if (drill.combination === combination.id && drill.kind !== 'show')
            for (const phrase of drill.phrases) expect(known).toContain(phrase)
      }
    }
  })

  it('is taught by what the floor writes down', () => {
    const series = sixWeeks()
    const course = courseOf(series, around())
    const [column] = course.columns
    if (!column) throw new Error('no class')
    const planned = planOfClass(series, course, column, { ...around(), practised: [], newId })
    if (!planned) throw new Error('no plan')
    const entry = newClass({
      id: 'c',
      date: column.day.day,
      start: '18:30',
      title: planned.plan.title,
      minutes: 60,
      plan: planned.plan.id,
      series: planned.plan.series,
    })
    let session = beginClass(planned.plan, entry)
    for (let i = 0; i < 200 && session.phase !== 'over'; i++) {
      session = afterAction(session, { kind: 'start', now: 0 }, materials)
      const drill = session.drills[session.index]
      if (drill && drill.seconds === undefined)
        for (const side of SIDES)
          if (drill.sides.includes(side))
            for (let n = 0; n < drill.repeats; n++)
              session = afterAction(session, { kind: 'round', side }, materials)
      session = afterAction(session, { kind: 'finished' }, materials)
      if (session.phase === 'asking')
        session = afterAction(session, { kind: 'verdict', verdict: 'clean' }, materials)
      else session = afterAction(session, { kind: 'next' }, materials)
    }
    const after = courseOf(series, around([classAfter(entry, session, materials)], '2026-12-02'))
    expect(after.columns[0]?.taught.map(({ id }) => id)).toEqual(column.units.map(({ id }) => id))
    expect(after.late).toEqual([])
  })
})
