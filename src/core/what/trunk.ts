import { z } from 'zod'
import { mirrorTrunk, ShoulderPlace, shoulderName, TrunkPlace, trunkName } from '../body/places'
import { otherSide, Side, sideAtEnd, sideWord } from '../body/side'
import { finishPlain, type Read } from '../entry/read'
import { EntryProblem, type Reader, sideIn } from '../entry/reader'
import { type EntryKind, type Kind, ONCE } from './kind'

/** The trunk goes to a place and stays there: the ribs are free for accents. */
export const TrunkWhat = z.object({ kind: z.literal('trunk'), place: TrunkPlace }).readonly()
type TrunkWhat = z.infer<typeof TrunkWhat>

export const trunk: Kind<TrunkWhat> = {
  layers: ['torso'],
  ...ONCE,
  side: ({ place }) => sideAtEnd(place),
  mirror: ({ place }) => ({ kind: 'trunk', place: mirrorTrunk(place) }),
  name: ({ place }) => trunkName[place],
  claim: () => ({ kind: 'place', parts: ['waist'], wave: false }),
  leaves: ({ place }, before) => ({ ...before, trunk: place }),
  motion: () => [],
  write: ({ place }) => `at ${place.replace('-', ' ')}`,
  say: ({ place }) => trunkName[place],
}

export const trunkEntry: EntryKind<TrunkWhat> = {
  words: ['at'],
  read: readTrunk,
  finish: finishPlain,
}

/** `at forward`, `at twist R`; a place of the compass is the ribs'. */
function readTrunk(reader: Reader): Read<TrunkWhat> | undefined {
  const way = reader.peek(1)
  if (reader.peek()?.text !== 'at' || !way || way.quoted) return undefined
  const side = sideIn(reader.peek(2))
  const sided = TrunkPlace.safeParse(`${way.text.toLowerCase()}-${side}`)
  const plain = TrunkPlace.safeParse(way.text.toLowerCase())
  const found = side && sided.success ? sided : plain
  if (!found.success) {
    if (SIDED.has(way.text.toLowerCase()))
      throw new EntryProblem(`Say to which side: at ${way.text} R, or at ${way.text} L.`, way)
    return undefined
  }
  reader.skip(found === sided ? 3 : 2)
  return { what: { kind: 'trunk', place: found.data } }
}

const SIDED: ReadonlySet<string> = new Set(['twist', 'tip'])

/** One shoulder goes to a place and stays there. */
export const ShoulderWhat = z
  .object({ kind: z.literal('shoulder'), side: Side, place: ShoulderPlace })
  .readonly()
type ShoulderWhat = z.infer<typeof ShoulderWhat>

export const shoulder: Kind<ShoulderWhat> = {
  layers: ['torso'],
  ...ONCE,
  side: ({ side }) => side,
  mirror: (what) => ({ ...what, side: otherSide[what.side] }),
  name: ({ side, place }) => `shoulder ${side} ${place}`,
  claim: () => ({ kind: 'place', parts: ['shoulders'], wave: false }),
  leaves: ({ side, place }, before) => ({
    ...before,
    shoulders: { ...before.shoulders, [side]: place },
  }),
  motion: () => [],
  write: ({ side, place }) => `shoulder ${side} ${place}`,
  say: ({ side, place }) => `${sideWord[side]} shoulder ${shoulderName[place]}`,
}

export const shoulderEntry: EntryKind<ShoulderWhat> = {
  words: ['shoulder'],
  read: readShoulder,
  finish: finishPlain,
}

/** `shoulder L back`; a move whose name begins so is read as that. */
function readShoulder(reader: Reader): Read<ShoulderWhat> | undefined {
  const side = sideIn(reader.peek(1))
  const way = reader.peek(2)
  if (reader.peek()?.text !== 'shoulder' || !side || !way || way.quoted) return undefined
  const place = ShoulderPlace.safeParse(way.text.toLowerCase())
  if (!place.success)
    throw new EntryProblem(
      `“${way.text}” is no place for a shoulder. Write ${ShoulderPlace.options.join(', ')}.`,
      way,
    )
  reader.skip(3)
  return { what: { kind: 'shoulder', side, place: place.data } }
}
