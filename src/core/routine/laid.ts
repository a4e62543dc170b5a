import type { Side } from '../body/side'
import { type Combination, emptyCombination } from '../combination/combination'
import { mirror } from '../combination/mirror'
import { defaultStart, type Start } from '../combination/start'
import { type Song, songTime, tickOfCount } from '../song/song'
import { TICKS_PER_COUNT } from '../time/time'
import { spanOf } from './room'
import { endOfPiece, type Routine } from './routine'
import { type LaidPass, ledInto, pickupOf, stillFor, type Turn, turnsOf } from './turns'

/** A routine as one dance: the first of its counts falls on this count of the song. */
export interface Laid {
  readonly combination: Combination
  readonly from: number
  readonly passes: readonly LaidPass[]
}

/** Nobody waits longer for a sound to die away, in counts. */
const MOST_HELD = 16

/**
 * A routine as one combination, so that all that is known of combinations holds for it too: each
 * piece begins as the one before it ends.
 * @param find undefined for a combination that is gone: its counts are not danced
 */
export function laidOut(
  routine: Routine,
  song: Song,
  find: (id: string) => Combination | undefined,
): Laid {
  const span = spanOf(song, routine)
  const { to } = span
  const [first] = routine.pieces
  // The pickup of what comes first is danced in the counts before it.
  const lead = first?.at === span.from ? pickupOf(first, find) : undefined
  const from = Math.max(0, span.from - (lead?.pass.counts ?? 0))
  let turns: readonly Turn[] = []
  let at = from
  for (const piece of routine.pieces) {
    if (endOfPiece(piece) > to) break
    const before = [...turns, ...stillFor(song, at, piece.at - at)]
    turns = [...ledInto(before, pickupOf(piece, find)), ...turnsOf(song, piece, find)]
    at = endOfPiece(piece)
  }
  turns = [...turns, ...stillFor(song, at, to - at), ...heldTo(song)]
  let begins = from
  const passes = turns.map(({ pass }): LaidPass => {
    const own = { ...pass, at: begins }
    begins += pass.counts
    return own
  })
  const danced = passes.find(({ combination }) => combination)
  const all = passes.flatMap(({ combination }) => combination ?? [])
  const side = danced?.piece?.what.kind === 'dance' ? danced.piece.what.side : 'R'
  return {
    from,
    passes,
    combination: {
      ...emptyCombination(routine.id, ''),
      title: routine.title,
      families: [...new Set(passes.flatMap(({ combination }) => combination?.families ?? []))],
      ...(danced?.combination && { tempo: danced.combination.tempo }),
      // Where only some keep their turns, each is mirrored whole: one dance has one rule.
      ...(all.length > 0 &&
        all.every(({ keepTurns }) => keepTurns) && { keepTurns: true as const }),
      lead: side,
      start: startOf(danced?.combination, side),
      phrases: [...new Map(turns.map(({ phrase }) => [phrase.id, phrase])).values()],
      order: turns.map(({ phrase, mirrored }) => ({ phrase: phrase.id, mirrored })),
    },
  }
}

/** The count behind the last that is danced, the sound after the song's last count among them. */
export const endOfLaid = ({ passes, from }: Pick<Laid, 'passes' | 'from'>): number => {
  const last = passes.at(-1)
  return last ? last.at + last.counts : from
}

/** The pose it ends in, for as long as the song still sounds. */
function heldTo(song: Song): readonly Turn[] {
  const { length } = song.counts.ms
  const time = songTime(song)
  const end = time.tickAt(song.media.seconds) - tickOfCount(song, length)
  const counts = Math.min(MOST_HELD, Math.ceil(end / TICKS_PER_COUNT))
  return counts > 0 ? stillFor(song, length, counts) : []
}

/** How the first piece begins, from its side. */
function startOf(combination: Combination | undefined, side: Side): Start {
  if (!combination) return defaultStart(side)
  return side === combination.lead ? combination.start : mirror(combination).start
}
