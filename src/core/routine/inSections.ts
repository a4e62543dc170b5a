import { shorterWay } from '../body/facing'
import type { Danced } from '../simulate/danced'
import type { Section, Song } from '../song/song'
import type { SongFact } from './fit'
import type { Laid } from './laid'
import { spanOf } from './room'
import { endOfPiece, type Routine } from './routine'
import type { SongSums } from './sums'

/** Who is turned away by more than this within a song, or at its end, in degrees (h). */
const AWAY = 120
const AWAY_AT_END = 45
/** Sections are meant to be alike where so much of the later one is (h). */
const MEANT = 0.5
/** Counts before the end of the shorter of two of unlike length, which may be unlike too (h). */
const OWN_END = 8
/** Loud and quiet sections, by their energy, and how much more a quiet one may ask (h). */
const LOUD = 4
const QUIET = 2
const MORE = 1.5
/** A section whose dancing says something of it: so much of it is danced. */
const DANCED = 0.5

/** Sections that are like another of the song, each with the first of its kind. */
const alikeIn = ({ sections }: Song): readonly (readonly [Section, Section])[] =>
  sections.flatMap((section) => {
    const first = sections.find(({ id }) => id === section.as)
    return first ? [[first, section] as const] : []
  })

/** What is worth a look in sections as a whole. */
export const factsInSections = (
  routine: Routine,
  song: Song,
  laid: Laid,
  dance: Danced,
  sums: SongSums,
): readonly SongFact[] => [
  ...unlike(song, laid),
  ...turnedAway(routine, song, laid, dance),
  ...quieter(sums),
]

const endOf = ({ sections, counts }: Song, section: Section): number =>
  sections[sections.indexOf(section) + 1]?.at ?? counts.ms.length

/**
 * Sections that are like an earlier one, and are danced like it but for some counts. What is danced
 * otherwise altogether is meant so; the side does not matter, and what is not covered is said as that.
 */
function unlike(song: Song, laid: Laid): readonly SongFact[] {
  const danced = dancedAt(laid)
  return alikeIn(song).flatMap(([first, later]): readonly SongFact[] => {
    const lengths = [endOf(song, first) - first.at, endOf(song, later) - later.at]
    // Sections of unlike length end in their own way.
    const own = lengths[0] === lengths[1] ? 0 : OWN_END
    const counts = Math.max(0, Math.min(...lengths) - own)
    const both = Array.from({ length: counts }, (_, i) => i).filter(
      (i) => danced(first.at + i) && danced(later.at + i),
    )
    const other = both.filter((i) => danced(first.at + i) !== danced(later.at + i))
    const [start] = other
    if (start === undefined || other.length > both.length * MEANT) return []
    const at = later.at + start
    return [{ code: 'song.same', at, section: later.id, like: first, counts: other.length }]
  })
}

/** What is danced on a count of the song, from whichever side; nothing where it is not covered. */
function dancedAt({ passes, from }: Laid): (at: number) => string | undefined {
  const all = passes.flatMap(({ piece, combination, pass, counts }) =>
    Array.from({ length: counts }, (_, i) => {
      if (!piece) return undefined
      const { what } = piece
      return what.kind === 'rest'
        ? `rest ${what.how} ${what.words}`
        : `${combination?.id} ${what.pace ?? 1} ${pass} ${i}`
    }),
  )
  return (at) => all[at - from]
}

/** Sections that end with the back to who looks, and a song that ends facing anywhere but front. */
function turnedAway(
  routine: Routine,
  song: Song,
  laid: Laid,
  { lead }: Danced,
): readonly SongFact[] {
  const { to } = spanOf(song, routine)
  const last = routine.pieces.at(-1)
  const end = last ? Math.min(to, endOfPiece(last)) : to
  return song.sections.flatMap((section): readonly SongFact[] => {
    const behind = Math.min(endOf(song, section), end)
    const index = laid.passes.findIndex(({ at, counts }) => at < behind && behind <= at + counts)
    const exit = lead.slices[index]?.exit
    if (!exit || behind <= section.at || !laid.passes[index]?.piece) return []
    const facing = shorterWay(exit.facing)
    const isEnd = behind === end
    if (Math.abs(facing) <= (isEnd ? AWAY_AT_END : AWAY)) return []
    return [{ code: 'song.facing', at: behind - 1, section: section.id, facing, isEnd }]
  })
}

/** Loud sections that are danced with clearly less than the most lively of the quiet ones. */
function quieter({ sections }: SongSums): readonly SongFact[] {
  const said = sections.filter(({ danced, counts }) => danced >= counts * DANCED)
  const quiet = said
    .filter(({ section }) => section.energy <= QUIET)
    .reduce<(typeof said)[number] | undefined>((a, b) => (a && a.load >= b.load ? a : b), undefined)
  if (!quiet) return []
  return said
    .filter(({ section, load }) => section.energy >= LOUD && load * MORE < quiet.load)
    .map(({ section, load }) => ({
      code: 'song.load',
      at: section.at,
      section: section.id,
      load,
      quiet: quiet.section,
      quietLoad: quiet.load,
    }))
}
