import { z } from 'zod'
import { Gaze, mirrorGaze } from '../body/places'
import { sideWord } from '../body/side'
import { readMotion } from '../moves/motion'
import type { Kind } from './kind'
import { sideAtEnd } from './sideAtEnd'

/** The head turns to where it looks, and stays. */
export const LookWhat = z.object({ kind: z.literal('look'), gaze: Gaze }).readonly()
type LookWhat = z.infer<typeof LookWhat>

export const look: Kind<LookWhat> = {
  layers: ['head'],
  side: ({ gaze }) => sideAtEnd(gaze),
  mirror: (what) => ({ ...what, gaze: mirrorGaze(what.gaze) }),
  name: ({ gaze }) => gazeName[gaze],
  claim: () => ({ kind: 'place', parts: ['head'], wave: false }),
  leaves: ({ gaze }, before) => ({ ...before, gaze }),
  motion: ({ gaze }) => readMotion(`to(${gaze.replace('over-', 'shoulder-')})`),
  write: ({ gaze }) => `look ${gazeText(gaze)}`,
  say: ({ gaze }) => gazeName[gaze],
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
}
