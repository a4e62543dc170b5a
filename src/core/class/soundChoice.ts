import { z } from 'zod'
import { type Upgrade, upgrade } from '../record/upgrade'

const SOUND_VERSION = 3

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
    mix: z
      .object({ click: Loud, half: Loud, rhythm: Loud, voice: Loud, moves: Loud, music: Loud })
      .readonly(),
    /** What is said where nothing else is: words of praise, a slip to watch, “breathe”. */
    extras: z.object({ praise: z.boolean(), watch: z.boolean(), breathe: z.boolean() }).readonly(),
    /** The words of praise, in turn. */
    praise: z.array(z.string().min(1).max(40)).max(12).readonly(),
    /** The browser speaks the cues too; nobody can say when. */
    browserVoice: z.boolean(),
  })
  .readonly()
export type SoundChoice = z.infer<typeof SoundChoice>

/** Nothing more than what must be known, until it is wished for. */
const NO_EXTRAS = {
  extras: { praise: false, watch: false, breathe: false },
  praise: ['yes', 'good', 'lovely'],
} as const

/** How loud a song is beside the voice. */
const USUAL_MUSIC = 0.9

export const USUAL_SOUND: SoundChoice = {
  schemaVersion: SOUND_VERSION,
  rhythm: 'own',
  call: 'rounds',
  countIn: 4,
  mix: { click: 0.5, half: 0.3, rhythm: 0.8, voice: 1, moves: 0, music: USUAL_MUSIC },
  ...NO_EXTRAS,
  browserVoice: false,
}

/** Before version 2 nothing was said but numbers and cues, before 3 there was no music. */
const UPGRADES: readonly Upgrade[] = [
  { from: 1, up: (choice) => ({ ...NO_EXTRAS, ...choice }) },
  {
    from: 2,
    up: (choice) => ({ ...choice, mix: { ...(choice.mix as object), music: USUAL_MUSIC } }),
  },
]

/**
 * Reads what was chosen before.
 * @throws UserError or ZodError when it is of a newer version, or damaged.
 */
export const readSoundChoice = (record: Record<string, unknown>): SoundChoice =>
  SoundChoice.parse(upgrade(record, SOUND_VERSION, UPGRADES))
