import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyCombination } from '../../../tests/arbitraries'
import { holds } from '../../../tests/holds'
import { WITH_PROPS } from '../../../tests/ordinary'
import { withProps } from '../../../tests/withProps'
import { SIDES } from '../body/side'
import { ActId, type Carried } from '../combination/carried'
import { Combination } from '../combination/combination'
import { mirror } from '../combination/mirror'
import { mirrorCarried } from '../combination/mirrorProps'
import { addAct, addProp, changeAct, removeAct, removeProp } from '../edits/props'
import { checkCombination } from '../findings/check'
import { placeText } from '../findings/findingText'
import { USUAL_HOUSE } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import { readSheet } from '../sheet/readSheet'
import { placesBefore } from '../simulate/course'
import { danced } from '../simulate/danced'
import { tick } from '../time/time'
import { actRow, actsFor } from './acts'
import { armsBefore } from './arms'
import { followProps } from './follow'
import { heldAt } from './held'

const anyCarrying = (more: { kept?: boolean } = {}) =>
  fc
    .tuple(
      anyCombination(more),
      fc.array(fc.nat(1000), { minLength: 1, maxLength: 3 }),
      fc.array(fc.tuple(fc.nat(1000), fc.nat(1000), fc.nat(1000), fc.nat(1000)), { maxLength: 8 }),
    )
    .map(([one, things, acts]) => withProps(one, { things, acts }))

const followed = (one: Combination) => followProps(danced(one, vocabulary, USUAL_HOUSE).lead)
const read = (text: string) => readSheet(text, vocabulary).combination
const said = (one: Combination) =>
  checkCombination(one, vocabulary).findings.map(
    ({ code, spot }) => `${code}@${placeText(spot).replace(' ', '')}`,
  )

const WINDOW = `sway 2
title   Open the Window
tempo   80
start   arms high-v
carry   veil "Silk" 2.5 x 1.1 behind, R top-R pinch, L top-L pinch, ready hair-in
phrase V "Over and round" 8
  feet    1 step R side; 2 touch L together; 3 step L forward; 4 touch R together; 5 step R side turn 90; 6 step L side turn 90; 7 touch R together
  arms    1-2 both crown; 3-4 both second via side; 5-7 both second; 8 L low
  torso   7-8 rib-circle cw
  prop    1-2 over to front; 3-4 frame; 5-6 carry; 7 round; 8 let-go L`

describe('what is carried', () => {
  it('is in one hand at most twice never, and nothing is lost or made: each thing is held, worn, in the air or down', () => {
    let clean = 0
    holds(
      fc.property(anyCarrying(), (one) => {
        expect(Combination.safeParse(one).error).toBeUndefined()
        const { acts, ends } = followed(one)
        expect([...ends.keys()]).toEqual(one.carried?.map(({ id }) => id))
        // Each goes on as the one before it left off.
        const now = new Map(one.carried?.map(({ id, start }) => [id, start]))
        for (const { prop, before, after } of acts) {
          expect(before).toBe(now.get(prop.id))
          now.set(prop.id, after)
          expect(after.wound).toBeGreaterThanOrEqual(0)
        }
        const startsFull = SIDES.some(
          (side) => (one.carried ?? []).filter(({ start }) => start.hands[side]).length > 1,
        )
        if (startsFull || acts.some(({ hindrances }) => hindrances.length > 0)) return
        if (acts.length > 0) clean++
        for (const side of SIDES)
          expect([...ends.values()].filter(({ hands }) => hands[side]).length).toBeLessThan(2)
      }),
      { numRuns: 600, seed: 740 },
    )
    expect(clean).toBeGreaterThan(0)
  })

  it('is the same from the other side, edge by edge, and so is what is found of it', () => {
    holds(
      fc.property(anyCarrying({ kept: false }), (written) => {
        const one: Combination = {
          ...written,
          carried: (written.carried ?? []).map(({ keepHand: _, ...prop }) => prop),
          phrases: written.phrases.map((phrase) => ({
            ...phrase,
            ...(phrase.props && { props: phrase.props.map(({ kept: _, ...act }) => act) }),
          })),
        }
        const image = mirror(one)
        expect(mirror(image)).toEqual(one)
        if (one.keepTurns) return
        const [here, there] = [followed(one), followed(image)]
        for (const [i, { after }] of here.acts.entries())
          expect(there.acts[i]?.after).toEqual(mirrorCarried(after))
      }),
      { numRuns: 300, seed: 741 },
    )
    for (const sheet of [WINDOW, ...WITH_PROPS])
      expect(said(mirror(read(sheet)))).toEqual(said(read(sheet)))
  })

  it('of a veil that is let go of too soon says so: where it lies, and how the round begins', () => {
    const one = read(WINDOW)
    expect(said(one).filter((each) => each.startsWith('prop.'))).toEqual([
      'prop.underfoot@V1',
      'prop.join@V8',
    ])
    const rolled = read(WINDOW.replace('7 round; 8 let-go L', '6& roll-in'))
    expect(said(rolled)).toContain('prop.lag@V6&')
    const { acts } = followed(one)
    expect(acts.map(({ after }) => after.drape)).toEqual([
      'front',
      'frame',
      'frame',
      'frame',
      'frame',
    ])
    const { lead } = danced(one, vocabulary, USUAL_HOUSE)
    const hands = (at: number) =>
      heldAt(lead, at).map(([, carried]: readonly [unknown, Carried]) => Object.keys(carried.hands))
    expect([hands(83), hands(84)]).toEqual([[['R', 'L']], [['R']]])
  })

  it('knows where the arms are as the course has it', () => {
    holds(
      fc.property(anyCarrying(), fc.integer({ min: -30, max: 400 }), (one, tick) => {
        const { lead } = danced(one, vocabulary, USUAL_HOUSE)
        for (const at of [tick, tick + 0.5, 0, lead.length])
          expect(armsBefore(lead, at)).toEqual(placesBefore(lead, at).arms)
      }),
      { numRuns: 200, seed: 743 },
    )
  })

  it('has a row for all that can be done, with what it takes', () => {
    for (const act of ActId.options) {
      const { seconds, kinds, feel, watch } = actRow(act)
      expect(seconds).toBeLessThan(2)
      expect(kinds.length).toBeGreaterThan(0)
      expect(`${feel}${watch}`).toMatch(/[.]$/)
    }
    expect(actsFor('stick').map(({ act }) => act)).not.toContain('over')
  })

  it('is put in, changed and taken out by edits that leave a combination that can be stored', () => {
    holds(
      fc.property(anyCarrying(), fc.nat(40), fc.nat(20), (one, at, pick) => {
        const [phrase] = one.phrases
        const more = (one.carried?.length ?? 0) < 8 ? addProp('fan', 'Leaf')(one) : one
        const act = {
          id: 'new',
          at: tick(at * 6),
          length: tick(12),
          prop: more.carried?.at(-1)?.id ?? '',
          act: 'swish' as const,
        }
        const added = addAct(phrase!.id, act)(more)
        const moved = changeAct('new', { at: tick(pick * 12), hand: 'L', note: '' })(added)
        for (const each of [added, moved, removeAct('new')(moved)])
          expect(Combination.safeParse(each).error).toBeUndefined()
        const bare = (moved.carried ?? []).reduce<Combination>(
          (now, { id }) => removeProp(id)(now),
          moved,
        )
        expect(JSON.stringify(bare)).not.toMatch(/"carried"|"props"|"pass"/)
        expect(Combination.safeParse(bare).error).toBeUndefined()
      }),
      { numRuns: 100, seed: 742 },
    )
  })
})
