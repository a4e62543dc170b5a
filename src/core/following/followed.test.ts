import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyPiece } from '../../../tests/anyPiece'
import { anyCombination } from '../../../tests/arbitraries'
import { demo } from '../../../tests/demo'
import { holds } from '../../../tests/holds'
import { anyLaid, classMaterials, drillWith } from '../../../tests/laidSongs'
import { LAYERS } from '../body/layers'
import { otherSide } from '../body/side'
import { type DrillDance, drillDanceOf, shownDrill } from '../class/drillDance'
import { wordsAt } from '../class/shownDrill'
import { USUAL_SOUND } from '../class/soundChoice'
import { afterAction, beginClass } from '../class/underWay'
import type { Combination } from '../combination/combination'
import { USUAL_HOUSE, USUAL_RULES } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import type { Drill } from '../plan/drill'
import { emptyPlan, planAgain } from '../plan/edits'
import { type Materials, materialsOf } from '../plan/material'
import { wishesFor } from '../plan/plan'
import { dancersOf } from '../pose/dancers'
import { momentOf } from '../routine/settled'
import { afterNews, drillTold, followedDrill, followedTick, NOTHING_TOLD, newsOf } from './followed'
import { FloorNews } from './news.schema'
import { drillNews, pieceNews, restNews } from './tell'
import { createTeller } from './telling'

const speech = () => 0.2

/** What was told, as it comes out of a wire. */
const wired = (news: object): FloorNews => FloorNews.parse(JSON.parse(JSON.stringify(news)))

/** A drill as somebody sees it who was only told of it. */
function followed(danced: DrillDance, materials: Materials) {
  const piece = pieceNews(danced, { materials, rules: USUAL_RULES })
  const drill = drillNews(danced, { mark: piece.mark, title: 'A drill' })
  const told = [
    wired({ ...piece, n: 1 }),
    wired({ ...drill, n: 2 }),
    wired({ t: 'run', n: 3, drill: drill.drill, at: 0, tick: 0 }),
  ].reduce(afterNews, NOTHING_TOLD)
  const known = drillTold(told)
  if (!known) throw new Error('it was not told')
  return { ...followedDrill(known.piece, known.drill), told }
}

/** Both are the same at each moment: what is danced, called and said, and the pose within so many metres. */
function expectSame(
  danced: DrillDance,
  materials: Materials,
  { every, off }: { every: number; off: number },
): void {
  const own = shownDrill(danced)
  const theirs = followed(danced, materials)
  const ownDancers = dancersOf(own.from, {}, own.combination)
  const theirDancers = dancersOf(theirs.from, {}, theirs.combination)
  const { performance } = danced
  expect(theirs.performance.length).toBe(performance.length)
  for (let at = 0; at < performance.length; at += every) {
    const [a, b] = [performance.momentAt(at), theirs.performance.momentAt(at)]
    expect({ ...b, segment: 0, pass: b.pass?.index }).toEqual({
      ...a,
      segment: 0,
      pass: a.pass?.index,
    })
    expect(wordsAt(theirs, b)).toEqual(wordsAt(own, a))
    expect(theirs.performance.time.secondsAt(at)).toBeCloseTo(performance.time.secondsAt(at), 3)
    expect(theirs.placeAt?.(a.tick)).toEqual(
      a.isCountIn ? theirs.placeAt?.(a.tick) : own.placeAt?.(a.tick),
    )
    const hers = theirs.performance.poseAt(at, theirDancers).joints
    for (const [i, value] of performance.poseAt(at, ownDancers).joints.entries())
      expect(Math.abs((hers[i] ?? Number.NaN) - value)).toBeLessThanOrEqual(off)
  }
}

const drillOf = (one: Combination, more: Partial<Drill> = {}): Drill => ({
  id: 'drill',
  kind: 'free-run',
  combination: one.id,
  phrases: [],
  layers: [...LAYERS],
  sides: [one.lead, otherSide[one.lead]],
  repeats: 1,
  tempo: 80,
  talk: 0,
  stand: 'mirror',
  ...more,
})

