import {
  bass,
  hertzOf,
  plucked,
  RATE,
  rattle,
  reed,
  seeded,
  skin,
  sung,
} from '../../src/core/demoSongs/instruments'

/** A made-up song with all that is true of it, in seconds. */
export interface Piece {
  readonly name: string
  readonly samples: Float32Array
  readonly rate: number
  readonly seconds: number
  readonly beats: readonly number[]
  readonly bars: readonly number[]
  readonly ones: readonly number[]
  readonly sections: readonly { readonly at: number; readonly kind: string }[]
}

/** How a style is played: for each instrument its places in a bar, in parts of a count, and how strong. */
interface Style {
  /** Counts of a bar. */
  readonly bar: number
  readonly drums: readonly (readonly [string, number, number])[]
  readonly bass: readonly (readonly [number, number, number])[]
  readonly tempo: readonly [number, number]
  /** How late every second half count is, in parts of a count. */
  readonly swing?: number
}

const T = 1 / 3
export const STYLES: Readonly<Record<string, Style>> = {
  drum4: {
    bar: 4,
    tempo: [88, 128],
    drums: [
      ['deep', 0, 1],
      ['dry', 0.5, 0.5],
      ['dry', 1.5, 0.6],
      ['deep', 2, 0.9],
      ['dry', 3, 0.8],
      ['rattle', 0, 0.3],
      ['rattle', 1, 0.3],
      ['rattle', 2, 0.3],
      ['rattle', 3, 0.3],
    ],
    bass: [
      [0, 1.5, 0],
      [2, 1.5, 7],
    ],
  },
  swung4: {
    bar: 4,
    tempo: [92, 138],
    swing: 0.16,
    drums: [
      ['deep', 0, 0.9],
      ['clap', 1, 0.8],
      ['deep', 2, 0.8],
      ['deep', 2.5, 0.5],
      ['clap', 3, 0.8],
      ...[0, 0.5, 1, 1.5, 2, 2.5, 3, 3.5].map((at): [string, number, number] => [
        'rattle',
        at,
        at % 1 === 0 ? 0.4 : 0.28,
      ]),
    ],
    bass: [
      [0, 1, 0],
      [1, 0.8, 4],
      [2, 1, 7],
      [3, 0.8, 4],
    ],
  },
  twelve: {
    bar: 4,
    tempo: [76, 112],
    drums: [
      ['deep', 0, 1],
      ['dry', 2 * T, 0.4],
      ['clap', 1, 0.7],
      ['deep', 1 + 2 * T, 0.5],
      ['deep', 2, 0.8],
      ['clap', 3, 0.7],
      ['dry', 3 + T, 0.4],
      ...Array.from({ length: 12 }, (_, i): [string, number, number] => [
        'rattle',
        i * T,
        i % 3 === 0 ? 0.35 : 0.2,
      ]),
    ],
    bass: [
      [0, 1.6, 0],
      [2, 1, 7],
      [3, 0.6, 5],
    ],
  },
  waltz: {
    bar: 3,
    tempo: [96, 150],
    drums: [
      ['deep', 0, 1],
      ['dry', 1, 0.5],
      ['dry', 2, 0.55],
      ['rattle', 1, 0.3],
      ['rattle', 2, 0.3],
    ],
    bass: [[0, 2, 0]],
  },
  march2: {
    bar: 4,
    tempo: [104, 150],
    drums: [
      ['deep', 0, 1],
      ['clap', 0.75, 0.6],
      ['deep', 1, 0.8],
      ['clap', 1.5, 0.7],
      ['deep', 2, 0.9],
      ['clap', 2.75, 0.6],
      ['deep', 3, 0.8],
      ['clap', 3.5, 0.7],
    ],
    bass: [
      [0, 0.7, 0],
      [1.5, 0.4, 0],
      [2, 0.7, 0],
      [3.5, 0.4, 7],
    ],
  },
  slow: {
    bar: 4,
    tempo: [64, 92],
    drums: [
      ['deep', 0, 0.7],
      ['rattle', 1, 0.4],
      ['deep', 2.5, 0.4],
      ['rattle', 3, 0.5],
    ],
    bass: [
      [0, 2.6, 0],
      [3, 0.9, 7],
    ],
  },
}

