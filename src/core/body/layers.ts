import { z } from 'zod'

export const LAYERS = ['feet', 'legs', 'hips', 'torso', 'arms', 'head'] as const
/** What moves, from the floor up. */
export const Layer = z.enum(LAYERS)
export type Layer = z.infer<typeof Layer>
/** The same from the head down, as a body stands. */
export const LAYERS_DOWN = ['head', 'arms', 'torso', 'hips', 'legs', 'feet'] as const
