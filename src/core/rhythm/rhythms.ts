import type { Family } from '../moves/move'
import { TICKS_PER_COUNT, type Tick, tick } from '../time/time'

/**
 * How a stroke sounds: `dum` a deep drum, `tek` a bright one at the rim, `ka` the same from
 * the other hand, `slap` dry, `shaker`, `bell`, two `wood` blocks, `low` a soft bass drum.
 */
export const STROKES = ['dum', 'tek', 'ka', 'slap', 'shaker', 'bell', 'wood', 'low'] as const
export type StrokeKind = (typeof STROKES)[number]

/** One stroke of a rhythm, within its cycle. */
export interface Stroke {
  readonly at: Tick
  readonly kind: StrokeKind
  /** Share of full loudness, over 0 to 1. */
  readonly loud: number
}

/** A rhythm the app plays itself: a cycle of whole counts, again and again. */
export interface Rhythm {
  readonly id: string
  readonly name: string
  /** Where it is at home; shown first for combinations of these families. */
  readonly families: readonly Family[]
  /** Counts of a cycle. */
  readonly counts: number
  readonly feel: string
  readonly strokes: readonly Stroke[]
}

const KIND_OF: Readonly<Record<string, readonly [StrokeKind, number]>> = {
  D: ['dum', 1],
  d: ['dum', 0.6],
  T: ['tek', 0.85],
  t: ['tek', 0.5],
  k: ['ka', 0.35],
  S: ['slap', 0.9],
  s: ['slap', 0.5],
  x: ['shaker', 0.5],
  X: ['shaker', 0.9],
  b: ['bell', 0.5],
  W: ['wood', 0.9],
  w: ['wood', 0.55],
  L: ['low', 0.9],
  l: ['low', 0.5],
}

/**
 * Reads a cycle written as lines of letters, `.` for silence and spaces between counts;
 * every letter of a line takes an equal share of its count.
 */
function strokesOf(lines: readonly string[]): readonly Stroke[] {
  const strokes = lines.flatMap((line) =>
    line.split(' ').flatMap((count, at) =>
      [...count].flatMap((letter, i): Stroke[] => {
        const found = KIND_OF[letter]
        if (!found) return []
        const [kind, loud] = found
        return [
          { at: tick(at * TICKS_PER_COUNT + (i * TICKS_PER_COUNT) / count.length), kind, loud },
        ]
      }),
    ),
  )
  return strokes.sort((a, b) => a.at - b.at)
}

const rhythm = (
  id: string,
  name: string,
  families: readonly Family[],
  feel: string,
  ...lines: readonly string[]
): Rhythm => ({
  id,
  name,
  families,
  counts: (lines[0] ?? '').split(' ').length,
  feel,
  strokes: strokesOf(lines),
})

/** Written from general knowledge of these rhythms, in their plainest common form. */
export const RHYTHMS: readonly Rhythm[] = [
  rhythm('maqsum', 'Maqsum', ['belly'], 'dum tek, tek dum tek', 'DkTk .kT. D.kk T.kk'),
  rhythm('malfuf', 'Malfuf', ['belly'], 'quick and rolling, 3 3 2', 'D.kT .kT.'),
  rhythm('saidi', 'Saidi', ['belly'], 'earthy, two dums in the middle', 'DkTk .kD. D.kk T.kk'),
  rhythm(
    'chiftetelli',
    'Chiftetelli',
    ['belly'],
    'slow, over eight',
    'D.kT ..kT ..T. .kk. D.k. D.k. T... ..kk',
  ),
  rhythm('ayoub', 'Ayoub', ['belly'], 'driving and circling', 'D..k D.T.'),
  rhythm(
    'nine',
    'Nine-eight, 2 2 2 3',
    ['belly'],
    'nine counts, long at the end',
    'D k T k D k T T k',
  ),
  rhythm(
    'dhol-swing',
    'Dhol swing',
    ['bollywood'],
    'bouncing in threes',
    'D.t S.t d.t S.t',
    'x.x x.x x.x x.x',
  ),
  rhythm(
    'eight-beat',
    'Eight-beat cycle',
    ['bollywood'],
    'eight even counts, light at five',
    'D.t. t.D. t... t.t. t.t. t.D. d... t.t.',
  ),
  rhythm(
    'bachata',
    'Bachata',
    ['latin'],
    'a dry lift on four',
    'xs.s xs.s xs.s XSL.',
    'L... .... L... ....',
  ),
  rhythm(
    'merengue',
    'Merengue',
    ['latin'],
    'a steady march',
    'L.ss L.s. L.ss LSSS',
    'xxxx xxxx xxxx xxxx',
  ),
  rhythm(
    'salsa',
    'Salsa with clave, 2 3',
    ['latin'],
    'clave over two bars',
    '.. W. W. .. W. .w .. W.',
    's. sS s. LL s. sS s. LL',
    'b. bb b. bb b. bb b. bb',
  ),
  rhythm(
    'kizomba-slow',
    'Slow kizomba',
    ['latin'],
    'soft and dragging',
    'L..s ..s. L..s ..l.',
    'x.x. x.x. x.x. x.x.',
  ),
  rhythm(
    'island-slow',
    'Slow island drum',
    ['polynesian'],
    'a slow sway, gourd and skin',
    'L... ..s. L.l. ..s.',
  ),
  rhythm(
    'island-fast',
    'Fast island drum',
    ['polynesian'],
    'log drums for quick hips',
    'WwwW wwWw WwwW wWWw',
    'L... L... L... L...',
  ),
  rhythm('plain', 'Plain drum', ['general'], 'one, two, three, four', 'D... t... d... t...'),
]

const BY_ID = new Map(RHYTHMS.map((one) => [one.id, one]))

export const rhythmOf = (id: string | undefined): Rhythm | undefined =>
  id === undefined ? undefined : BY_ID.get(id)

/** Counts of a phrase where nobody says how many. */
const USUAL_COUNTS = 8

/** The rhythm a combination is practised to unless one is chosen: one of its family whose cycle fits its phrases. */
export function usualRhythm(
  families: readonly Family[],
  counts = USUAL_COUNTS,
): Rhythm | undefined {
  const fitting = RHYTHMS.filter((one) => counts % one.counts === 0)
  return (
    fitting.find((one) => one.families.some((family) => families.includes(family))) ??
    fitting.at(-1)
  )
}

/**
 * The strokes of a rhythm over a stretch of a dance that starts `from` ticks after the
 * cycle does; their times are from the start of the stretch.
 * @param length ticks
 */
export function strokesIn(
  { counts, strokes }: Rhythm,
  from: number,
  length: number,
): readonly Stroke[] {
  const cycle = counts * TICKS_PER_COUNT
  const found: Stroke[] = []
  for (let start = Math.floor(from / cycle) * cycle; start < from + length; start += cycle)
    for (const stroke of strokes) {
      const at = start + stroke.at - from
      if (at >= 0 && at < length) found.push({ ...stroke, at: tick(at) })
    }
  return found
}
