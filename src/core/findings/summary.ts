import { z } from 'zod'
import { type Combination, DancerLevel } from '../combination/combination'
import { USUAL_HOUSE } from '../house/house'
import { Family } from '../moves/move'
import type { Vocabulary } from '../moves/vocabulary'
import { folded } from '../record/folded'
import { Stretch, weightStretches } from '../simulate/weightStretches'
import { Tempo } from '../time/tempo'
import { TICKS_PER_COUNT, Tick } from '../time/time'
import { faultsOf } from './faults'

/** Goes up when a summary holds something new: older ones are made again from their combination. */
export const SUMMARY_VERSION = 3

/** What a shelf shows of a combination without opening it. */
export const Summary = z
  .object({
    schemaVersion: z.literal(SUMMARY_VERSION),
    title: z.string(),
    families: z.array(Family).readonly(),
    level: DancerLevel,
    tempo: Tempo,
    counts: z.number(),
    faults: z.int(),
    repeats: z.boolean(),
    switches: z.boolean(),
    /** The combination this is the form of for another level. */
    variantOf: z.string().optional(),
    /** The weight from start to end: the face of the combination. */
    weight: z.array(Stretch).readonly(),
    phrases: z.array(z.object({ at: Tick, name: z.string() }).readonly()).readonly(),
    /** All that a search looks at, folded. */
    words: z.string(),
  })
  .readonly()
export type Summary = z.infer<typeof Summary>

/** Ticks in which the ribbon of a face comes from where the weight was. */
const LEAD_IN = 2

export function summaryOf(
  combination: Combination,
  vocabulary: Vocabulary,
  house = USUAL_HOUSE,
): Summary {
  const { title, families, tempo, level = house.level, tags = [], song = '', by = '' } = combination
  const { lead, joins, faults } = faultsOf(combination, vocabulary, house)
  return {
    schemaVersion: SUMMARY_VERSION,
    title,
    families,
    level,
    tempo,
    counts: lead.length / TICKS_PER_COUNT,
    faults: faults.length,
    repeats: joins.repeats,
    switches: joins.switches,
    ...(combination.variantOf !== undefined && { variantOf: combination.variantOf }),
    weight: weightStretches(lead, 0, lead.length, LEAD_IN),
    phrases: lead.passes.map(({ at, phrase }) => ({ at, name: phrase.name })),
    words: folded([title, ...families, level, ...tags, song, by].join(' ')),
  }
}

/** What a shelf is searched for. */
export interface Wish {
  readonly text: string
  readonly family?: Family | undefined
  readonly level?: DancerLevel | undefined
  /** Only those that change sides by themselves. */
  readonly switches: boolean
}

/** Whether a summary is what is looked for: every word somewhere, each filter met. */
export function matches(summary: Summary, { text, family, level, switches }: Wish): boolean {
  if (family && !summary.families.includes(family)) return false
  if (level && summary.level !== level) return false
  if (switches && !summary.switches) return false
  return folded(text)
    .split(/\s+/)
    .every((word) => summary.words.includes(word))
}
