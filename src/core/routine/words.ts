import type { Combination } from '../combination/combination'
import { findingText } from '../findings/findingText'
import type { Units } from '../house/lengths'
import { placeWords } from '../song/lines'
import type { Section, Song } from '../song/song'
import { countWords } from '../time/countWords'
import type { SongFact } from './fit'
import { type Piece, restWords } from './routine'

/** What a piece is called: its combination and its side, or how one rests. */
export function nameOf({ what, locked }: Piece, combinations: readonly Combination[]): string {
  const kept = locked ? ', locked' : ''
  if (what.kind === 'rest') return `${restWords(what)}${kept}`
  const title = combinations.find(({ id }) => id === what.combination)?.title
  const pace = what.pace === 2 ? ', double time' : what.pace === 0.5 ? ', half time' : ''
  return `${title ?? LOST}, ${what.side}${pace}${kept}`
}

/** What a piece is called whose combination was deleted. */
export const LOST = 'A combination that is gone'

/** What was found in a routine, in words. */
export function songFactText(fact: SongFact, song: Song, units: Units = 'metres'): string {
  const section =
    song.sections.findLast(({ at }) => at <= fact.at)?.label.toLowerCase() ?? 'the song'
  switch (fact.code) {
    case 'song.gap':
      return `${countWords(fact.counts)} of the ${section} ${fact.counts === 1 ? 'is' : 'are'} left.`
    case 'song.cut':
      return `Only ${fact.counts} of ${countWords(fact.whole)} of its last phrase are danced.`
    case 'song.pickup':
      return `Its pickup of ${countWords(fact.counts)} has no time before it, and is left out.`
    case 'song.end':
      return `The song goes on for ${countWords(fact.counts)} after the last piece.`
    case 'song.lost':
      return 'Its combination is gone: nothing is danced here.'
    case 'song.dance':
      return findingText(fact.finding, units)
    case 'song.same':
      return `From here it is danced otherwise than ${likeWords(fact.like, song)}, on ${countWords(fact.counts)}.`
    case 'song.facing': {
      const [degrees, way] = [Math.abs(fact.facing), fact.facing < 0 ? 'left' : 'right']
      const where = degrees === 180 ? 'with the back to front' : `turned ${degrees}° to the ${way}`
      return `${fact.isEnd ? 'The dance' : `The ${section}`} ends ${where}.`
    }
    case 'song.load':
      return `The loud ${section} is danced with less than the quiet ${fact.quiet.label.toLowerCase()}: a load of ${fact.load.toFixed(1)} a count, there ${fact.quietLoad.toFixed(1)}.`
  }
}

/** A section that others are like, as it is said: by its name, or as the first of that name. */
export const likeWords = ({ label }: Section, { sections }: Song): string =>
  sections.filter((one) => one.label === label).length > 1
    ? `the first ${label.toLowerCase()}`
    : label

/** Where it is, as it is said. */
export const songFactPlace = (fact: SongFact, song: Song): string => placeWords(song, fact.at)
