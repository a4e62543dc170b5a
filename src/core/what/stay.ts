import { z } from 'zod'
import { finishPlain, type Read } from '../entry/read'
import type { EntryPlace, Reader } from '../entry/reader'
import { type EntryKind, type Kind, ONCE } from './kind'

/** A part of the body that is to stay as it is, whatever else is danced: it is checked, and claims nothing. */
export const StayWhat = z.object({ kind: z.literal('stay') }).readonly()
type StayWhat = z.infer<typeof StayWhat>

const STAYING = {
  feet: 'feet stay',
  legs: 'legs stay',
  hips: 'hips stay',
  torso: 'body stays',
  arms: 'arms stay',
  head: 'head stays',
} as const

export const stay: Kind<StayWhat> = {
  layers: ['legs', 'hips', 'torso', 'arms', 'head'],
  ...ONCE,
  side: () => undefined,
  mirror: (what) => what,
  name: (_, { layer }) => STAYING[layer],
  claim: () => ({ kind: 'place', parts: [], wave: false }),
  leaves: (_, before) => before,
  motion: () => [],
  write: () => 'stay',
  say: (_, { layer }) => `the ${STAYING[layer]}`,
}

export const stayEntry: EntryKind<StayWhat> = {
  words: ['stay'],
  read: readStay,
  finish: finishPlain,
}

function readStay(reader: Reader, { layer }: EntryPlace): Read<StayWhat> | undefined {
  const word = reader.peek()
  const said = word?.text.toLowerCase()
  if (!stay.layers.includes(layer) || word?.quoted || (said !== 'stay' && said !== 'stays'))
    return undefined
  reader.take()
  return { what: { kind: 'stay' } }
}
