import type { Cue, SongCalls } from '../calling/cues'
import { countOfTick, isSilent, type Section, type Song, type SongCounts } from '../song/song'
import { TICKS_PER_COUNT } from '../time/time'
import { endOfLaid, type Laid } from './laid'

/** Counts that are said before a count comes back that nobody heard. */
const BACK = 4

/** What is called of a song, on the ticks of what is danced to it: where its parts begin, and the instructor's own words. */
export function songCalls(song: Song, laid: Pick<Laid, 'from' | 'passes'>): SongCalls {
  const { from } = laid
  const { length } = song.counts.ms
  const tickOf = (count: number) => Math.round(TICKS_PER_COUNT * (count - from))
  const words = song.words.map(
    ({ at, text }): Cue => ({ at: tickOf(countOfTick(song, at)), kind: 'layer', text }),
  )
  // What still sounds after the last count is held.
  const isHeld = endOfLaid(laid) > length + 1
  const held: readonly Cue[] = isHeld ? [{ at: tickOf(length), kind: 'section', text: 'hold' }] : []
  return {
    cues: [...partCues(song.sections, tickOf), ...words, ...held],
    isCounted: (tick) => isSaid(song.counts, from + Math.floor(tick / TICKS_PER_COUNT)),
  }
}

function partCues(sections: readonly Section[], tickOf: (count: number) => number): readonly Cue[] {
  const met = new Set<string>()
  return sections.map(({ at, label, kind }): Cue => {
    const text = label.toLowerCase()
    const isAgain = met.has(text)
    met.add(text)
    // What the voice can't say by its own name it says by its kind.
    const named = [text, ...(kind === 'other' ? [] : [kind])]
    const again = isAgain ? named.map((name) => `${name} again`) : []
    const [first = text, ...or] = [...again, ...named]
    return { at: tickOf(at), kind: 'section', text: first, or }
  })
}

/** Whether a count is said: not where nobody hears one, but the last before it comes back. */
const isSaid = (counts: SongCounts, at: number): boolean =>
  Array.from({ length: BACK + 1 }, (_, more) => at + more).some(
    (one) => one < counts.ms.length && !isSilent(counts, one),
  )
