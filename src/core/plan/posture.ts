import type { Combination } from '../combination/combination'
import type { Family } from '../moves/move'

/** How the dances of a family stand (teaching 5.1), from the feet up. */
const POSTURE: Readonly<Record<Family, string>> = {
  belly: 'Feet under the hips, knees soft, belly drawn in, tail long, ribs lifted off the hips.',
  bollywood: 'Feet under the hips, knees ready, belly in, chest open, hands awake.',
  polynesian: 'Feet close and flat, knees bent and level, belly in, shoulders still.',
  latin: 'Weight over the balls of the feet, knees giving one by one, belly in, ribs tall.',
  general: 'Feet under the hips, knees soft, belly in, tail long, ribs over the hips.',
}

/** A line on how to stand, said once at length and once short before the music. */
export const postureOf = ({ families }: Pick<Combination, 'families'>): string =>
  `${POSTURE[families[0] ?? 'general']} Shoulders low, neck long.`
