import Papa from 'papaparse'
import { z } from 'zod'
import { ActId, Drape, PropKind, ReadyWord } from '../combination/carried'
import table from '../moves/props.csv?raw'

/** Words parted by bars, each of them one that is known. */
const barred = <T extends z.ZodType>(item: T) =>
  z
    .string()
    .transform((text): readonly z.output<T>[] =>
      z.array(item).parse(text.split('|').filter(Boolean)),
    )

/** One kind of thing that is done with what is carried: one table for rules, ideas, help and drawing. */
const PropActRow = z
  .object({
    act: ActId,
    /** As it is said: `over the head`. */
    name: z.string().min(1),
    kinds: barred(PropKind),
    /** A free hand, a hand on it, both on it, or none in particular. */
    hands: z.enum(['free', 'held', 'both', 'any']),
    /** The drapes it can be begun from; any where nothing is said. */
    from: z.union([z.literal('*').transform(() => undefined), barred(Drape)]),
    /** Where the cloth is then: as it was, the other of two, round the body, or a drape. */
    to: z.union([z.enum(['*', '=', 'wrap']), Drape]),
    /** Seconds it takes (h). */
    seconds: z.coerce.number().min(0).max(3),
    ready: z
      .string()
      .transform((text) => text || undefined)
      .pipe(ReadyWord.optional()),
    feel: z.string(),
    watch: z.string(),
  })
  .readonly()
export type PropActRow = z.infer<typeof PropActRow>

/** All of them, in the order of the table. @throws Error that names a row that is wrong. */
export const PROP_ACTS: readonly PropActRow[] = Papa.parse<Record<string, string>>(table, {
  header: true,
  skipEmptyLines: true,
}).data.map((row) => {
  const read = PropActRow.safeParse(row)
  if (!read.success) throw new Error(`table of props, ${row.act}: ${read.error.message}`)
  return read.data
})
