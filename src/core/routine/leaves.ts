import type { SongFact } from './fit'
import type { Routine } from './routine'

/** What a fact is of, and what is said of it: the same again is the same leave. */
const keyOf = (fact: SongFact): Routine['leaves'][number] => {
  const code = fact.code === 'song.dance' ? `song.dance ${fact.finding.code}` : fact.code
  return { code, of: 'section' in fact ? fact.section : (fact.piece?.id ?? `count ${fact.at}`) }
}

/** Whether the instructor has said that it stays as it is. */
export const isLeft = (routine: Routine, fact: SongFact): boolean => {
  const { code, of } = keyOf(fact)
  return routine.leaves.some((one) => one.code === code && one.of === of)
}

/** It stays as it is, and is said no more. */
export const leftAsIs = (routine: Routine, fact: SongFact): Routine =>
  isLeft(routine, fact) ? routine : { ...routine, leaves: [...routine.leaves, keyOf(fact)] }

/** It is said again. */
export const takenUp = (routine: Routine, fact: SongFact): Routine => {
  const { code, of } = keyOf(fact)
  return {
    ...routine,
    leaves: routine.leaves.filter((one) => one.code !== code || one.of !== of),
  }
}
