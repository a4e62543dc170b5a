import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyLaying, empty, made } from '../../../tests/routines'
import { countsAt, evenMs, songWith } from '../../../tests/songs'
import type { Combination } from '../combination/combination'
import { USUAL_HOUSE } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import { readSheet } from '../sheet/readSheet'
import type { Section } from '../song/song'
import { dancedTo } from './danced'
import { laidOn } from './edits'
import { factsOn } from './facts'
import type { SongFact } from './fit'
import { laidOut } from './laid'
import { isLeft, leftAsIs, takenUp } from './leaves'
import { offersFor } from './offers'
import type { Routine } from './routine'
import { songSums, sumsOf } from './sums'
import { songFactText } from './words'

const danceOf = (id: string, lines: string): Combination => ({
  ...readSheet(`sway 1\ntitle ${id}\ntempo 90\nphrase A 8\n${lines}\norder A\n`, vocabulary)
    .combination,
  id,
})
const steps = '  feet 1 step R side; 2 close L; 3 step R side; 4 close L'
const easy = danceOf('easy', `${steps}; 5 step R side; 6 close L; 7 step R side; 8 close L`)
const other = danceOf('other', `${steps}; 5-8 hold`)
const hard = danceOf(
  'hard',
  `${steps}; 5 step R side; 6 close L; 7 step R side; 8 close L\n  hips 1-8 knee-shimmy\n  arms 1-8 snake-arms`,
)
const turning = danceOf('turning', `${steps}; 7 step R side turn 180; 8 close L`)
const all = [easy, other, hard, turning]
const find = (id: string) => all.find((one) => one.id === id)

/** An eight of intro, sixteen of verse, and twice as much of a chorus that comes twice. */
const kinds = [
  ['intro', 'Intro', 0, 1],
  ['verse', 'Verse', 8, 2],
  ['chorus', 'Chorus 1', 24, 5],
  ['chorus', 'Chorus 2', 40, 5],
] as const
const song = songWith(countsAt(evenMs(56, 90), { ones: [{ at: 0, counts: 8 }] }), {
  sections: kinds.map(([kind, label, at, energy]): Section => {
    const isAgain = label === 'Chorus 2'
    return { id: label, at, label, kind, energy, ...(isAgain && { as: 'Chorus 1' }) }
  }),
})
const factsOf = factsOn(song, find, vocabulary, USUAL_HOUSE)

const laidAll = (laid: readonly (readonly [Combination, number, ('R' | 'L')?])[]): Routine =>
  laid.reduce(
    (now, [one, at, side = 'R']) => laidOn(now, song, one, { at, side, id: `p${at}` }),
    empty,
  )
const said = (routine: Routine, code: SongFact['code']) =>
  factsOf(routine).filter((fact) => fact.code === code)

describe('sections as they are danced', () => {
  it('are said where one is danced otherwise than the one it is like, but for a few counts', () => {
    const first = [
      [easy, 24],
      [hard, 32],
    ] as const
    const alike = laidAll([...first, [easy, 40], [hard, 48]])
    expect(said(alike, 'song.same')).toEqual([])
    // From the other side it is the same.
    expect(said(laidAll([...first, [easy, 40, 'L'], [hard, 48, 'L']]), 'song.same')).toEqual([])
    // Something else altogether is meant so.
    expect(said(laidAll([...first, [other, 40], [turning, 48]]), 'song.same')).toEqual([])
    const changed = laidAll([...first, [easy, 40], [turning, 48]])
    const [fact] = said(changed, 'song.same')
    expect(fact && songFactText(fact, song)).toBe(
      'From here it is danced otherwise than Chorus 1, on 8 counts.',
    )
    expect(fact?.at).toBe(48)
    if (!fact) return
    let id = 0
    const around = { routine: changed, song, find, factsOf, vocabulary, house: USUAL_HOUSE }
    const [offer] = offersFor(fact, { ...around, newId: () => `n${id++}` })
    expect(offer?.words).toBe('Dance it as Chorus 1')
    expect(
      offer?.routine.pieces.map(({ at, what }) => [at, what.kind === 'dance' && what.combination]),
    ).toEqual([
      [24, 'easy'],
      [32, 'hard'],
      [40, 'easy'],
      [48, 'hard'],
    ])
  })

  it('are said where they end with the back to front, and where the dance ends away from it', () => {
    const back = laidAll([
      [easy, 8],
      [turning, 16],
      [turning, 24],
      [easy, 32],
    ])
    expect(said(back, 'song.facing').map((fact) => songFactText(fact, song))).toEqual([
      'The verse ends with the back to front.',
    ])
    const end = laidAll([
      [easy, 40],
      [turning, 48],
    ])
    expect(said(end, 'song.facing').map((fact) => [fact.at, songFactText(fact, song)])).toEqual([
      [55, 'The dance ends with the back to front.'],
    ])
    expect(
      said(
        laidAll([
          [turning, 40],
          [turning, 48],
        ]),
        'song.facing',
      ),
    ).toEqual([])
  })

  it('are said where what is loud is danced with clearly less than what is quiet', () => {
    const [verse, chorus] = [
      [8, 16],
      [24, 32],
    ] as const
    const laid = (quiet: Combination, loud: Combination) =>
      laidAll([
        ...verse.map((at) => [quiet, at] as const),
        ...chorus.map((at) => [loud, at] as const),
      ])
    expect(said(laid(hard, easy), 'song.load').map(({ at }) => at)).toEqual([24])
    expect(said(laid(easy, hard), 'song.load')).toEqual([])
    expect(said(laid(easy, easy), 'song.load')).toEqual([])
  })

  it('have a fact left as it is, and said again', () => {
    const routine = laidAll([
      [easy, 40],
      [turning, 48],
    ])
    for (const fact of factsOf(routine)) {
      expect(isLeft(routine, fact)).toBe(false)
      const left = leftAsIs(routine, fact)
      expect(factsOf(left).filter((one) => isLeft(left, one))).toContainEqual(fact)
      expect(takenUp(left, fact)).toEqual(routine)
      expect(leftAsIs(left, fact)).toBe(left)
    }
    const [away] = said(routine, 'song.facing')
    expect(away).toBeDefined()
  })

  it('come to what all of it comes to', () => {
    fc.assert(
      fc.property(anyLaying, ({ song: on, combinations, steps: done }) => {
        const { routine, all: own } = made(on, combinations, done)
        const laid = laidOut(routine, on, (id) => own.find((one) => one.id === id))
        const dance = dancedTo(laid, on, vocabulary, USUAL_HOUSE)
        const sums = songSums(routine, on, laid, dance)
        const whole = sumsOf(routine, on)
        expect(sums.combinations.reduce((sum, { counts }) => sum + counts, 0)).toBe(whole.danced)
        const begin = on.counts.ones[0]?.at ?? 0
        const before = routine.pieces.some(({ at }) => at < begin)
        for (const key of ['danced', 'rest', 'counts'] as const) {
          const inSections = sums.sections.reduce((sum, one) => sum + one[key], 0)
          if (before) expect(inSections).toBeLessThanOrEqual(whole[key])
          else expect(inSections).toBe(whole[key])
        }
        for (const one of sums.sections) {
          expect(one.danced + one.rest + one.left).toBe(one.counts)
          expect(one.sides.R + one.sides.L).toBe(one.danced)
        }
        expect(sums.loads).toHaveLength(dance.lead.length / 12)
      }),
      { numRuns: 60 },
    )
  })
})