describe('what the floor tells', () => {
  it('is danced as it is on the floor, whatever is danced', () => {
    holds(
      fc.property(
        fc.oneof(anyCombination(), anyPiece()),
        fc.subarray([...LAYERS], { minLength: 1 }),
        fc.boolean(),
        (one, layers, inTurn) => {
          const materials = materialsOf([one], vocabulary, USUAL_HOUSE)
          const drill = drillOf(one, { layers, ...(inTurn && { inTurn, repeats: 2 }) })
          const danced = drillDanceOf(drill, materials, USUAL_SOUND, speech)
          if (danced) expectSame(danced, materials, { every: 23.3, off: 0 })
        },
      ),
      { numRuns: 60, seed: 612 },
    )
  })

  it('is danced with a song as the song goes', () => {
    holds(
      fc.property(anyLaid, fc.constantFrom(0.7, 1), ({ song, routine, chorus }, rate) => {
        const materials = classMaterials(song, routine)
        const drill = drillWith({
          routine: 'routine',
          from: momentOf(song, chorus),
          to: momentOf(song, song.counts.ms.length),
          rate,
        })
        const danced = drillDanceOf(drill, materials, USUAL_SOUND, speech)
        if (!danced) throw new Error('nothing is danced')
        // Its moments are told to a hundredth of a millisecond.
        expectSame(danced, materials, { every: 17.9, off: 1e-4 })
      }),
      { numRuns: 30, seed: 613 },
    )
  })

  it('holds nothing of where it is kept and of what only the instructor reads', () => {
    const [one] = demo
    if (!one) throw new Error('no demo')
    const secret: Combination = {
      ...one,
      id: 'id-of-the-base',
      by: 'Somebody',
      tags: ['not for them'],
      comments: [{ at: { line: 1 }, text: 'secret remark' } as never],
      leave: [{ code: 'turn.dizzy', because: 'secret' } as never],
    }
    const materials = materialsOf([secret], vocabulary, USUAL_HOUSE)
    const danced = drillDanceOf(drillOf(secret), materials, USUAL_SOUND, speech)
    if (!danced) throw new Error('nothing is danced')
    const piece = pieceNews(danced, { materials, rules: USUAL_RULES })
    const drill = drillNews(danced, { mark: piece.mark, title: one.title })
    const text = JSON.stringify([piece, drill])
    for (const word of ['id-of-the-base', 'Somebody', 'not for them', 'secret'])
      expect(text).not.toContain(word)
    // Small enough to be there at once.
    expect(JSON.stringify(piece).length).toBeLessThan(40_000)
    expect(JSON.stringify(drill).length).toBeLessThan(12_000)
  })

  it('ends in the same view in any order, however often it comes', () => {
    const [one] = demo
    if (!one) throw new Error('no demo')
    const materials = materialsOf([one], vocabulary, USUAL_HOUSE)
    const all = [80, 92].flatMap((tempo, i) => {
      const danced = drillDanceOf(drillOf(one, { tempo }), materials, USUAL_SOUND, speech)
      if (!danced) throw new Error('nothing is danced')
      const piece = pieceNews(danced, { materials, rules: USUAL_RULES })
      const drill = drillNews(danced, { mark: piece.mark, title: '' })
      const n = 10 * i
      return [
        { ...piece, n },
        { ...drill, n: n + 1 },
        { t: 'run' as const, n: n + 2, drill: drill.drill, at: 1000 * n, tick: 3 },
        { t: 'rest' as const, n: n + 3, phase: 'asking' as const, title: '', text: 'Breathe.' },
        { t: 'run' as const, n: n + 4, drill: drill.drill, at: 1000 * n + 50, tick: 9 },
      ]
    })
    const expected = all.reduce(afterNews, NOTHING_TOLD)
    holds(
      fc.property(
        fc.shuffledSubarray(all, { minLength: all.length }),
        fc.array(fc.nat(all.length - 1), { maxLength: 6 }),
        (shuffled, again) => {
          const twice = [...shuffled, ...again.flatMap((i) => all[i] ?? [])]
          const ends = twice.reduce(afterNews, NOTHING_TOLD)
          expect(ends).toEqual(expected)
          // Who comes late hears the same at once.
          expect(newsOf(ends).reduce(afterNews, NOTHING_TOLD)).toEqual(expected)
          expect(drillTold(ends)?.drill.parts[0]?.time).toBe(92)
        },
      ),
      { numRuns: 100, seed: 614 },
    )
  })

  it('is where the floor is at each moment, and nowhere behind the end', () => {
    const [one] = demo
    if (!one) throw new Error('no demo')
    const materials = materialsOf([one], vocabulary, USUAL_HOUSE)
    const danced = drillDanceOf(drillOf(one), materials, USUAL_SOUND, speech)
    if (!danced) throw new Error('nothing is danced')
    const { performance } = danced
    const run = { t: 'run' as const, n: 1, drill: 'd', at: 5000, tick: 24 }
    // 80 counts a minute: a count is 12 ticks and 750 ms.
    expect(followedTick({ performance }, run, 5750)).toBeCloseTo(36, 9)
    expect(followedTick({ performance }, run, 4250)).toBeCloseTo(12, 9)
    expect(followedTick({ performance }, run, 0)).toBe(0)
    expect(followedTick({ performance }, run, 5000 + 1e7)).toBeUndefined()
  })

  it('tells each step of a class while nothing sounds', () => {
    const materials = materialsOf(demo, vocabulary, USUAL_HOUSE)
    const [one] = demo
    if (!one) throw new Error('no demo')
    const plan = planAgain(emptyPlan('p', 'Class', wishesFor(one, 'improver')), materials).plan
    let session = beginClass(plan, { id: 'c', title: 'Class', danced: [] })
    const phases = new Set<string>()
    for (let i = 0; i < session.drills.length; i++) {
      for (const isUnderWay of [false, true]) {
        const now = isUnderWay
          ? afterAction(session, { kind: 'start', now: 0 }, materials)
          : session
        const news = restNews(now, { materials, drill: 'd', begun: isUnderWay ? 1000 : undefined })
        const told = wired({ ...news, n: i })
        if (told.t !== 'rest') throw new Error('it is no rest')
        phases.add(told.phase)
        if (told.walk) expect(told.walk.count !== undefined).toBe(isUnderWay)
        if (told.until !== undefined) expect(told.until).toBeGreaterThan(1000)
      }
      session = afterAction(session, { kind: 'next' }, materials)
    }
    expect(
      restNews({ ...session, phase: 'over' }, { materials, drill: undefined, begun: undefined })
        .phase,
    ).toBe('over')
    for (const phase of ['ready', 'talk', 'walk']) expect(phases).toContain(phase)
  })
})

