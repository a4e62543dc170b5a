import { z } from 'zod'
import { EASY_HAND } from '../body/hands'
import type { Layer } from '../body/layers'
import { finishPlain, type Read } from '../entry/read'
import type { EntryPlace, Reader } from '../entry/reader'
import type { BodyPart } from '../moves/move'
import { COUNT } from '../time/time'
import type { EntryKind, Kind } from './kind'
import { ANY_PLACES, type PlacePart } from './places'

/** Danced as one likes: on the feet all of the body, on arms or head that part alone. */
export const FreeWhat = z.object({ kind: z.literal('free') }).readonly()
type FreeWhat = z.infer<typeof FreeWhat>

const PARTS: Readonly<Partial<Record<Layer, readonly BodyPart[]>>> = {
  arms: ['armR', 'armL', 'fingersR', 'fingersL'],
  head: ['head'],
}
/** On the feet it is all of the body. */
const ALL: readonly BodyPart[] = [
  'feet',
  'legR',
  'legL',
  'pelvis',
  'ribs',
  ...(PARTS.arms ?? []),
  'head',
]

const PLACES: Readonly<Partial<Record<Layer, readonly PlacePart[]>>> = {
  arms: ['arms', 'hands'],
  head: ['gaze'],
}

export const free: Kind<FreeWhat> = {
  layers: ['feet', 'arms', 'head'],
  repeatsItself: false,
  ownLength: () => COUNT,
  side: () => undefined,
  mirror: (what) => what,
  name: () => 'free',
  claim: (_, { layer }) => ({ kind: 'place', parts: PARTS[layer] ?? ALL, wave: false }),
  leaves: (_, before, { layer }) => {
    const parts = PLACES[layer] ?? ANY_PLACES
    return {
      ...before,
      ...(parts.includes('arms') && {
        arms: { R: 'low', L: 'low' },
        hands: { R: EASY_HAND, L: EASY_HAND },
      }),
      ...(parts.includes('gaze') && { gaze: 'front' as const }),
      free: [...new Set([...(before.free ?? []), ...parts])],
    }
  },
  motion: () => [],
  write: () => 'free',
  say: (_, { layer }) => (layer === 'feet' ? 'free' : `${layer} free`),
}

export const freeEntry: EntryKind<FreeWhat> = {
  words: ['free'],
  read: readFree,
  finish: finishPlain,
}

function readFree(reader: Reader, { layer }: EntryPlace): Read<FreeWhat> | undefined {
  const word = reader.peek()
  if (!free.layers.includes(layer) || word?.quoted || word?.text.toLowerCase() !== 'free')
    return undefined
  reader.take()
  return { what: { kind: 'free' } }
}
