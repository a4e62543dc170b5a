import type { Cue } from '../calling/cues'
import { countOfTick, type Song } from '../song/song'
import { TICKS_PER_COUNT } from '../time/time'
import type { Laid } from './laid'

/** What is called of a song: where each part of it begins, and the instructor's own words; on the ticks of what is danced to it. */
export function songCues(song: Song, { from }: Pick<Laid, 'from'>): readonly Cue[] {
  const tickOf = (count: number) => Math.round(TICKS_PER_COUNT * (count - from))
  const met = new Set<string>()
  const sections = song.sections.map(({ at, label, kind }): Cue => {
    const text = label.toLowerCase()
    const isAgain = met.has(text)
    met.add(text)
    // What the voice can't say by its own name it says by its kind.
    const named = [text, ...(kind === 'other' ? [] : [kind])]
    const [first = text, ...or] = [
      ...(isAgain ? named.map((name) => `${name} again`) : []),
      ...named,
    ]
    return { at: tickOf(at), kind: 'section', text: first, or }
  })
  const words = song.words.map(
    ({ at, text }): Cue => ({ at: tickOf(countOfTick(song, at)), kind: 'layer', text }),
  )
  return [...sections, ...words]
}
