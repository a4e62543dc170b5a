import { describe, expect, it } from 'vitest'
import { demo } from '../../../tests/demo'
import { PIECES } from '../../../tests/ordinary'
import { LAYERS } from '../body/layers'
import { drillPerformance } from '../class/drillDance'
import { USUAL_HOUSE, USUAL_RULES } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import { SILENT } from '../performance/stretches'
import { danceOf } from '../piece/dance'
import { materialsOf, roundOf } from '../plan/material'
import { dancersOf } from '../pose/dancers'
import { readSheet } from '../sheet/readSheet'
import { pageDataOf } from './makePage'
import { pageDance } from './pageDance'
import type { PageData } from './pageData'

const alone = demo.filter(({ parts }) => !parts)

describe('a page', () => {
  it.each(alone.map((one) => [one.title, one] as const))(
    'dances a try of %s as the floor does: the same calls and sounds on the same ticks, the same poses',
    (_, one) => {
      const page = JSON.parse(
        JSON.stringify(pageDataOf(one, vocabulary, USUAL_RULES, { made: '2026-11-29' })),
      )
      const dance = pageDance(page)
      const materials = materialsOf([one], vocabulary, USUAL_HOUSE)
      for (const chunk of page.chunks) {
        const stop = chunk.stops.find((each: { do: string }) => each.do === 'try')
        const how = { side: one.lead, percent: 100, layers: stop.layers }
        const [own] = dance.stopAt(chunk, stop, how, { isLoop: false })
        const drill = {
          combination: one.id,
          phrases: [chunk.id],
          sides: [one.lead],
          repeats: stop.rounds,
          tempo: one.tempo,
          layers: stop.layers,
        }
        const round = roundOf({ ...drill, kind: 'show' }, materials)
        if (!own || !round) throw new Error('nothing to dance')
        const floor = drillPerformance(drill, round, {
          call: 'all',
          countIn: 4,
          rhythm: undefined,
          speech: SILENT,
        })
        expect(own.length).toBe(floor.length)
        expect(own.calls).toEqual(floor.calls)
        expect(own.sounds).toEqual(floor.sounds)
        const dancers = dancersOf(round.material.from, { layers: new Set(stop.layers) })
        for (let at = 0; at < own.length; at += 7.3)
          expect(own.poseAt(at, dance.dancers(stop.layers)).joints).toEqual(
            floor.poseAt(at, dancers).joints,
          )
      }
    },
  )

  it('of one of several dances as she does among the others, who are seen from her', () => {
    let others = 0
    for (const one of [...demo, ...PIECES.map((sheet) => readSheet(sheet, vocabulary).combination)])
      for (const { id: part, delay } of one.parts ?? []) {
        const page: PageData = JSON.parse(
          JSON.stringify(pageDataOf(one, vocabulary, USUAL_RULES, { made: '2026-11-29', part })),
        )
        const dance = pageDance(page)
        const dancing = dance.dancingOn(page.lead)
        const from = danceOf(one, vocabulary, USUAL_HOUSE).from
        const isInStep = one.parts?.every((each) => each.delay === undefined)
        const own = dancersOf(from, {}, isInStep ? one : undefined)(dancing)
        if (delay === undefined)
          for (let at = 0; at < from(dancing).length; at += 29.7) {
            const pose = dance.dancers(LAYERS)(dancing).poseAt(at)
            expect(pose.joints).toEqual(own.poseAt(at).joints)
            others += dance.othersAt(dancing, at, pose, LAYERS).length
          }
        const met = dance
          .walk(page.chunks[0] ?? chunk(), { side: page.lead, percent: 100, layers: LAYERS })
          .map(({ words }) => words.layers.map(({ text }) => text).join())
        expect(met.length).toBeGreaterThan(0)
      }
    expect(others).toBeGreaterThan(50)
  })
})

function chunk(): never {
  throw new Error('a page has a chunk')
}
