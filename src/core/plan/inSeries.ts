import { z } from 'zod'

/** Which class of which series something belongs to. */
export const InSeries = z.object({ id: z.string().min(1), day: z.string().min(1) }).readonly()
export type InSeries = z.infer<typeof InSeries>
