import { describe, expect, it } from 'vitest'
import type { DancerLevel } from '../combination/combination'
import { checkCombination } from '../findings/check'
import { USUAL_HOUSE } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import { readSheet } from '../sheet/readSheet'
import { writeSheet } from '../sheet/writeSheet'
import { levelForm } from './levels'

const formOf = (lines: string, level: DancerLevel, head = 'level advanced') => {
  const { combination, messages } = readSheet(`sway 1\n${head}\nphrase A 8\n${lines}`, vocabulary)
  expect(messages).toEqual([])
  const form = levelForm(combination, level, vocabulary, USUAL_HOUSE)
  const said = writeSheet(form.combination, vocabulary)
    .split('\n')
    .filter((line) => line.startsWith('  '))
    .map((line) => line.trim().replace(/\s+/g, ' '))
  return { ...form, lines: said.join('\n'), combination: form.combination }
}

describe('the version for a level', () => {
  it.each([
    ['D1 flourishes go though the load fits', 'torso ~1-8 shoulder-shimmy', 'new', ''],
    [
      'D1 a plain 8 stays',
      'feet 1 step R side; 2 touch L together',
      'new',
      'feet 1 step R side; 2 touch L together',
    ],
    [
      'D2 a form that brings no word',
      'hips 1-4 hip-circle-large cw easier hip-circle-small',
      'improver',
      'hips 1-4 hip-circle-small cw',
    ],
    [
      'D3 six alike, six eased',
      'hips 1,3,5 hip-lift-drop R easier hip-lift; 2,4,6 hip-lift-drop L easier hip-lift',
      'new',
      'hips 1 hip-lift R; 2 hip-lift L; 3 hip-lift R; 4 hip-lift L; 5 hip-lift R; 6-7 hip-lift L',
    ],
    [
      'D4 the wave stays, the whip goes',
      'torso 5-8 body-wave-up\nhead 5 head-whip',
      'new',
      'torso 5-8 body-wave-up\nhead 5-6 nod',
    ],
    ['D5 back stays back', 'torso 1-4 hinge-back', 'new', 'torso 1-4 lean-back'],
    ['D5 the same way round', 'head 1-4 head-roll cw', 'new', 'head 1-4 head-half-roll L'],
    [
      'D7 arms that are light enough stay',
      'arms 1 R crown, L second',
      'new',
      'arms 1 R crown, L second',
    ],
    [
      'D7 what is kept is never touched',
      'head 1-4 head-roll cw !keep',
      'new',
      'head 1-4 head-roll cw !keep',
    ],
  ] as const)('%s', (_, lines, level, expected) =>
    expect(formOf(lines, level).lines).toBe(expected),
  )

  it('refuses a form that brings a finding the original has not (D2)', () => {
    const lines = 'hips 1-4 hip-circle-large cw easier half-circle-front; 5-6 half-circle-front R'
    const form = formOf(lines, 'new', 'level advanced\ntempo 150')
    expect(form.lines).not.toMatch(/1-4 half-circle-front/)
  })

  it('eases a step that jumps by one that leaves the weight as it was (D6)', () => {
    const leaps = Array.from({ length: 8 }, (_, i) => `${i + 1} leap ${i % 2 ? 'L' : 'R'} side`)
    const { lines, swaps, left } = formOf(`feet ${leaps.join('; ')}`, 'new')
    expect(lines).toMatch(/^feet 1 step R side; 2 step L side/)
    expect(swaps).toHaveLength(1)
    expect(left).toEqual([])
  })

  it('makes two arms alike only where the count is too hard (D7)', () => {
    const heavy =
      'feet 1-8 bhangra-hop R !keep\nhips 1-8 three-quarter-shimmy !keep\narms 1-8 R crown, L second'
    expect(formOf(heavy, 'new', 'level advanced\ntempo 140').lines).toMatch(/both second/)
  })

  it('adds flourishes for a higher level, and replaces nothing (D8)', () => {
    const { lines, swaps } = formOf('hips 5-8 eight-outward R', 'advanced', 'level new\ntempo 90')
    expect(lines).toMatch(/5-8 eight-outward R/)
    expect(lines).toMatch(/~5-8 knee-shimmy/)
    expect(swaps.every(({ kind }) => kind === 'added')).toBe(true)
  })

  it('says what could not be eased (D9), and nothing where all is', () => {
    const turns = formOf(
      'feet 3 close R; 4 step L in-place turn -360',
      'new',
      'level advanced\ntempo 88',
    )
    expect(turns.left.map(({ code }) => code)).toEqual(['turn.too-fast'])
    expect(formOf('feet 1 step R side', 'new').left).toEqual([])
  })

  it('is never said of what the original is not', () => {
    const form = formOf(
      'hips 1-8 three-quarter-shimmy\narms 1-8 snake-arms\nfeet 1-8 walk-forward R',
      'new',
    )
    const before = readSheet(
      'sway 1\nlevel new\nphrase A 8\nhips 1-8 three-quarter-shimmy\narms 1-8 snake-arms\nfeet 1-8 walk-forward R',
      vocabulary,
    ).combination
    const codes = new Set(checkCombination(before, vocabulary).findings.map(({ code }) => code))
    for (const { code } of checkCombination(form.combination, vocabulary).findings)
      expect(codes).toContain(code)
  })
})
