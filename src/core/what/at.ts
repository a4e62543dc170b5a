import { z } from 'zod'
import type { Layer } from '../body/layers'
import { Compass, compassWord, mirrorCompass } from '../body/places'
import { sideAtEnd } from '../body/side'
import { finishPlain, type Read } from '../entry/read'
import { EntryProblem, type Reader } from '../entry/reader'
import { type EntryKind, type Kind, ONCE } from './kind'

/** Hips or ribs go to a place of the compass and stay. */
export const AtWhat = z.object({ kind: z.literal('at'), place: Compass }).readonly()
type AtWhat = z.infer<typeof AtWhat>

const partWord = (layer: Layer): string => (layer === 'torso' ? 'ribs' : 'hips')

export const at: Kind<AtWhat> = {
  layers: ['hips', 'torso'],
  ...ONCE,
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
  motion: ({ place }) => [{ verb: 'to', place }],
  write: ({ place }) => `at ${place}`,
  say: ({ place }, { layer }) => `${partWord(layer)} to the ${compassWord[place]}`,
}

export const atEntry: EntryKind<AtWhat> = {
  words: ['at'],
  read: readAt,
  finish: finishPlain,
}

const PLACES = 'C, R, L, F, B, FR, FL, BR or BL'

function readAt(reader: Reader): Read<AtWhat> | undefined {
  if (reader.peek()?.text !== 'at') return undefined
  reader.take()
  const there = reader.need(`a place of the compass: ${PLACES}`)
  const compass = Compass.safeParse(there.text.toUpperCase())
  if (compass.success) return { what: { kind: 'at', place: compass.data } }
  throw new EntryProblem(`“${there.text}” is no place of the compass. Write ${PLACES}.`, there)
}
