import { describe, expect, it } from 'vitest'
import { combination, feet, move } from '../../../tests/write'
import { asDanced, dancedIn } from '../combination/lengths'
import { defaultStart } from '../combination/start'
import { whatOf } from '../combination/whatOf'
import { checkCombination } from '../findings/check'
import { severityOf } from '../findings/finding'
import { readMotion } from '../moves/motion'
import { moveOfOwn } from '../moves/move'
import { vocabulary, withOwn } from '../moves/vocabulary'
import { mirrorMotion, writeMotion } from '../moves/writeMotion'
import { readSheet } from '../sheet/readSheet'
import { placesBefore } from '../simulate/course'
import { placesAfter, placesNeeded, startPlaces } from '../simulate/places'
import { simulate } from '../simulate/simulate'
import { tick } from '../time/time'
import { browseMoves } from './browse'
import { freeId, ownMoveOf, problemIn } from './makeOwn'
import { findOffers } from './search'

describe('every row of the vocabulary', () => {
  it.each(vocabulary.moves.map((row) => [row.id, row] as const))(
    '%s, placed alone at its usual counts, has no fault and ends where it says',
    (_, row) => {
      const event = { ...move(row.id, '1'), what: whatOf(row) }
      const alone = combination([[event]])
      const { findings, lead } = checkCombination(alone, vocabulary)
      expect(
        findings.filter(
          (found) => ['fault', 'snag'].includes(severityOf(found)) && found.code !== 'join.foot',
        ),
      ).toEqual([])
      if (row.kind === 'steps') {
        const ends = { '=': 'L', 'on-L': 'L', 'on-R': 'R', both: 'both' }[row.to]
        expect(lead.end.weight).toBe(ends)
        return
      }
      const before = { ...startPlaces(alone.start), ...placesNeeded(row, event.what) }
      const after = placesAfter(before, dancedIn(alone.phrases[0]!, vocabulary)[0]!, vocabulary)
      if (row.to === '=') expect(after).toEqual(before)
      else {
        // What it says is a place there is, and a move that starts there has nothing to reach.
        expect(JSON.stringify(after)).not.toBe(JSON.stringify({}))
        const named = row.to
          .split('+')
          .map((part) => part.replace(/^[RL]:/, '').replace(/^shoulder-(?=[RL]$)/, 'over-'))
        const there = JSON.stringify([after.hips, after.ribs, after.arms, after.gaze])
        for (const place of named) expect(there).toContain(`"${place}"`)
      }
    },
  )

  it('looks like no other of its layer, props and gestures at one place aside', () => {
    const looks = new Map<string, string[]>()
    for (const row of vocabulary.moves.filter(
      ({ layer }) => layer !== 'feet' && layer !== 'arms',
    )) {
      const key = [row.layer, row.kind, writeMotion(row.motion), row.sided].join(' ')
      looks.set(key, [...(looks.get(key) ?? []), row.id])
    }
    expect([...looks.values()].filter((ids) => ids.length > 1)).toEqual([])
  })

  it('is written as it is read, and mirrored twice is itself', () => {
    for (const { motion } of vocabulary.moves) {
      expect(readMotion(writeMotion(motion))).toEqual(motion)
      expect(mirrorMotion(mirrorMotion(motion))).toEqual(motion)
    }
    expect(
      writeMotion(
        mirrorMotion(
          readMotion('arc(R>FL>C)+osc(shoulderR.up 4, 1/move)&peak(pelvis.tilt +8 sharp)'),
        ),
      ),
    ).toBe('arc(L>FR>C)+osc(shoulderL.up 4, 1/move)&peak(pelvis.tilt -8 sharp)')
  })

  it('knows where the neck, the back, the knees and hard landings take care', () => {
    const at = (id: string) => vocabulary.find(id)?.risk
    expect(at('head-roll')).toEqual(['neck'])
    expect(at('head-whip')).toEqual(['neck', 'back'])
    expect(at('upper-backbend')).toEqual(['back'])
    expect(at('cross-unwind')).toEqual(['knees'])
    expect(at('side-jump')).toContain('impact')
    for (const row of vocabulary.moves)
      if (row.risk.length > 0) expect(row.care, row.id).not.toBe('')
  })
})

