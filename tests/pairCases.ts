import type { Combination } from '../src/core/combination/combination'
import { vocabulary } from '../src/core/moves/vocabulary'
import { readSheet } from '../src/core/sheet/readSheet'

/** Two dancers beside each other, and what is written under their phrase. */
function duet(
  lines: string,
  at: readonly [string, string] = ['L 0.5', 'R 0.5'],
  more = '',
): Combination {
  const { combination, messages } = readSheet(
    `sway 2\ntempo 96\npart @1 "Amber" at ${at[0]}\npart @2 "Blue" at ${at[1]}\n${more}phrase A 8\n${lines}`,
    vocabulary,
  )
  if (messages[0]) throw new Error(messages[0].text)
  return combination
}

const STEPS =
  '  feet 1 step R side; 2 touch L together; 3 step L side; 4 touch R together; 5 step R side; 6 touch L together; 7 step L side; 8 touch R together\n'
/** Both feet on the floor, apart, from the second count to the sixth; then home again. */
const STANCE =
  '  feet @2 1 step R side; 1& centre; 7 sway L; 8 touch R together\n  feet @1 1 step R in-place; 7 step L in-place; 8 touch R together\n'
const TURN = (degrees: number) =>
  `  feet 1 step R side; 2 touch L together\n  feet @1 3 step L side turn ${degrees}; 4 step R in-place turn ${degrees}; 5 step L in-place; 6 touch R together\n  feet @2 3 step L side; 4 step R in-place; 5 step L in-place; 6 touch R together\n`