describe('the teller of a floor', () => {
  it('tells each thing once, and where it is again once who follows would be off', () => {
    const [one] = demo
    if (!one) throw new Error('no demo')
    const materials = materialsOf([one], vocabulary, USUAL_HOUSE)
    const plan = planAgain(emptyPlan('p', 'Class', wishesFor(one, 'improver')), materials).plan
    const session = beginClass(plan, { id: 'c', title: 'Class', danced: [] })
    const danced = drillDanceOf(drillOf(one), materials, USUAL_SOUND, speech)
    let now = 1000
    const { tell, telling } = createTeller(() => now)
    const heard: FloorNews[] = []
    telling.subscribe((news) => heard.push(news))
    const floor = (isPlaying: boolean) => ({
      session,
      materials,
      rules: USUAL_RULES,
      danced,
      isPlaying,
      begun: undefined,
    })
    tell(floor(false), undefined)
    tell(floor(false), undefined)
    expect(heard.map(({ t }) => t)).toEqual(['piece', 'drill', 'rest'])
    // A count is 12 ticks and 750 ms: what goes on as it was told is not told again.
    for (const [ms, tick] of [
      [2000, 0],
      [2750, 12],
      [3500, 24.05],
    ] as const) {
      now = ms
      tell(floor(true), tick)
    }
    expect(heard.filter(({ t }) => t === 'run')).toHaveLength(1)
    now = 4250
    tell(floor(true), 36.3)
    expect(heard.at(-1)).toMatchObject({ t: 'run', at: 4250, tick: 36.3 })
    tell(floor(false), undefined)
    expect(heard.at(-1)?.t).toBe('rest')
    // Who comes late hears what holds, each once.
    const late: string[] = []
    telling.subscribe(({ t }) => late.push(t))
    expect(late).toEqual(['piece', 'drill', 'rest'])
  })
})
