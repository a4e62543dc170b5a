import { otherSide, type Side } from '../body/side'
import { readPattern, type TimedAction } from '../moves/pattern'

/** What a link of some counts dances, from the foot that is free (model 7). */
export function linkSteps(counts: 1 | 2 | 4, foot: Side): readonly TimedAction[] {
  const [S, O] = [foot, otherSide[foot]]
  const pattern = {
    1: `1 close ${S}`,
    2: `1 step ${S} side; 2 touch ${O} together`,
    4: `1 step ${S} side; 2 close ${O}; 3 step ${S} side; 4 touch ${O} together`,
  }[counts]
  return readPattern(pattern)
}
