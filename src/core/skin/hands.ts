import type { FingerName } from './rest'

/** The shapes of a hand the figure knows. */
export type HandShape = 'soft' | 'long' | 'flower'

/** How far each finger is bent at its first and its second joint, in radians, and how far they are spread. */
export interface HandBend {
  readonly fingers: Readonly<Record<FingerName, readonly [number, number]>>
  readonly spread: number
}

export const HAND_SHAPES: Readonly<Record<HandShape, HandBend>> = {
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
