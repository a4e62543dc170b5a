import { z } from 'zod'

/** How many times as fast as it is written. */
export const Pace = z.union([z.literal(0.5), z.literal(2)])
export type Pace = z.infer<typeof Pace>
