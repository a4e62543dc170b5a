import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { demo } from '../../../tests/demo'
import { holds } from '../../../tests/holds'
import { anyLaid, classMaterials, drillWith, find, one } from '../../../tests/laidSongs'
import { LAYERS } from '../body/layers'
import { dancedRow } from '../class/dancedRow'
import { drillPerformance, soundFor } from '../class/drillDance'
import { USUAL_SOUND } from '../class/soundChoice'
import { afterAction, beginClass, drillOf } from '../class/underWay'
import { countsOn } from '../diary/diary'
import { USUAL_HOUSE } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import { isClick, type SoundKind } from '../performance/sounds'
import { SILENT } from '../performance/stretches'
import type { Drill } from '../plan/drill'
import { changeDrill, emptyPlan, freed, planAgain } from '../plan/edits'
import { countsPerSide, materialsOf, roundOf, secondsOf } from '../plan/material'
import { readPlan, wishesFor } from '../plan/plan'
import { withSongDrills } from '../plan/songDrills'
import { drillTitle } from '../plan/totals'
import { twice } from '../song/correct'
import type { Song } from '../song/song'
import { endOfLaid, laidOut } from './laid'
import { momentOf } from './settled'

describe('a drill with music', () => {
  it('is danced on the counts of its song at each speed, and lasts as long as it says', () => {
    holds(
      fc.property(
        anyLaid,
        fc.constantFrom(0.5, 0.8, 1, 1.2),
        fc.integer({ min: 1, max: 3 }),
        fc.boolean(),
        ({ song, routine, chorus }, rate, repeats, isPart) => {
          const materials = classMaterials(song, routine)
          const end = song.counts.ms.length
          const from = isPart ? chorus : (song.counts.ones[0]?.at ?? 0)
          const drill = drillWith(
            { routine: 'routine', from: momentOf(song, from), to: momentOf(song, end), rate },
            { repeats },
          )
          const round = roundOf(drill, materials)
          if (!round?.song) throw new Error('nothing is danced')
          expect(round.counts).toBe(endOfLaid(laidOut(routine, song, find)) - from)
          const played = drillPerformance(drill, round, soundFor(USUAL_SOUND, round, SILENT))
          const stretches = played.segments.filter(({ round: nth }) => nth > 0)
          expect(stretches).toHaveLength(repeats)
          for (const { music, time, sounds } of stretches) {
            expect(music?.mark).toBe(song.media.mark)
            expect(music?.rate).toBe(rate)
            for (const sound of sounds.filter(
              ({ kind }) => kind === 'count' || kind === 'phrase',
            )) {
              const heard = (music?.from ?? 0) + rate * time.secondsAt(sound.at)
              expect(heard).toBeCloseTo((song.counts.ms[from + sound.at / 12] ?? 0) / 1000, 6)
            }
            // Music has its own rhythm.
            const isOwn = (kind: SoundKind) =>
              isClick(kind) || kind === 'say' || LAYERS.some((layer) => layer === kind)
            expect(sounds.filter(({ kind }) => !isOwn(kind))).toEqual([])
          }
          // Nothing of the song while it is counted in.
          expect(played.segments.filter(({ music }) => music)).toHaveLength(repeats)
          const seconds = played.time.secondsAt(played.length)
          expect(secondsOf(drill, materials)).toBe(Math.ceil(seconds - 1e-9))
          const { R, L } = countsPerSide(drill, materials)
          const laid = routine.pieces
            .filter(({ at }) => at >= from)
            .reduce((sum, { counts }) => sum + counts, 0)
          expect(R + L).toBe(repeats * laid)
          // From the other side each is the other one; and the diary counts as the plan does.
          const lead = round.material.combination.lead
          const turned = drillWith(drill.song as never, {
            repeats,
            sides: [lead === 'R' ? 'L' : 'R'],
          })
          const own = { ...drill, sides: [lead] }
          const counted = countsPerSide(own, materials)
          expect(countsPerSide(turned, materials)).toEqual({ R: counted.L, L: counted.R })
          const row = dancedRow(own, { R: repeats, L: 0 }, 'row', materials)
          expect([countsOn(row, 'R'), countsOn(row, 'L')]).toEqual([counted.R, counted.L])
          expect(row.title).toMatch(isPart ? /^Kiln Yard, Chorus, \d+ %$/ : /^Kiln Yard, \d+ %$/)
        },
      ),
      { numRuns: 60, seed: 81 },
    )
  })

  it('is where it was in time when the song is counted twice as fast', () => {
    holds(
      fc.property(anyLaid, ({ song, routine, chorus }) => {
        const drill = drillWith({
          routine: 'routine',
          from: momentOf(song, chorus),
          to: momentOf(song, song.counts.ms.length),
          rate: 1,
        })
        const stretch = (now: Song) => {
          const round = roundOf(drill, classMaterials(now, routine))
          if (!round?.song) throw new Error('nothing is danced')
          const { time, second } = round.song
          return [second, time.secondsAt(round.to - round.from)]
        }
        const [second, seconds] = stretch(song)
        const [other, others] = stretch({ ...song, counts: twice(song.counts) })
        expect(other).toBeCloseTo(second as number, 3)
        // To half a count: where the sound of the last count ends nobody knows.
        expect(Math.abs((others as number) - (seconds as number))).toBeLessThan(0.8)
      }),
      { numRuns: 40, seed: 82 },
    )
  })

  it('stands at the end of a class, slower first, and the rest is planned round it to the second', () => {
    holds(
      fc.property(anyLaid, fc.integer({ min: 45, max: 90 }), ({ song, routine }, minutes) => {
        const materials = classMaterials(song, routine)
        let ids = 0
        const wishes = { ...wishesFor(one, 'improver'), minutes }
        const plan = planAgain(emptyPlan('plan', 'Class', wishes), materials).plan
        const whole = { routine: 'routine', from: 0, to: momentOf(song, song.counts.ms.length) }
        const added = withSongDrills(plan, whole, materials, () => `${ids++}`)
        const { plan: now, proposal } = planAgain(added, materials)
        expect(readPlan(JSON.parse(JSON.stringify(now)))).toEqual(now)
        const songs = now.drills.flatMap((drill, i) => (drill.song ? [{ drill, i }] : []))
        expect(songs.map(({ drill }) => drill.song?.rate)).toEqual([0.8, 0.9, 1])
        expect(songs.map(({ drill }) => drill.tempo)).toEqual(
          songs.map(({ drill }) => drill.tempo).sort((a, b) => a - b),
        )
        const last = songs.at(-1)?.i ?? 0
        expect(songs.map(({ i }) => i)).toEqual([last - 2, last - 1, last])
        const after = now.drills.slice(last + 1).map(({ kind }) => kind)
        for (const kind of after) expect(['open', 'recap', 'cool-down']).toContain(kind)
        const seconds = now.drills.reduce((sum, drill) => sum + secondsOf(drill, materials), 0)
        expect(seconds - proposal.over).toBe(minutes * 60)
        // They stay when they are unlocked, and when all is planned again.
        const again = planAgain(freed(now), materials).plan
        expect(again.drills.filter(({ song }) => song)).toHaveLength(3)
        // Gone with its song: it takes no time, and is said by name.
        const without = materialsOf(demo, vocabulary, USUAL_HOUSE)
        const [first] = songs
        expect(first && secondsOf(first.drill, without)).toBe(0)
        expect(first && drillTitle(first.drill, without)).toBe('With music, 80 %')
        expect(withSongDrills(plan, whole, without, () => 'x')).toBe(plan)
      }),
      { numRuns: 12, seed: 83 },
    )
  })

  it('goes a twentieth slower or faster by a key, a tenth slower when it was not yet clean', () => {
    holds(
      fc.property(anyLaid, fc.array(fc.boolean(), { maxLength: 14 }), ({ song, routine }, keys) => {
        let ids = 0
        const materials = classMaterials(song, routine)
        const whole = { routine: 'routine', from: 0, to: momentOf(song, song.counts.ms.length) }
        const plan = withSongDrills(
          emptyPlan('p', '', wishesFor(one, 'new')),
          whole,
          materials,
          () => `${ids++}`,
        )
        let session = beginClass(plan, { id: 'c', title: '', danced: [] })
        let hundredths = 80
        const { tempo } = drillOf(session) as Drill
        for (const isFaster of keys) {
          session = afterAction(session, { kind: isFaster ? 'faster' : 'slower' }, materials)
          hundredths = Math.min(120, Math.max(40, hundredths + (isFaster ? 5 : -5)))
          expect(drillOf(session)?.song?.rate).toBeCloseTo(hundredths / 100, 9)
        }
        expect(Math.abs((drillOf(session)?.tempo ?? 0) - (tempo * hundredths) / 80)).toBeLessThan(
          1 + keys.length / 2,
        )
        session = afterAction(
          session,
          { kind: 'round', side: drillOf(session)?.sides[0] ?? 'R' },
          materials,
        )
        session = afterAction(session, { kind: 'finished' }, materials)
        expect(session.phase).toBe('asking')
        const again = afterAction(session, { kind: 'verdict', verdict: 'not-yet' }, materials)
        expect(again.danced.at(-1)?.song?.rate).toBeCloseTo(hundredths / 100, 9)
        expect(drillOf(again)?.song?.rate).toBeCloseTo(Math.max(0.4, hundredths / 100 - 0.1), 9)
        // By hand in a plan it is the same speed, and locked.
        const changed = changeDrill(plan, plan.drills[0]?.id ?? '', { rate: 0.65 }).drills[0]
        expect([changed?.song?.rate, changed?.locked]).toEqual([0.65, true])
      }),
      { numRuns: 30, seed: 84 },
    )
  })
})