/** What is done to a piece beside its style. */
export interface Twists {
  readonly seed: number
  /** How far the tempo wanders, and from what it grows to what, as shares. */
  readonly wander?: number
  readonly ramp?: number
  /** Counts that lead into the first bar. */
  readonly pickup?: number
  /** A bar too many at the end of every such section. */
  readonly tag?: boolean
  /** Without drums for a passage. */
  readonly hush?: boolean
  /** Seconds each note is early or late. */
  readonly loose?: number
  readonly counts?: number
}

interface Section {
  readonly kind: 'intro' | 'verse' | 'chorus' | 'break' | 'end'
  readonly bars: number
}

const CHORDS = [
  [0, 8, 3, 10],
  [0, 5, 8, 7],
  [0, 3, 5, 7],
  [0, 0, 5, 7],
  [0, 10, 8, 7],
]

/** Plays a song of one style. */
export function play(name: string, styleName: string, twists: Twists): Piece {
  const style = STYLES[styleName] as Style
  const {
    seed,
    wander = 0,
    ramp = 0,
    pickup = 0,
    tag = false,
    hush = false,
    loose = 0.004,
  } = twists
  const random = seeded(seed)
  const bell = () => (random() + random() + random() - 1.5) / 0.75
  const { bar } = style
  const tempo = style.tempo[0] + random() * (style.tempo[1] - style.tempo[0])
  const form = formOf(random, tag, hush)
  const bars = form.reduce((sum, section) => sum + section.bars, 0)
  const total = Math.min(bars * bar, twists.counts ?? bars * bar)
  // Counts in seconds: a tempo that wanders and grows.
  const beats: number[] = []
  let at = 0.35 + random() * 0.5 + (pickup * 60) / tempo
  let off = 0
  for (let i = 0; i <= total; i++) {
    beats.push(at)
    off = 0.9 * off + 0.1 * bell()
    at += 60 / (tempo * (1 + wander * off * 3) * (1 + (ramp * i) / total))
  }
  const seconds = (beats.at(-1) as number) + 1
  const samples = new Float32Array(Math.ceil((seconds + 3) * RATE))
  const when = (count: number) => {
    if (count < 0) return (beats[0] as number) + (count * 60) / tempo
    const low = Math.min(beats.length - 2, Math.floor(count))
    const share = count - low
    const a = beats[low] as number
    return a + share * ((beats[low + 1] as number) - a)
  }
  const add = (sound: Float32Array, count: number, strong: number) => {
    const half = (count * 2) % 2
    const late = style.swing && Math.abs(half - 1) < 0.01 ? style.swing : 0
    const from = Math.round((when(count + late) + loose * bell()) * RATE)
    for (let i = 0; i < sound.length && from + i < samples.length; i++)
      if (from + i >= 0)
        samples[from + i] = (samples[from + i] as number) + (sound[i] as number) * strong
  }
  const kit: Readonly<Record<string, () => Float32Array>> = {
    deep: () => skin(160, 55 + 10 * random(), 0.11),
    dry: () => skin(420, 330, 0.035),
    clap: () => rattle(random, 0.05, 0.55),
    rattle: () => rattle(random, 0.03, 0.9, 0.006),
    crash: () => rattle(random, 0.35, 0.8),
  }
  const hit = (drum: string, count: number, strong: number) =>
    add((kit[drum] as () => Float32Array)(), count, strong * (0.85 + 0.3 * random()))
  const root = 45 + Math.floor(random() * 10)
  const minor = random() < 0.6 ? 3 : 4
  const chords = CHORDS[Math.floor(random() * CHORDS.length)] as number[]
  const slowChords = random() < 0.4 ? 2 : 1
  const long = (count: number, length: number) => Math.max(0.08, when(count + length) - when(count))
  let first = 0
  const sections: { at: number; kind: string }[] = []
  const ones: number[] = []
  const barStarts: number[] = []
  for (const { kind, bars: own } of form) {
    if (first >= total) break
    sections.push({ at: when(first), kind })
    const hasDrums = kind !== 'break' && (kind !== 'end' || own > 1)
    const hasBass = kind === 'verse' || kind === 'chorus' || kind === 'end'
    const strong = kind === 'chorus' ? 1.15 : kind === 'intro' ? 0.75 : 0.95
    if (kind === 'chorus') hit('crash', first, 0.5)
    for (let b = 0; b < own; b++) {
      const start = first + b * bar
      if (start >= total) break
      barStarts.push(when(start))
      if (b % 2 === 0) ones.push(when(start))
      const chord = root + (chords[Math.floor(b / slowChords) % 4] as number)
      const isFill = b === own - 1 && hasDrums && random() < 0.7
      if (hasDrums)
        for (const [drum, place, loud] of style.drums)
          if (random() > 0.04 && !(isFill && place >= bar - 1))
            hit(drum, start + place, loud * strong)
      if (isFill) for (let k = 0; k < 4; k++) hit('dry', start + bar - 1 + k / 4, 0.5 + 0.1 * k)
      if (hasBass)
        for (const [place, length, step] of style.bass)
          add(bass(hertzOf(chord - 12 + step), long(start + place, length)), start + place, 0.3)
      for (const step of [12, 12 + minor, 19])
        add(
          reed(hertzOf(chord + step), long(start, bar * 0.97)),
          start,
          kind === 'break' ? 0.22 : 0.12,
        )
      if (kind === 'chorus')
        for (let k = 0; k < bar * 2; k++)
          add(
            plucked(random, hertzOf(chord + 24 + [0, 7, 12, minor][k % 4]!), 0.4),
            start + k / 2,
            0.16,
          )
      // A line of two bars that breathes at its end.
      if (kind !== 'intro' || b >= own / 2)
        for (let place = b % 2 === 0 ? 0 : 0.5; place < bar - (b % 2 === 1 ? 1 : 0); ) {
          const length = [0.5, 0.5, 1, 1.5][Math.floor(random() * 4)] as number
          if (random() < (kind === 'break' ? 0.5 : 0.8))
            add(
              sung(
                hertzOf(chord + 24 + ([0, minor, 7, 10, 12][Math.floor(random() * 5)] as number)),
                long(start + place, length * 0.9),
                random(),
              ),
              start + place,
              0.5,
            )
          place += length
        }
    }
    first += own * bar
  }
  for (let k = 0; k < pickup * 2; k++)
    add(sung(hertzOf(root + 24 + 2 * k), 0.25, 0.5), -pickup + k / 2, 0.5)
  const peak = samples.reduce((most, value) => Math.max(most, Math.abs(value)), 0)
  for (let i = 0; i < samples.length; i++) {
    // A room that is never quite silent.
    const noise = (random() - 0.5) * 0.01
    samples[i] = Math.tanh((1.4 * (samples[i] as number)) / peak) * 0.85 + noise
  }
  return {
    name,
    samples: samples.subarray(0, Math.ceil(seconds * RATE)),
    rate: RATE,
    seconds,
    beats: beats.slice(0, total),
    bars: barStarts,
    ones,
    sections,
  }
}

