import { describe, expect, it } from 'vitest'
import { combination, feet, move, on } from '../../../tests/write'
import type { Combination } from '../combination/combination'
import { mirror } from '../combination/mirror'
import { vocabulary } from '../moves/vocabulary'
import { checkCombination } from './check'
import { severityOf } from './finding'
import { findingText, spotText } from './findingText'

const clean = '1 step R side; 2 touch L together; 3 step L side; 4 touch R together'
const check = (written: Combination) => checkCombination(written, vocabulary)
const codes = (written: Combination) =>
  check(written).findings.map((f) => `${severityOf(f)} ${f.code} ${spotText(f.spot)}`)

describe('what is found', () => {
  it('says where a foot is asked for that carries the weight', () => {
    const written = combination([
      feet('1 step R side; 2 step R side; 3 close L; 4 touch L together'),
    ])
    expect(codes(written)).toContain('fault feet.loaded A2')
    expect(codes(written)).toContain('fault feet.loaded-touch A4')
    expect(codes(combination([feet(clean)]))).toEqual(['note join.foot A4'])
  })

  it('names the time round on which a repeated phrase breaks', () => {
    const written = combination([feet('1 step R side; 2 close L; 3 step R side')], {
      order: [
        { phrase: 'A', mirrored: false },
        { phrase: 'A', mirrored: false },
      ],
    })
    expect(codes(written)[0]).toBe('fault feet.loaded A1, second time')
    const turned = { ...written, order: [written.order[0]!, { phrase: 'A', mirrored: true }] }
    expect(codes(turned)).toEqual(['note join.foot A3, second time'])
  })

  it.each([
    ['two paths', [move('hip-sway', '1-2', 'R'), move('hip-circle-small', '2')], ['fault A2']],
    ['a texture over a path', [move('hip-circle-small', '1'), move('knee-shimmy', '1-4')], []],
    [
      'two textures',
      [move('shoulder-shimmy', '1-4'), move('bhangra-shoulders', '3-6')],
      ['fault A3'],
    ],
    [
      'an accent on a place not reached yet',
      [on('hips', '1-4', { kind: 'at', place: 'R' }), move('hip-bump', '4', 'L')],
      [],
    ],
    [
      'an accent on a place reached',
      [on('hips', '1-4', { kind: 'at', place: 'R' }), move('hip-bump', '5', 'L')],
      [],
    ],
    [
      'only the waist shared',
      [move('hip-twist', '1', 'R'), on('torso', '1', { kind: 'at', place: 'R' })],
      [],
    ],
    [
      'a wave that takes the head along',
      [move('body-wave-down', '1-4'), on('head', '2', { kind: 'look', gaze: 'L' })],
      [],
    ],
    [
      'one arm each',
      [on('arms', '1', { kind: 'arms', R: 'crown' }), on('arms', '1', { kind: 'arms', L: 'low' })],
      [],
    ],
    ['one hand twice', [move('flower-hand', '1', 'L'), move('hand-ripple', '1-4')], []],
    [
      'one arm twice',
      [on('arms', '1', { kind: 'arms', R: 'crown' }), move('snake-arms', '1', 'R')],
      ['fault A1'],
    ],
    [
      'two steps on one count',
      [...feet('1 step R side'), ...feet('1 touch L side').map((e) => ({ ...e, id: 'x' }))],
      ['fault A1'],
    ],
    ['a rise with a step', feet('1 step R side; 1 rise'), []],
    [
      'a step inside a figure',
      [move('grapevine', '1-4', 'R'), ...feet('3& touch L side')],
      ['fault A3&'],
    ],
  ])('judges %s', (_, events, expected) => {
    const clashes = check(combination([events])).findings.filter((f) => f.code === 'layer.clash')
    expect(clashes.map((f) => `${severityOf(f)} ${spotText(f.spot)}`)).toEqual(expected)
  })

  it.each([
    ['step-touch', '1 step R side; 2 touch L together', { repeats: false, switches: true }],
    ['two step-touches', clean, { repeats: true, switches: false }],
    ['weight on both', '1 step R side; 2 centre', { repeats: true, switches: true }],
    [
      'the next step needs a foot on the floor',
      '1 sway R; 2 sway L; 3 lift R',
      { repeats: false, switches: false },
    ],
  ])('says how the end meets what follows: %s', (_, pattern, joins) => {
    expect(check(combination([feet(pattern)])).joins).toEqual(joins)
    expect(check(mirror(combination([feet(pattern)]))).joins).toEqual(joins)
  })

  it('says on which side keeping a step breaks the weight, and finds the same from either side', () => {
    const written = combination([
      feet(clean).map((e, i) => (i === 2 ? { ...e, kept: true as const } : e)),
    ])
    const [first] = check(written).findings
    expect(first).toMatchObject({ side: 'other', code: 'feet.loaded' })
    expect(findingText(first!)).toMatch(/^On the other side: .*left foot/)
    expect(check(mirror(written)).findings[0]).toMatchObject({ side: 'lead', code: 'feet.loaded' })
  })

  it('notes a figure that does not fill its range, and a move nobody knows', () => {
    const short = { ...move('grapevine', '1-3', 'R'), id: 'short' }
    const strange = on('hips', '5', { kind: 'move', move: 'mystery' })
    expect(codes(combination([[short, strange]]))).toEqual(
      expect.arrayContaining(['note move.remainder A1', 'note move.unknown A5']),
    )
  })

  it('has a sentence for everything, with what to do', () => {
    const written = combination([
      [
        ...feet('1 step L side; 2 touch L side; 3 hop L; 4 lift L; 5 sway R; 6 centre; 7 pivot 90'),
        move('hip-sway', '1', 'R'),
        move('hip-circle-small', '1'),
      ],
    ])
    for (const finding of check(written).findings) {
      expect(findingText(finding)).toMatch(/^[“A-Z].{20,}[.]$/)
      expect(findingText(finding)).not.toMatch(/undefined|NaN|\bnull\b/)
    }
    expect(check(written).findings.length).toBeGreaterThanOrEqual(6)
  })
})
