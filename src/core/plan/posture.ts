import type { Combination } from '../combination/combination'

/** How the dances of a family stand (teaching 5.1), from the feet up. */
const POSTURE: Readonly<Record<string, string>> = {
  belly: 'Feet under the hips, knees soft, belly drawn in, tail long, ribs lifted off the hips.',
  bollywood: 'Feet under the hips, knees ready, belly in, chest open, hands awake.',
  polynesian: 'Feet close and flat, knees bent and level, belly in, shoulders still.',
  latin: 'Weight over the balls of the feet, knees giving one by one, belly in, ribs tall.',
  general: 'Feet under the hips, knees soft, belly in, tail long, ribs over the hips.',
  afro: 'Feet wide enough to drop, knees bent, hips back a little, back long, ready to bounce.',
  'hip-hop': 'Feet under the hips, knees bent and bouncing, chest loose, weight low.',
  street: 'Feet under the hips, knees bent and bouncing, chest loose, weight low.',
  jazz: 'Feet parallel under the hips, belly in, ribs closed, back long, crown up.',
  contemporary: 'Feet under the hips, weight in the middle of the foot, belly soft, back long.',
}

/** What of it is lost first when the music comes. */
const SHORT: Readonly<Record<string, string>> = {
  belly: 'knees soft, ribs lifted',
  bollywood: 'knees ready, chest open',
  polynesian: 'knees bent and level, shoulders still',
  latin: 'weight over the balls of the feet, ribs tall',
  general: 'knees soft, belly in',
  afro: 'knees bent, back long',
  'hip-hop': 'knees bent and bouncing',
  street: 'knees bent and bouncing',
  jazz: 'belly in, crown up',
  contemporary: 'back long, knees soft',
}

/** How to stand once more, before the music. */
export const shortPostureOf = ({ families }: Pick<Combination, 'families'>): string =>
  `Once more: ${SHORT[families[0] ?? 'general'] ?? SHORT.general}, shoulders low.`

/** A line on how to stand, said once at length. */
export const postureOf = ({ families }: Pick<Combination, 'families'>): string =>
  `${POSTURE[families[0] ?? 'general'] ?? POSTURE.general} Shoulders low, neck long.`
