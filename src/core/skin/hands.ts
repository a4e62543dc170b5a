import type { HandShape } from '../body/hands'
import type { FingerName } from './rest'

/** The shapes a hand has by itself: as it hangs, reaches out, or is at the head. */
type OwnShape = 'soft' | 'long' | 'flower'

/** How far each finger is bent at its first and its second joint, in radians, and how far they are spread. */
export interface HandBend {
  readonly fingers: Readonly<Record<FingerName, readonly [number, number]>>
  readonly spread: number
}

export const OWN_SHAPES: Readonly<Record<OwnShape, HandBend>> = {
  soft: {
    fingers: {
      index: [0.08, 0.18],
      middle: [0.26, 0.34],
      ring: [0.32, 0.4],
      little: [0.18, 0.3],
      thumb: [0.12, 0.2],
    },
    spread: 0.02,
  },
  long: {
    fingers: {
      index: [0, 0.05],
      middle: [0.03, 0.08],
      ring: [0.04, 0.08],
      little: [0.02, 0.06],
      thumb: [0.02, 0.05],
    },
    spread: -0.01,
  },
  flower: {
    fingers: {
      index: [-0.12, 0.12],
      middle: [0.62, 0.62],
      ring: [0.12, 0.22],
      little: [-0.1, 0.12],
      thumb: [0.45, 0.35],
    },
    spread: 0.07,
  },
}

const closed: readonly [number, number] = [1.45, 1.6]
const straight: readonly [number, number] = [0, 0.02]

/** The shapes a hand is told (h). */
export const TOLD_BENDS: Readonly<Record<Exclude<HandShape, 'soft'>, HandBend>> = {
  flat: {
    fingers: {
      index: straight,
      middle: straight,
      ring: straight,
      little: straight,
      thumb: [0.05, 0],
    },
    spread: -0.02,
  },
  fist: {
    fingers: { index: closed, middle: closed, ring: closed, little: closed, thumb: [0.62, 0.8] },
    spread: -0.02,
  },
  point: {
    fingers: { index: straight, middle: closed, ring: closed, little: closed, thumb: [0.55, 0.75] },
    spread: 0,
  },
  bud: {
    fingers: {
      index: [0.75, 0.55],
      middle: [0.72, 0.55],
      ring: [0.75, 0.55],
      little: [0.8, 0.6],
      thumb: [0.6, 0.35],
    },
    spread: -0.1,
  },
  flower: OWN_SHAPES.flower,
  cup: {
    fingers: {
      index: [0.32, 0.42],
      middle: [0.36, 0.45],
      ring: [0.38, 0.46],
      little: [0.36, 0.44],
      thumb: [0.25, 0.25],
    },
    spread: -0.01,
  },
  spread: {
    fingers: {
      index: straight,
      middle: straight,
      ring: straight,
      little: straight,
      thumb: [-0.25, 0],
    },
    spread: 0.2,
  },
  flexed: {
    fingers: {
      index: [-0.25, 0],
      middle: [-0.25, 0],
      ring: [-0.25, 0],
      little: [-0.25, 0],
      thumb: [-0.1, 0],
    },
    spread: 0.02,
  },
}
