import { z } from 'zod'
import { Gaze, mirrorGaze } from '../body/places'
import { sideAtEnd, sideWord } from '../body/side'
import { finishPlain, type Read } from '../entry/read'
import { EntryProblem, type Reader, sideIn } from '../entry/reader'
import { isHeadPlace } from '../moves/motion'
import { type EntryKind, type Kind, ONCE } from './kind'

/** The head turns to where it looks, and stays. */
export const LookWhat = z.object({ kind: z.literal('look'), gaze: Gaze }).readonly()
type LookWhat = z.infer<typeof LookWhat>

export const look: Kind<LookWhat> = {
  layers: ['head'],
  ...ONCE,
  side: ({ gaze }) => sideAtEnd(gaze),
  mirror: (what) => ({ ...what, gaze: mirrorGaze(what.gaze) }),
  name: ({ gaze }) => gazeName[gaze],
  claim: () => ({ kind: 'place', parts: ['head'], wave: false }),
  leaves: ({ gaze }, before) => ({ ...before, gaze }),
  motion({ gaze }) {
    const place = gaze.replace('over-', 'shoulder-')
    if (!isHeadPlace(place)) throw new Error(`no motion leads the head to ${place}`)
    return [{ verb: 'to', place }]
  },
  write: ({ gaze }) => `look ${gazeText(gaze)}`,
  say: ({ gaze }) => gazeName[gaze],
}

export const lookEntry: EntryKind<LookWhat> = {
  words: ['look'],
  read: readLook,
  finish: finishPlain,
}

/** As a count sheet has it: `over R`. */
export const gazeText = (gaze: Gaze): string => gaze.replace('-', ' ')

export const gazeName: Readonly<Record<Gaze, string>> = {
  front: 'look front',
  R: `look ${sideWord.R}`,
  L: `look ${sideWord.L}`,
  up: 'look up',
  down: 'look down',
  'over-R': 'look over R shoulder',
  'over-L': 'look over L shoulder',
  'hand-R': 'look at R hand',
  'hand-L': 'look at L hand',
  'tilt-R': 'head tilted R',
  'tilt-L': 'head tilted L',
  'corner-R': 'look to the right front corner',
  'corner-L': 'look to the left front corner',
  'back-R': 'look back over the right shoulder',
  'back-L': 'look back over the left shoulder',
  'down-R': 'look down to the right foot',
  'down-L': 'look down to the left foot',
  hand: 'look at the hand that moves',
  audience: 'look at the audience',
  partner: 'look at the partner',
}

const GAZE_WORDS = [
  'front',
  'R',
  'L',
  'up',
  'down',
  'over R',
  'hand R',
  'tilt R',
  'corner R',
  'back R',
  'down R',
  'hand',
  'audience',
  'partner',
]

function readLook(reader: Reader): Read<LookWhat> | undefined {
  if (reader.peek()?.text !== 'look') return undefined
  const to = (gaze: Gaze, words: number): Read<LookWhat> => {
    reader.skip(words)
    return { what: { kind: 'look', gaze } }
  }
  const way = reader.peek(1)
  if (!way) {
    reader.take()
    reader.need(`where to: ${GAZE_WORDS.join(', ')}`)
  }
  if (!way) return undefined
  const side = sideIn(way)
  if (side) return to(side, 2)
  const plain = Gaze.safeParse(way.text.toLowerCase())
  const two = sideIn(reader.peek(2))
  const sided = two && Gaze.safeParse(`${way.text.toLowerCase()}-${two}`)
  if (sided?.success) return to(sided.data, 3)
  if (plain.success) return to(plain.data, 2)
  throw new EntryProblem(`Nobody can look “${way.text}”. Write look ${GAZE_WORDS.join(', ')}.`, way)
}
