import type { PartKind } from '../beats/parts'
import { bass, hertzOf, plucked, RATE, rattle, reed, seeded, skin } from './instruments'
import { DEMO_SONGS, type DemoId } from './titles'

/** A part of a song that is played here. */
interface Part {
  readonly kind: PartKind
  readonly counts: number
  /** Share of full loudness. */
  readonly loud: number
  readonly hasDrums: boolean
  /** Half tones above the song's own, a bar each. */
  readonly chords: readonly number[]
  /** Steps of its scale, half a count each; a gap where it rests. */
  readonly line: string
  /** Seconds in which nobody counts, in place of its counts' own. */
  readonly waits?: number
}

/** A song as it is written down: invented, like all of the demo. */
interface Score {
  readonly tempo: number
  /** How far the tempo wanders, as a share. */
  readonly drift: number
  /** Seconds that lead into the first count. */
  readonly pickup: number
  /** A count has three parts, or two. */
  readonly parts: 2 | 3
  /** Its own tone, as a key of a piano. */
  readonly key: number
  /** Strokes of a bar of four counts: deep `D`, dry `t`, rattle `x`. */
  readonly drums: readonly string[]
  readonly sections: readonly Part[]
}

const part = (
  kind: PartKind,
  counts: number,
  loud: number,
  chords: readonly number[],
  line: string,
  more: Partial<Part> = {},
): Part => ({ kind, counts, loud, hasDrums: true, chords, line, ...more })

const YARD_VERSE = part(
  'verse',
  32,
  0.72,
  [0, 0, 5, 0, 0, 3, 5, 0],
  '0 2 3 2 0 . 7 5 3 2 0 . . . . .',
)
const YARD_CHORUS = part(
  'chorus',
  32,
  1,
  [8, 3, 5, 0, 8, 3, 7, 0],
  '7 . 8 7 5 7 3 . 5 . 7 5 3 2 0 .',
)
const COPPER_VERSE = part('verse', 32, 0.7, [0, 10, 8, 7, 0, 10, 8, 7], '0 . . 3 . 2 0 . . . . .')
const COPPER_CHORUS = part('chorus', 32, 1, [3, 10, 0, 7, 3, 10, 5, 0], '7 . 8 7 . 5 3 . 5 . 2 .')

const SCORES: Readonly<Record<DemoId, Score>> = {
  'kiln-yard': {
    tempo: 104,
    drift: 0.02,
    pickup: 1.3,
    parts: 2,
    key: 50,
    drums: ['D...t...D.D.t...', 'x.x.x.x.x.x.x.xx'],
    sections: [
      part('intro', 16, 0.5, [0, 0, 5, 0], '. . . .'),
      YARD_VERSE,
      YARD_CHORUS,
      YARD_VERSE,
      YARD_CHORUS,
      part('break', 16, 0.2, [5, 3, 0, 0], '3 . . . 2 . . . 0 . . . . . . .', { hasDrums: false }),
      YARD_CHORUS,
      part('end', 4, 0.6, [0], '0 . . . . . . .', { hasDrums: false }),
    ],
  },
  'slow-copper': {
    tempo: 84,
    drift: 0.008,
    pickup: 0.5,
    parts: 3,
    key: 47,
    drums: ['D....tD..t..', 'x.xx.xx.xx.x'],
    sections: [
      part('intro', 16, 0.5, [0, 0, 8, 7], '. . . . . .'),
      COPPER_VERSE,
      // A bar too many: the chorus begins with a new 1.
      part('verse', 4, 0.6, [7], '5 . . 3 . 2 0 . . . . .'),
      COPPER_CHORUS,
      part('slow', 16, 0.22, [0, 8], '7 . . . . . . . . . . .', { hasDrums: false, waits: 12 }),
      COPPER_CHORUS,
      COPPER_CHORUS,
      part('end', 8, 0.55, [0, 0], '0 . . . . . . . . . . .', { hasDrums: false }),
    ],
  },
}

/** A song that was played here, with what is true of it. */
export interface DemoSong {
  readonly title: string
  readonly samples: Float32Array<ArrayBuffer>
  readonly rate: number
  /** Seconds of every count. */
  readonly counts: readonly number[]
  /** Places of counts at which sections begin. */
  readonly sections: readonly { readonly at: number; readonly kind: PartKind }[]
  /** Places between which nobody counts. */
  readonly silent: readonly { readonly from: number; readonly to: number }[]
}

/** The last tone dies away, in seconds. */
const AFTER = 2.5
/** A wave of the tempo, in counts. */
const WAVE = 64
const BAR = 4

/** When everything of a song is. */
interface Times {
  readonly counts: readonly number[]
  /** The first count of each section. */
  readonly starts: readonly number[]
  readonly silent: DemoSong['silent']
  readonly end: number
}

