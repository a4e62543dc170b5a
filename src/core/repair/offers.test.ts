import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyCombination } from '../../../tests/arbitraries'
import { casesOf, holds } from '../../../tests/holds'
import { Combination } from '../combination/combination'
import { partOf } from '../combination/partOf'
import { sharing } from '../edits/share'
import { checkCombination } from '../findings/check'
import { type Finding, severityOf } from '../findings/finding'
import { joinStrip } from '../findings/strip'
import { USUAL_HOUSE } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import { readSheet } from '../sheet/readSheet'
import { writeSheet } from '../sheet/writeSheet'
import { repairsFor } from './offers'

const check = (written: Combination) => checkCombination(written, vocabulary)
const faultKeys = (written: Combination) =>
  check(written)
    .findings.filter((one) => severityOf(one) === 'fault')
    .map(({ code, side, spot }) => `${code} ${side} ${spot.phrase} ${spot.at}`)
const sameCause = (a: Finding, b: Finding) =>
  a.code === b.code &&
  a.events[0] === b.events[0] &&
  a.spot.at === b.spot.at &&
  a.spot.phrase === b.spot.phrase

describe('what is offered for a finding of any combination', () => {
  it('is a combination that can be kept, without that finding and without a new fault', () => {
    let offered = 0
    holds(
      fc.property(anyCombination(), fc.nat(), (any, pick) => {
        const { findings } = check(any)
        const finding = findings[pick % Math.max(1, findings.length)]
        if (!finding) return
        let id = 0
        const before = new Set(faultKeys(any))
        for (const { changed, label } of repairsFor(
          any,
          finding,
          vocabulary,
          USUAL_HOUSE,
          () => `new-${id++}`,
        )) {
          offered++
          expect(
            Combination.safeParse(JSON.parse(JSON.stringify(changed))).error,
            label,
          ).toBeUndefined()
          expect(
            faultKeys(changed).filter((key) => !before.has(key)),
            label,
          ).toEqual([])
          if (finding.code !== 'join.foot')
            expect(
              check(changed).findings.filter((one) => sameCause(one, finding)),
              label,
            ).toEqual([])
          // Written down and read again it is still the same.
          const sheet = writeSheet(changed, vocabulary)
          expect(writeSheet(readSheet(sheet, vocabulary).combination, vocabulary)).toBe(sheet)
        }
      }),
      { numRuns: 120, seed: 441 },
    )
    expect(offered).toBeGreaterThan(casesOf(60))
  }, 240_000)

  it('touches only what it changes, once it is compared with what was there', () => {
    holds(
      fc.property(anyCombination(), (any) => {
        const copy = JSON.parse(JSON.stringify(any)) as Combination
        const shared = sharing(any, copy)
        expect(shared).toEqual(any)
        for (const [i, phrase] of shared.phrases.entries()) expect(phrase).toBe(any.phrases[i])
        const [first] = copy.phrases
        if (!first || first.events.length === 0) return
        const changed = {
          ...copy,
          phrases: [{ ...first, events: first.events.slice(1) }, ...copy.phrases.slice(1)],
        }
        const after = sharing(any, changed)
        expect(after).toEqual(changed)
        for (const event of after.phrases[0]?.events ?? [])
          expect(any.phrases[0]?.events).toContain(event)
      }),
      { numRuns: 100, seed: 442 },
    )
  })
})

describe('the strip of joins', () => {
  it('says of every part what the findings say', () => {
    holds(
      fc.property(anyCombination(), (any) => {
        const checked = check(any)
        const strip = (into: 'repeat' | 'switch') =>
          new Map(joinStrip(checked, into).map(({ part, how }) => [part, how]))
        const [repeat, other] = [strip('repeat'), strip('switch')]
        if (checked.lead.danced.length === 0 || any.once) return
        expect(repeat.get('foot') === 'meets').toBe(checked.joins.repeats)
        expect(other.get('foot') === 'meets').toBe(checked.joins.switches)
        for (const part of ['arms', 'hips', 'ribs', 'gaze'] as const) {
          const said = checked.findings.filter(
            ({ code, side }) => code === `join.${part}` && side === 'lead',
          )
          const into = (wanted: 'repeat' | 'switch') =>
            said.some((one) => 'into' in one && (one.into === wanted || one.into === 'both'))
          if (checked.joins.repeats && into('repeat')) expect(repeat.get(part)).not.toBe('meets')
          if (checked.joins.switches && into('switch')) expect(other.get(part)).not.toBe('meets')
          if (checked.joins.repeats && repeat.get(part) === 'misses')
            expect(into('repeat')).toBe(true)
          if (checked.joins.switches && other.get(part) === 'misses')
            expect(into('switch')).toBe(true)
        }
      }),
      { numRuns: 200, seed: 443 },
    )
  })
})

describe('what two dance of their own and alike', () => {
  it.each([
    [
      'later',
      `  feet @1 1 step R side; 2 touch L together
  hips @1 3 hip-drop R; 5 hip-drop R
  feet @2 1& step R side; 2& touch L together
  hips @2 3& hip-drop R; 5& hip-drop R`,
    ],
    [
      'as its image',
      `  hips @1 3 hip-drop R; 5 hip-drop R; 7 hip-drop R
  hips @2 3 hip-drop L; 5 hip-drop L; 7 hip-drop L`,
    ],
  ])('becomes a voice of the one that is danced %s, and both dance on as they did', (_, lines) => {
    const { combination } = readSheet(
      `sway 2
tempo 96
part @1 "Amber" at L 0.5
part @2 "Blue" at R 0.5
phrase A 8
${lines}
`,
      vocabulary,
    )
    const finding = check(combination).findings.find(({ code }) => code === 'pair.unison')
    if (!finding) throw new Error('nothing alike')
    const repair = repairsFor(combination, finding, vocabulary, USUAL_HOUSE, () => 'x').find(
      ({ label }) => label === 'Blue follows Amber',
    )
    if (!repair) throw new Error('no voice')
    expect(repair.changed.phrases[0]?.voices).toMatchObject([{ part: '2', of: '1' }])
    const danced = (one: Combination) =>
      partOf(one, '2').phrases[0]?.events.map(({ at: tick, what, layer }) => ({
        tick,
        what,
        layer,
      }))
    expect(danced(repair.changed)).toEqual(danced(combination))
  })
})