describe('an own move', () => {
  const span = (length: number) => ({ from: tick(0), length: tick(length) })

  it('made of steps is written from the right foot and dances the same again', () => {
    const left = readSheet(
      'sway 1\nlead L\nphrase A 8\n feet 1 step side turn -90; 1& close; 2 step back; 3 grapevine',
      vocabulary,
    ).combination
    const events = dancedIn(left.phrases[0]!, vocabulary)
    const own = ownMoveOf(events, span(72), 'Lamp!', vocabulary)
    expect(own).toMatchObject({ id: 'lamp', counts: 6, kind: 'steps', sided: 'side', to: '=' })
    expect(own.pattern).toMatch(/^1 step R side turn 90; 1& close L; 2 step R back; 3 step L side/)
    const known = withOwn(vocabulary, [own])
    const placed = combination(
      [
        [
          {
            ...move('march', '1'),
            length: tick(72),
            what: { kind: 'move', move: 'lamp', side: 'L' },
          },
        ],
      ],
      { lead: 'L', start: defaultStart('L') },
    )
    const actions = (c: typeof left) =>
      simulate(c, known).danced.map(({ at, action }) => ({ at, action }))
    expect(actions(placed)).toEqual(actions(left))
  })

  it('made of isolations runs through them, and says where it ends', () => {
    const { combination: written } = readSheet(
      'sway 1\nphrase A 8\n hips 1 at R; 2 half-circle-front L; 4 hip-bump L',
      vocabulary,
    )
    const own = ownMoveOf(dancedIn(written.phrases[0]!, vocabulary), span(48), 'Pour', vocabulary)
    expect(own).toMatchObject({
      layer: 'hips',
      kind: 'path',
      counts: 4,
      sided: 'side',
      claims: ['pelvis'],
    })
    expect(own.motion).toBe('to(R)+arc(R>FR>F>FL>L)+peak(pelvis.side -7 sharp)')
    expect(own.to).toBe('L')
    expect(moveOfOwn(own).motion).toHaveLength(3)
  })

  it.each([
    [[], /nothing selected/],
    [[...feet('1 step R side'), move('hip-drop', '1', 'R')], /several layers/],
  ])('is refused where there is nothing to make it of: %#', (events, message) =>
    expect(() => ownMoveOf(asDanced(events, 8, vocabulary), span(12), 'X', vocabulary)).toThrow(
      message,
    ),
  )

  it('has an id of its own, and what is wrong with its text is said', () => {
    expect(freeId('Grapevine', vocabulary)).toBe('grapevine-2')
    expect(freeId('Ólé / olé', vocabulary)).toBe('ole-ole')
    expect(problemIn({ layer: 'feet', pattern: '1 stumble R' })).toMatch(/stumble/)
    expect(problemIn({ layer: 'hips', motion: 'spin(wild)' })).toMatch(/no motion/)
    expect(problemIn({ layer: 'hips', motion: 'to(R)' })).toBeUndefined()
  })

  it('and own names are found, offered and said', () => {
    const own = ownMoveOf(
      asDanced(feet('1 step R side; 2 touch L together'), 8, vocabulary),
      span(24),
      'Lantern sway',
      vocabulary,
    )
    const known = withOwn(vocabulary, [own], { 'hip-drop': 'plop' })
    expect(findOffers('lantern', { layer: 'feet', side: 'L', families: [] }, known)[0]?.name).toBe(
      'lantern sway L',
    )
    expect(findOffers('plop', { layer: 'hips', side: 'R', families: [] }, known)[0]?.name).toBe(
      'plop R',
    )
    expect(findOffers('hip drop', { layer: 'hips', side: 'R', families: [] }, known)[0]?.name).toBe(
      'plop R',
    )
    expect(readSheet('sway 1\nphrase A 8\n hips 1 plop', known).messages).toEqual([])
  })
})

describe('looking through the vocabulary', () => {
  const ids = (wish: Parameters<typeof browseMoves>[0]) =>
    browseMoves(wish, vocabulary).map(({ id }) => id)

  it('is not particular about case, accents and hyphens', () => {
    expect(ids({ text: 'UWEHE' })).toEqual(
      expect.arrayContaining(['uwehe-hips', 'uwehe-feet', 'lele-uwehe']),
    )
    expect(ids({ text: 'paso basico' })).toEqual(['salsa-basic'])
    expect(ids({ text: 'xylophone' })).toEqual([])
  })

  it('filters by layer, family, demand and what suits a place', () => {
    expect(ids({ text: '', layer: 'head', family: 'belly', demand: 1 }).length).toBeGreaterThan(2)
    const { combination: written } = readSheet(
      'sway 1\nphrase A 8\n feet 1 touch R; 2 step R\n hips 1-2 at R',
      vocabulary,
    )
    const lead = simulate(written, vocabulary)
    const here = (at: number, room: number) => ({
      state: lead.end,
      places: placesBefore(lead, at),
      at: tick(at),
      room,
      tempo: 96,
      recent: [],
    })
    const suits = (layer: 'feet' | 'hips', side: 'R' | 'L', room: number) =>
      browseMoves(
        { text: '', layer, suits: { layer, side, families: [], here: here(24, room) } },
        vocabulary,
      ).map(({ id }) => id)
    // Weight on R, so the left foot leads; two counts are left.
    expect(suits('feet', 'L', 24)).toContain('step-touch')
    expect(suits('feet', 'L', 24)).not.toContain('grapevine')
    expect(suits('feet', 'R', 96)).not.toContain('step-touch')
    // The hips are on the right, so a way from the right fits and one from the left does not.
    expect(suits('hips', 'L', 24)).toContain('half-circle-front')
    expect(suits('hips', 'R', 24)).not.toContain('half-circle-front')
  })
})
