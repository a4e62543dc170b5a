import { z } from 'zod'
import { upgrade } from '../record/upgrade'

const SOUND_VERSION = 1

const Loud = z.number().min(0).max(1)

/** What an instructor likes to hear on the floor. */
export const SoundChoice = z
  .object({
    schemaVersion: z.literal(SOUND_VERSION),
    /** Id of a rhythm; `own` for the one of the combination's family, `none` for clicks alone. */
    rhythm: z.string().min(1),
    call: z.enum(['rounds', 'all', 'cues', 'switch', 'none']),
    countIn: z.union([z.literal(4), z.literal(8)]),
    /** Loudness of each, 0 to 1. */
    mix: z.object({ click: Loud, half: Loud, rhythm: Loud, voice: Loud, moves: Loud }).readonly(),
    /** The browser speaks the cues too; nobody can say when. */
    browserVoice: z.boolean(),
  })
  .readonly()
export type SoundChoice = z.infer<typeof SoundChoice>

export const USUAL_SOUND: SoundChoice = {
  schemaVersion: SOUND_VERSION,
  rhythm: 'own',
  call: 'rounds',
  countIn: 4,
  mix: { click: 0.5, half: 0.3, rhythm: 0.8, voice: 1, moves: 0 },
  browserVoice: false,
}

/**
 * Reads what was chosen before.
 * @throws UserError or ZodError when it is of a newer version, or damaged.
 */
export const readSoundChoice = (record: Record<string, unknown>): SoundChoice =>
  SoundChoice.parse(upgrade(record, SOUND_VERSION, []))