function formOf(random: () => number, tag: boolean, hush: boolean): readonly Section[] {
  const more = tag ? 1 : 0
  const length = random() < 0.5 ? 8 : 16
  return [
    { kind: 'intro', bars: 4 + (random() < 0.4 ? 4 : 0) },
    { kind: 'verse', bars: length },
    { kind: 'chorus', bars: 8 + more },
    { kind: 'verse', bars: length },
    ...(hush ? [{ kind: 'break' as const, bars: 4 + more }] : []),
    { kind: 'chorus', bars: 8 },
    { kind: 'end', bars: 2 },
  ]
}

/** Pieces of every style, each with some of the twists. */
export const somePieces = (seed: number, each: number): readonly (() => Piece)[] =>
  Object.keys(STYLES).flatMap((style, s) =>
    Array.from({ length: each }, (_, k) => () => {
      const own = seed * 1000 + s * 50 + k
      const random = seeded(own + 7)
      const tag = random() < 0.35
      const hush = random() < 0.4
      const pickup = random() < 0.35 ? 1 + Math.floor(random() * 2) : 0
      const wander = random() < 0.5 ? 0.012 : 0.003
      const ramp = random() < 0.2 ? 0.08 : 0
      const name = [style, own, tag && 'tag', hush && 'hush', pickup && 'pickup', ramp && 'ramp']
        .filter(Boolean)
        .join('-')
      return play(name, style, { seed: own, tag, hush, pickup, wander, ramp, loose: 0.008 })
    }),
  )
