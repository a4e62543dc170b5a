import { expect, it } from 'vitest'
import { combination, feet, move } from '../../../tests/write'
import { vocabulary } from '../moves/vocabulary'
import { type ClassEntry, newClass } from './diary'
import { thingsDanced } from './knows'

it('a group knows what was danced of its phrases, layer by layer, and nothing else', () => {
  const taught = combination(
    [
      [
        ...feet('1 step R side; 2 close L; 3 step R side; 4 touch L together'),
        move('hip-drop', '4', 'L'),
      ],
      [...feet('1 stamp L'), move('knee-shimmy', '1-4')],
    ],
    { id: 'taught' },
  )
  const [first, second] = taught.phrases
  if (!first || !second) throw new Error('no phrases')
  const given = (...danced: readonly Partial<ClassEntry['danced'][number]>[]): ClassEntry => ({
    ...newClass({ id: 'class', date: '2026-01-05', start: '18:00', title: '', minutes: 60 }),
    danced: danced.map((one) => ({
      combination: 'taught',
      phrases: [],
      layers: [],
      tempo: 90,
      rounds: { R: 1, L: 1 },
      counts: 8,
      ...one,
    })) as unknown as ClassEntry['danced'],
  })
  const of = ({ id, name }: typeof first) => ({ id, name })
  const feetOnly = given({ phrases: [of(first)], layers: ['feet'] })
  expect(thingsDanced([feetOnly], [taught], vocabulary)).toEqual([
    'feet close',
    'feet step side',
    'feet touch together',
  ])
  const more = given(
    { phrases: [of(second)], layers: ['hips'] },
    { phrases: [of(first)], layers: ['hips'] },
  )
  expect(thingsDanced([feetOnly, more], [taught], vocabulary)).toEqual([
    'feet close',
    'feet step side',
    'feet touch together',
    'hips hip-drop',
    'hips knee-shimmy',
  ])
  const never = given({ phrases: [of(second)], layers: ['hips'], rounds: { R: 0, L: 0 } })
  expect(thingsDanced([never], [taught], vocabulary)).toEqual([])
  expect(thingsDanced([more], [], vocabulary)).toEqual([])
})