/** Each finding between dancers: where it is so, and the nearest where it is not. */
export const PAIR_CASES = [
  {
    code: 'pair.collision',
    said: 'fault A4',
    has: duet(
      '  feet @1 1 step R side; 2 close L; 3 step R side; 4 close L\n  feet @2 1 step R in-place; 2 step L in-place; 3 step R in-place; 4 step L in-place',
    ),
    not: duet('  feet 1 step R side; 2 close L; 3 step R side; 4 close L'),
  },
  {
    code: 'pair.tread',
    said: 'snag A1',
    has: duet(
      '  feet @1 1 step R forward; 2 touch L together\n  feet @2 1 step R in-place; 2 touch L together',
      ['R 0.29 B 0.35', 'R 0.1 F 0.1'],
    ),
    not: duet(
      '  feet @1 1 step R forward; 2 touch L together\n  feet @2 1 step R in-place; 2 touch L together',
      ['R 0.29 B 0.6', 'R 0.1 F 0.1'],
    ),
  },
  {
    code: 'pair.place',
    said: 'snag A4',
    has: duet(`${STEPS}  between 1-4 place @1 right @2`),
    not: duet(`${STEPS}  between 1-4 place @1 left @2`),
  },
  {
    code: 'pair.facing',
    said: 'snag A4',
    has: duet(`${STEPS}  between 1-4 place @1 facing @2 1`, ['F 0.5', 'B 0.5']),
    not: duet(`${STEPS}  between 1-4 place @1 before @2 1`, ['F 0.5', 'B 0.5']),
  },
  {
    code: 'pair.reach',
    said: 'fault A1',
    has: duet(`${STEPS}  between 1-4 hold @1.R @2.L palm waist`, ['L 1', 'R 1']),
    not: duet(`${STEPS}  between 1-4 hold @1.R @2.L palm waist`),
  },
  {
    code: 'pair.hand-busy',
    said: 'fault A3',
    has: duet(`${STEPS}  between 1-4 hold @1.R @2.L palm; 3-6 hold @1.R @2.L fingers`),
    not: duet(`${STEPS}  between 1-2 hold @1.R @2.L palm; 3-6 hold @1.R @2.L fingers`),
  },
  {
    code: 'pair.hand-late',
    said: 'snag A3',
    has: {
      ...duet(`${STEPS}  arms @2 1-2 L crown\n  between 3 hold @1.R @2.L fingers low`),
      tempo: 200,
    },
    not: duet(`${STEPS}  arms @2 1-2 L crown\n  between 3-6 hold @1.R @2.L fingers low`),
  },
  {
    code: 'pair.turn-held',
    said: 'snag A4',
    has: duet(`${TURN(180)}  between 1-6 hold @1.R @2.L fingers`),
    not: duet(`${TURN(180)}  between 1-6 hold @1.R @2.L fingers over`),
  },
  {
    code: 'pair.crossed',
    said: 'note A6',
    has: duet(
      `${TURN(90)}  between 1-6 hold @1.R @2.L fingers over; 1-6 hold @1.L @2.R fingers over`,
      ['L 0.25', 'R 0.25 F 0.4'],
    ),
    not: duet(`${TURN(90)}  between 1-6 hold @1.R @2.L fingers over`, ['L 0.25', 'R 0.25 F 0.4']),
  },
  {
    code: 'pair.eyes',
    said: 'snag A3',
    has: duet(`${STEPS}  between 3-4 look @1 @2`, ['L 0.3 F 0.6', 'R 0.3 B 0.6']),
    not: duet(`${STEPS}  between 3-4 look @2 to @1`, ['L 0.3 F 0.6', 'R 0.3 B 0.6']),
  },
  {
    code: 'pair.led',
    said: 'snag A3',
    has: duet(`${TURN(90)}  between 3-4 led @1 by @2.L`),
    not: duet(`${TURN(90)}  between 3-4 led @1 by @2.L; 1-6 hold @1.R @2.L fingers over`),
  },
  {
    code: 'pair.support-stance',
    said: 'snag A2',
    has: duet(
      `  feet @2 1 step R side; 2 centre; 7 sway L; 8 touch R together\n  feet @1 1 step R in-place; 7 step L in-place; 8 touch R together\n  torso @1 3-6 lean R supported\n  between 1-6 hold @1.R @2.L wrist waist; 2-6 support @2 of @1 20%`,
    ),
    not: duet(
      `${STANCE}  torso @1 3-6 lean R supported\n  between 1-6 hold @1.R @2.L wrist waist; 3-6 support @2 of @1 20%`,
    ),
  },
  {
    code: 'pair.support-hold',
    said: 'fault A3',
    has: duet(`${STANCE}  torso @1 3-6 lean R supported\n  between 3-6 support @2 of @1 20%`),
    not: duet(
      `${STANCE}  torso @1 3-6 lean R supported\n  between 1-6 hold @1.R @2.L wrist waist; 3-6 support @2 of @1 20%`,
    ),
  },
  {
    code: 'pair.support-missing',
    said: 'snag A3',
    has: duet(`${STANCE}  torso @1 3-6 lean R supported\n  between 1-6 hold @1.R @2.L wrist waist`),
    not: duet(`${STANCE}  torso @1 3-6 lean R\n  between 1-6 hold @1.R @2.L wrist waist`),
  },
  {
    code: 'pair.support',
    said: 'care A3',
    has: duet(
      `${STANCE}  torso @1 3-6 lean R supported\n  between 1-6 hold @1.R @2.L wrist waist; 3-6 support @2 of @1 20%`,
    ),
    not: duet(`${STANCE}  torso @1 3-6 lean R\n  between 1-6 hold @1.R @2.L wrist waist`),
    noRepair: true,
  },
  {
    code: 'pair.rejoin',
    said: 'snag A5',
    has: duet(
      '  feet 1 step R side; 2 touch L together; 5 step R side; 6 touch L together; 7 step L side; 8 touch R together\n  feet @1 3 step L side turn 90; 4 touch R together\n  feet @2 3 step L side; 4 touch R together',
    ),
    not: duet(
      '  feet 1 step R side; 2 touch L together; 5 step R side; 6 touch L together; 7 step L side; 8 touch R together\n  feet @1 3 step L side; 4 touch R together\n  feet @2 3 step L back; 4 touch R together',
    ),
  },
  {
    code: 'pair.unison',
    said: 'note A3',
    has: duet(`${STEPS}  hips @1 3 hip-drop R\n  hips @2 3 hip-drop R`),
    not: duet(`${STEPS}  hips @1 3 hip-drop R\n  hips @2 3 hip-slide-front`),
  },
  {
    code: 'pair.cut',
    said: 'note A8',
    has: duet(
      '  feet @1 1 step R side; 2 touch L together; 3 step L side; 4 touch R together\n  torso @1 7 chest-lift\n  voice @2 of @1 +2',
    ),
    not: duet(
      '  feet @1 1 step R side; 2 touch L together; 3 step L side; 4 touch R together\n  torso @1 5 chest-lift\n  voice @2 of @1 +2',
    ),
  },
  {
    code: 'pair.join',
    said: 'snag A8',
    has: duet(
      '  feet @1 1 step R forward; 2 step L forward; 3 step R forward; 4 touch L together\n  feet @2 1 step R in-place; 2 step L in-place; 3 step R in-place; 4 touch L together',
    ),
    not: duet('  feet 1 step R forward; 2 step L forward; 3 step R forward; 4 touch L together'),
  },
] as const
