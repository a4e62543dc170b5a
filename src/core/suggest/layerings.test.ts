import { describe, expect, it } from 'vitest'
import { demo } from '../../../tests/demo'
import { combination } from '../../../tests/write'
import { SIDES } from '../body/side'
import type { Event } from '../combination/combination'
import { onSide, whatOf } from '../combination/whatOf'
import { checkCombination } from '../findings/check'
import { severityOf } from '../findings/finding'
import { withLayerings, withoutLayering } from '../house/layerings'
import { vocabulary } from '../moves/vocabulary'
import { readSheet } from '../sheet/readSheet'
import { COUNT, tick } from '../time/time'
import { layeringsIn, layeringsOf, USUAL_LAYERINGS } from './layerings'

const moveOf = (thing: string) => vocabulary.find(thing.split(' ')[1] ?? '')

describe('the usual layerings', () => {
  it.each(
    USUAL_LAYERINGS.map(
      (layering) => [`${layering.family}: ${layering.with} over ${layering.on}`, layering] as const,
    ),
  )('%s can be danced together as it is usually danced', (_, { family, on, with: over }) => {
    const [under, its] = [moveOf(on), moveOf(over)]
    if (!under || !its) throw new Error('no such move')
    expect([`${under.layer} ${under.id}`, `${its.layer} ${its.id}`]).toEqual([on, over])
    const places = Array.from({ length: Math.ceil(under.length / COUNT) }, (_, i) => i * COUNT)
    const ways = SIDES.flatMap((side) => places.map((at) => ({ side, at })))
    const isClean = ways.some(({ side, at }) => {
      const base: Event = { id: 'on', layer: under.layer, at: tick(0), what: whatOf(under) }
      const upper: Event = {
        id: 'over',
        layer: its.layer,
        at: tick(at),
        what: onSide(whatOf(its), side),
      }
      const made = combination([[base, upper]], { families: [family], tempo: 96 })
      return !checkCombination(made, vocabulary).findings.some(
        (one) => severityOf(one) !== 'note' && !one.code.startsWith('join.'),
      )
    })
    expect(isClean).toBe(true)
  })
})

describe('her own layerings', () => {
  const [usual] = USUAL_LAYERINGS
  if (!usual) throw new Error('there are none')
  const own = { family: 'belly', on: 'feet grapevine', with: 'hips vibration' }

  it('stand beside the usual ones, which she can drop and take back', () => {
    const added = withLayerings(withLayerings(undefined, [own]), [own])
    expect(layeringsOf(added)).toEqual([...USUAL_LAYERINGS, own])
    const without = withoutLayering(withoutLayering(added, own), usual)
    expect(layeringsOf(without)).toEqual(USUAL_LAYERINGS.slice(1))
    expect(new Set(layeringsOf(withLayerings(without, [usual])))).toEqual(
      new Set([usual, ...USUAL_LAYERINGS.slice(1)]),
    )
  })

  it('are what lies over each other in two of her phrases, of the families she named', () => {
    const phrase = (name: string, hips: string) =>
      `phrase ${name} 8\n feet 1-4 grapevine; 5-8 grapevine\n hips 1-4 ${hips}\n arms 1 both second`
    const written = (...phrases: readonly string[]) =>
      readSheet(`sway 1\nfamily belly, latin\ntempo 96\n${phrases.join('\n')}`, vocabulary)
        .combination
    const both = written(
      phrase('A', 'vibration'),
      phrase('B', 'vibration'),
      phrase('C', 'knee-shimmy'),
    )
    expect(layeringsIn([both], vocabulary)).toEqual([own, { ...own, family: 'latin' }])
    // Once here and once there is twice too.
    const apart = [written(phrase('A', 'knee-shimmy')), written(phrase('A', 'knee-shimmy'))]
    expect(layeringsIn(apart, vocabulary).map((layering) => layering.with)).toEqual([
      'hips knee-shimmy',
      'hips knee-shimmy',
    ])
    expect(layeringsIn([written(phrase('A', 'vibration'))], vocabulary)).toEqual([])
  })

  it('are found in the demo, and can be gone by', () => {
    const found = layeringsIn(demo, vocabulary)
    expect(found.length).toBeGreaterThan(0)
    expect(layeringsOf(withLayerings(undefined, found)).length).toBeGreaterThanOrEqual(
      USUAL_LAYERINGS.length,
    )
    console.log(
      `${found.length} layerings in the demo: ${found
        .slice(0, 6)
        .map((layering) => `${layering.with} over ${layering.on}`)
        .join('; ')}`,
    )
  })
})
