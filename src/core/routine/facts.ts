import type { Combination } from '../combination/combination'
import { checkCombination } from '../findings/check'
import type { Finding } from '../findings/finding'
import type { House } from '../house/house'
import type { Vocabulary } from '../moves/vocabulary'
import { remembered } from '../record/remembered'
import type { Song } from '../song/song'
import { dancedTo, foundIn } from './danced'
import { fitOf, type SongFact } from './fit'
import { factsInSections } from './inSections'
import { laidOut } from './laid'
import type { Routine } from './routine'
import { songSums } from './sums'
import type { LaidPass } from './turns'

/** What is worth a look in a routine; `also` is danced in it and not known yet. */
export type FactsOf = (routine: Routine, also?: Combination) => readonly SongFact[]

/** What is found in a combination by itself. */
export type OwnFindings = (combination: Combination) => readonly Finding[]

/** What is found in combinations by themselves, each looked at once. */
export function ownFindings(vocabulary: Vocabulary, house: House): OwnFindings {
  const findingsOf = remembered(
    (combination: Combination) => checkCombination(combination, vocabulary, house).findings,
  )
  return (combination) => findingsOf(combination, undefined)
}

/** What is worth a look in routines on a song, in the order of their counts. */
export function factsOn(
  song: Song,
  find: (id: string) => Combination | undefined,
  vocabulary: Vocabulary,
  house: House,
  ownOf: OwnFindings = ownFindings(vocabulary, house),
): FactsOf {
  const own = ({ combination }: LaidPass) => (combination ? ownOf(combination) : [])
  return (routine, also) => {
    const laid = laidOut(routine, song, (id) => (also?.id === id ? also : find(id)))
    const dance = dancedTo(laid, song, vocabulary, house)
    return [
      ...fitOf(routine, song, laid),
      ...foundIn(dance, laid, own),
      ...factsInSections(routine, song, laid, dance, songSums(routine, song, laid, dance)),
    ].sort((a, b) => a.at - b.at)
  }
}
