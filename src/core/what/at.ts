import { z } from 'zod'
import type { Layer } from '../body/layers'
import { Compass, compassWord, mirrorCompass } from '../body/places'
import { readMotion } from '../moves/motion'
import type { Kind } from './kind'
import { sideAtEnd } from './sideAtEnd'

/** Hips or ribs go to a place of the compass and stay. */
export const AtWhat = z.object({ kind: z.literal('at'), place: Compass }).readonly()
type AtWhat = z.infer<typeof AtWhat>

const partWord = (layer: Layer): string => (layer === 'torso' ? 'ribs' : 'hips')

export const at: Kind<AtWhat> = {
  layers: ['hips', 'torso'],
  side: ({ place }) => sideAtEnd(place),
  mirror: (what) => ({ ...what, place: mirrorCompass(what.place) }),
  name: ({ place }, { layer }) => `${partWord(layer)} ${compassWord[place]}`,
  claim: (_, { layer }) => ({
    kind: 'place',
    parts: [layer === 'torso' ? 'ribs' : 'pelvis'],
    wave: false,
  }),
  leaves: ({ place }, before, { layer }) =>
    layer === 'torso' ? { ...before, ribs: place } : { ...before, hips: place },
  motion: ({ place }) => readMotion(`to(${place})`),
  write: ({ place }) => `at ${place}`,
  say: ({ place }, { layer }) => `${partWord(layer)} to the ${compassWord[place]}`,
}
