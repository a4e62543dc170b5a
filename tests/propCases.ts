import type { Combination } from '../src/core/combination/combination'
import { vocabulary } from '../src/core/moves/vocabulary'
import { readSheet } from '../src/core/sheet/readSheet'

const STEPS =
  '  feet 1 step R side; 2 touch L together; 3 step L side; 4 touch R together; 5 step R side; 6 touch L together; 7 step L side; 8 touch R together\n'
const VEIL = 'carry veil "Silk" 2.5 x 1.1 behind, R top-R pinch, L top-L pinch, ready hair-in'
const STICK = 'carry stick "Reed" 0.9 x 0.03 none, R end fist'
const TURNS =
  '  feet 1 step R side turn 180; 2 step L side turn 180; 3 step R side; 4 touch L together; 5 step L side; 6 touch R together\n'

/** One dancer who carries something, and what is written under her phrase. */
function carrying(
  lines: string,
  { carry = VEIL, feet = STEPS, tempo = 80, arms = 'high-v' } = {},
): Combination {
  const { combination, messages } = readSheet(
    `sway 2\ntempo ${tempo}\nstart arms ${arms}\n${carry}\nphrase A 8\n${feet}${lines}`,
    vocabulary,
  )
  if (messages[0]) throw new Error(messages[0].text)
  return combination
}

/** Each finding about what is carried: where it is so, and the nearest where it is not. */
export const PROP_CASES = [
  {
    code: 'prop.full',
    said: 'fault A3',
    has: carrying('  prop 3 take R; 8 let-go L; 8& take L', { carry: STICK }),
    not: carrying('  prop 3 take L; 8 let-go L', { carry: STICK }),
  },
  {
    code: 'prop.empty',
    said: 'fault A3',
    has: carrying('  prop 3 swish L', { carry: 'carry fan "Dusk" 0.3 x 0.5 none, R handle fist' }),
    not: carrying('  prop 3 swish R', { carry: 'carry fan "Dusk" 0.3 x 0.5 none, R handle fist' }),
  },
  {
    code: 'prop.two-hands',
    said: 'fault A5',
    has: carrying('  prop 2 let-go L; 5-6 frame; 8 take L'),
    not: carrying('  prop 2 let-go L; 3 take L; 5-6 frame; 7-8 drape to behind'),
  },
  {
    code: 'prop.drape',
    said: 'fault A5',
    has: carrying('  prop 1-2 drape; 5-6 over; 7 drape to behind'),
    not: carrying('  prop 1-2 drape; 3-4 drape to front; 5-6 over'),
  },
  {
    code: 'prop.no-turn',
    said: 'snag A3',
    has: carrying('  prop 2 ready elbow-in; 3-4 roll-in R'),
    not: carrying('  prop 2& ready elbow-in; 3-4 roll-in R; 7-8 unroll', {
      feet: '  feet 1 step R side; 2 close L; 3 step R side turn 90; 4 step L side turn 90; 5 step R side; 6 touch L together; 7 step L side turn -90; 8 close R turn -90; 8& sway L\n',
    }),
  },
  {
    code: 'prop.unready',
    said: 'snag A7',
    has: carrying('  prop 1-2 over to front; 7-8 over'),
    not: carrying('  prop 1-2 over to front; 5 ready hair-in; 7-8 over'),
  },
  {
    code: 'prop.late',
    said: 'snag A1',
    has: carrying('  prop 1 over to front; 3 ready hair-in; 7-8 over', { tempo: 110 }),
    not: carrying('  prop 1-2 over to front; 3 ready hair-in; 7-8 over', { tempo: 110 }),
  },
  {
    code: 'prop.lag',
    said: 'snag A2&',
    has: carrying('  prop 2&-4 frame; 7-8 drape to behind', { feet: TURNS }),
    not: carrying('  prop 4-5 frame; 7-8 drape to behind', { feet: TURNS }),
  },
  {
    code: 'prop.hands-apart',
    said: 'snag A3',
    has: carrying('  arms 3-4 both second; 7-8 both high-v', {
      carry: 'carry scarf "Dusk" 1.2 x 0.4 none, R end fist, L tip fist',
    }),
    not: carrying('  arms 3-4 both second; 7-8 both high-v', {
      carry: 'carry scarf "Dusk" 1.8 x 0.4 none, R end fist, L tip fist',
    }),
  },
  {
    code: 'prop.clap',
    said: 'snag A3',
    has: carrying('  arms 3 clap', { carry: STICK, arms: 'low' }),
    not: carrying('  arms 3 clap', {
      carry: 'carry stick "Reed" 0.9 x 0.03 none, R end hook',
      arms: 'low',
    }),
  },
  {
    code: 'prop.wound',
    said: 'snag A5',
    has: carrying(
      '  prop 1& ready elbow-in; 2-3 roll-in R; 7-8 unroll\n  arms 5 R second; 6 R high-v',
      {
        feet: '  feet 1 step R side; 2 step L side turn 90; 3 step R side turn 90; 4 touch L together; 5 step L side; 6 touch R together; 7 step R side turn -90; 8 step L side turn -90\n',
      },
    ),
    not: carrying(
      '  prop 1& ready elbow-in; 2-3 roll-in R; 7-8 unroll\n  arms 5 L second; 6 L high-v',
      {
        feet: '  feet 1 step R side; 2 step L side turn 90; 3 step R side turn 90; 4 touch L together; 5 step L side; 6 touch R together; 7 step R side turn -90; 8 step L side turn -90\n',
      },
    ),
  },
  {
    code: 'prop.underfoot',
    said: 'snag A5',
    has: carrying('  arms 3-4 R second; 7-8 R high-v\n  prop 4 let-go L', {
      carry: `${VEIL}\nonce`,
    }),
    not: carrying('  arms 3-4 R second; 7-8 R high-v\n  prop 4 carry; 7 carry'),
  },
  {
    code: 'prop.air',
    said: 'fault A3',
    has: carrying('  prop 3 throw R; 7 catch R', { carry: STICK, arms: 'second' }),
    not: carrying('  prop 3 throw R; 4 catch R', { carry: STICK, arms: 'second' }),
  },
  {
    code: 'prop.join',
    said: 'snag A8',
    has: carrying('  prop 1-2 over to front'),
    not: carrying('  prop 1-2 over to front; 3 ready hair-in; 7-8 over'),
  },
] as const
