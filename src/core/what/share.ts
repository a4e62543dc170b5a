import { z } from 'zod'
import { Turn } from '../body/feet'
import { negated } from '../body/side'
import { sharedDegrees } from '../entry/options'
import { finishPlain, type Read } from '../entry/read'
import type { Reader } from '../entry/reader'
import { type EntryKind, type Kind, ONCE } from './kind'

/** A turn that the landings of some counts share. */
export const ShareWhat = z
  .object({
    kind: z.literal('share'),
    degrees: Turn.refine((degrees) => degrees !== 0, 'turns nowhere'),
  })
  .readonly()
type ShareWhat = z.infer<typeof ShareWhat>

export const share: Kind<ShareWhat> = {
  layers: ['feet'],
  ...ONCE,
  side: () => undefined,
  mirror: ({ degrees }) => ({ kind: 'share', degrees: negated(degrees) }),
  name: ({ degrees }) => `share ${degrees}°`,
  claim: () => ({ kind: 'steps', parts: [], wave: false }),
  leaves: (_, before) => before,
  motion: () => [],
  write: ({ degrees }) => `share ${degrees}`,
  say: ({ degrees }) =>
    `${Math.abs(degrees)}° to the ${degrees > 0 ? 'right' : 'left'}, shared by these steps`,
}

export const shareEntry: EntryKind<ShareWhat> = {
  words: ['share'],
  read: readShare,
  finish: finishPlain,
}

function readShare(reader: Reader): Read<ShareWhat> | undefined {
  const word = reader.peek()
  if (word?.quoted || word?.text.toLowerCase() !== 'share') return undefined
  reader.take()
  return { what: { kind: 'share', degrees: sharedDegrees(reader) } }
}