function timesOf({ sections, tempo, drift, pickup }: Score): Times {
  const counts: number[] = []
  const starts: number[] = []
  const silent: { from: number; to: number }[] = []
  let at = pickup
  for (const { counts: own, waits } of sections) {
    starts.push(counts.length)
    if (waits !== undefined) silent.push({ from: counts.length, to: counts.length + own })
    for (let i = 0; i < own; i++) {
      counts.push(at)
      const wave = Math.sin((2 * Math.PI * counts.length) / WAVE)
      at += waits === undefined ? 60 / (tempo * (1 + drift * wave)) : waits / own
    }
  }
  return { counts, starts, silent, end: at }
}

/** Puts a sound into a song: when, and how loud. */
type Add = (sound: Float32Array, seconds: number, loud: number) => void

/** What a section is played with. */
interface Player {
  readonly score: Score
  readonly add: Add
  /** When a place between counts is. */
  readonly when: (place: number) => number
  readonly random: () => number
}

const LOUD: Readonly<Record<string, number>> = { D: 0.9, t: 0.5, x: 0.16 }

function playDrums({ score, add, when, random }: Player, from: number, loud: number): void {
  const stroke = (sign: string) =>
    sign === 'D'
      ? skin(150, 58, 0.12)
      : sign === 't'
        ? skin(430, 340, 0.04)
        : rattle(random, 0.03, 0.9, 0.004)
  for (const line of score.drums)
    for (const [i, sign] of [...line].entries())
      if (sign !== '.') {
        const strong = (LOUD[sign] ?? 0) * loud * (0.9 + 0.2 * random())
        add(stroke(sign), when(from + (i * BAR) / line.length), strong)
      }
}

function playSection(player: Player, section: Part, first: number, held: number): void {
  const { score, add, when, random } = player
  const { counts, chords, loud, hasDrums, line } = section
  for (let b = 0; b * BAR < counts; b++) {
    const from = first + b * BAR
    const root = score.key + (chords[b % chords.length] as number)
    const long = when(Math.min(first + counts, from + BAR)) - when(from) + held
    for (const step of [0, 7, 12])
      add(reed(hertzOf(root + 12 + step), long * 0.97), when(from), 0.11 * loud)
    if (!hasDrums) continue
    playDrums(player, from, loud)
    for (const place of [from, from + 2])
      add(
        bass(hertzOf(root - 12), 0.9 * (when(place + 1.5) - when(place))),
        when(place),
        0.34 * loud,
      )
  }
  const tones = line.split(' ')
  for (let i = 0; i < counts * score.parts; i++) {
    const step = tones[i % tones.length] ?? '.'
    // Each eighth bar it breathes.
    const breathes = i % (32 * score.parts) >= 30 * score.parts
    if (step !== '.' && !breathes) {
      const tone = plucked(random, hertzOf(score.key + 24 + Number(step)), 0.7)
      add(tone, when(first + i / score.parts), 0.34 * loud)
    }
  }
}

/** Plays an invented song; the very same samples each time. */
export function demoSong(id: DemoId): DemoSong {
  const score = SCORES[id]
  const { sections, pickup, key } = score
  const index = DEMO_SONGS.findIndex((one) => one.id === id)
  const random = seeded(1 + index)
  const { counts, starts, silent, end } = timesOf(score)
  const samples = new Float32Array(Math.ceil((end + AFTER) * RATE))
  const add: Add = (sound, seconds, loud) => {
    const from = Math.max(0, Math.round(seconds * RATE))
    for (let i = 0; i < sound.length && from + i < samples.length; i++)
      samples[from + i] = (samples[from + i] as number) + loud * (sound[i] as number)
  }
  const when = (place: number): number => {
    const at = Math.max(0, Math.min(counts.length - 1, Math.floor(place)))
    const from = counts[at] as number
    return from + (place - at) * ((counts[at + 1] ?? end) - from)
  }
  // What leads in: two steps up to the first tone.
  for (const [i, step] of [-5, -2].entries())
    add(plucked(random, hertzOf(key + 24 + step), 0.5), pickup - (2 - i) * 0.28, 0.3)
  for (const [i, section] of sections.entries()) {
    const held = i === sections.length - 1 ? AFTER - 0.2 : 0
    playSection({ score, add, when, random }, section, starts[i] as number, held)
  }
  const peak = samples.reduce((top, value) => Math.max(top, Math.abs(value)), 0)
  for (let i = 0; i < samples.length; i++)
    samples[i] = 0.85 * Math.tanh((1.3 * (samples[i] as number)) / peak)
  return {
    title: DEMO_SONGS[index]?.title ?? '',
    samples,
    rate: RATE,
    counts,
    sections: sections.map(({ kind }, i) => ({ at: starts[i] as number, kind })),
    silent,
  }
}
