import { z } from 'zod'

/** A finding that is left as it is, and why: the code of its rule, and the instructor's reason. */
export const Leave = z.object({ code: z.string().min(1), because: z.string().min(1) }).readonly()
export type Leave = z.infer<typeof Leave>
