import type { Combination, Event } from '../src/core/combination/combination'
import { defaultStart } from '../src/core/combination/start'
import type { FindingCode } from '../src/core/findings/finding'
import { houseOf, type USUAL_HOUSE, USUAL_RULES } from '../src/core/house/house'
import { vocabulary } from '../src/core/moves/vocabulary'
import { readSheet } from '../src/core/sheet/readSheet'
import { tick } from '../src/core/time/time'
import { PAIR_CASES } from './pairCases'
import { PROP_CASES } from './propCases'
import { combination, feet, move, on } from './write'

const steps = '1 step R side; 2 touch L together; 3 step L side; 4 touch R together'
const walk = (n: number, more = '') =>
  Array.from({ length: n }, (_, i) => `${i + 1} step ${i % 2 ? 'L' : 'R'} forward${more}`).join(';')
const turns = (n: number) => walk(n, ' turn 180')
const hops = (n: number) =>
  `1 step R side; ${Array.from({ length: n }, (_, i) => `${i + 2} hop R`).join('; ')}`
const texture = (id: string, when: string, more: Partial<Event> = {}) =>
  move(id, when, undefined, more)
const facing = (degrees: number, events: readonly Event[]): Combination => {
  const made = combination([events])
  return { ...made, phrases: [{ ...made.phrases[0]!, facings: [{ at: tick(36), degrees }] }] }
}

const holding = (arms: string): Combination =>
  readSheet(`sway 1\nphrase A 8\n arms ${arms}\n prop 1-8 R "fan"`, vocabulary).combination

const sheet = (feet: string): Combination =>
  readSheet(`sway 2\nphrase A 8\n feet ${feet}`, vocabulary).combination

interface Case {
  readonly code: FindingCode
  /** Severity and place, as they are said. */
  readonly said: string
  readonly has: Combination
  /** As near as it gets without having it. */
  readonly not: Combination
  readonly house?: typeof USUAL_HOUSE
  /** No change of the combination alone can help. */
  readonly noRepair?: true
}

const at = (tempo: number, events: readonly Event[], more: Partial<Combination> = {}) =>
  combination([events], { tempo, ...more })

/** A dance for every finding, and one that is as near to it as it gets without having it. */
export const CASES: readonly Case[] = [
  {
    code: 'feet.loaded',
    said: 'fault A2',
    has: combination([feet('1 step R side; 2 step R side')]),
    not: combination([feet('1 touch R side; 2 step R side')]),
  },
  {
    code: 'feet.loaded-touch',
    said: 'fault A2',
    has: combination([feet('1 step R side; 2 kick R forward')]),
    not: combination([feet('1 step R side; 2 kick L forward')]),
  },
  {
    code: 'feet.no-support',
    said: 'fault A2',
    has: combination([feet('1 kick R forward; 2 sway R')]),
    not: combination([feet('1 touch R forward; 2 sway R')]),
  },
  // 0.22 s is half a count at 136.36: one foot twice on a half count is right up to there.
  {
    code: 'feet.too-fast',
    said: 'snag A1&',
    has: at(137, feet('1 touch R side; 1& touch R side')),
    not: at(136, feet('1 touch R side; 1& touch R side')),
  },
  // 0.9 m in 0.5 s is the widest: large steps forward lie 0.68 m apart and need 0.378 s, a count at 158.9.
  {
    code: 'feet.wide-quick',
    said: 'snag A2',
    has: at(159, feet('1 step R forward large; 2 step L forward large')),
    not: at(158, feet('1 step R forward large; 2 step L forward large')),
  },
  {
    code: 'turn.too-fast',
    said: 'snag A2',
    has: combination([feet('1 step R forward; 2 step L side turn 450')]),
    not: combination([feet('1 step R forward; 2 step L side turn 360')], { tempo: 60 }),
  },
  {
    code: 'turn.blocked',
    said: 'snag A2',
    has: combination([feet('1 step R cross-front ball; 2 pivot 180; 3 close L')]),
    not: combination([feet('1 step R cross-front ball; 2 pivot -180; 3 close L')]),
  },
  {
    code: 'turn.sum',
    said: 'snag A4',
    has: facing(90, feet('1 step R side turn 180; 2 close L; 3 step R side; 4 touch L together')),
    not: facing(180, feet('1 step R side turn 180; 2 close L; 3 step R side; 4 touch L together')),
  },
  {
    code: 'join.foot',
    said: 'snag A2',
    has: combination([feet('1 sway R; 2 kick L')]),
    not: combination([feet('1 sway R; 2 touch L')]),
  },
  {
    code: 'join.facing',
    said: 'snag A2',
    has: combination([feet('1 step R side turn 45; 2 touch L together')]),
    not: combination([feet('1 step R side turn 45; 2 touch L together turn -45')]),
  },
  {
    code: 'join.place',
    said: 'note A4',
    has: combination([
      feet('1 step R forward; 2 step L forward; 3 step R forward; 4 touch L together'),
    ]),
    not: combination([feet('1 step R forward; 2 step L back; 3 step R side; 4 touch L together')]),
  },
  {
    code: 'join.arms',
    said: 'snag A8',
    has: combination([[...feet(steps), move('side-rise', '1-8')]]),
    not: combination([
      [
        ...feet(steps),
        move('side-rise', '1-4'),
        on('arms', '5-8', { kind: 'arms', R: 'low', L: 'low' }),
      ],
    ]),
  },
  {
    code: 'join.hips',
    said: 'note A8',
    has: combination([[on('hips', '3', { kind: 'at', place: 'R' })]]),
    not: combination([[...feet(steps), on('hips', '3', { kind: 'at', place: 'R' })]]),
  },
  {
    code: 'join.ribs',
    said: 'note A8',
    has: combination([[...feet(steps), on('torso', '3', { kind: 'at', place: 'F' })]]),
    not: combination([[...feet(steps), on('torso', '3', { kind: 'at', place: 'C' })]]),
  },
  {
    code: 'join.gaze',
    said: 'note A8',
    has: combination([feet(steps)], { start: { ...defaultStart('R'), gaze: 'L' } }),
    not: combination([[...feet(steps), on('head', '3', { kind: 'look', gaze: 'L' })]]),
  },
  {
    code: 'turn.planted',
    said: 'snag A3',
    has: combination([feet('1 centre; 3 pivot 135')]),
    not: combination([feet('1 centre; 3 pivot 90')]),
  },
  {
    code: 'turn.low',
    said: 'care A2',
    has: combination([feet('1 step R in-place; 1& bend; 2 pivot -180')]),
    not: combination([feet('1 step R in-place; 1& bend; 2 pivot -135')]),
  },
  {
    code: 'turn.many',
    said: 'care A5',
    has: combination([feet(turns(5))], { level: 'new' }),
    not: combination([feet(turns(4))], { level: 'new' }),
  },
  {
    code: 'feet.same-sway',
    said: 'note A2',
    has: combination([feet('1 step R side; 2 sway R')]),
    not: combination([feet('1 step R side; 2 sway L')]),
  },
  {
    code: 'feet.left-out',
    said: 'note A3',
    has: combination([feet('1 touch R forward; 3 sway R')]),
    not: combination([feet('1 touch R together; 3 sway R')]),
  },
  {
    code: 'head.quick',
    said: 'care A1',
    has: at(120, [move('head-roll', '1-2')], { level: 'improver' }),
    not: at(60, [move('head-roll', '1-2')], { level: 'improver' }),
  },
  {
    code: 'head.level',
    said: 'care A1',
    has: combination([[move('head-whip', '1')]], { level: 'new' }),
    not: combination([[move('head-whip', '1')]], { level: 'improver' }),
  },
  {
    code: 'load.impact',
    said: 'note A6',
    has: combination([feet(hops(5))], { level: 'new' }),
    not: combination([feet(hops(4))], { level: 'new' }),
  },
  {
    code: 'stay.moved',
    said: 'snag A1',
    has: readSheet('sway 2\nphrase A 8\n torso 1-4 body-wave-down\n head 1-8 stay', vocabulary)
      .combination,
    not: readSheet('sway 2\nphrase A 8\n torso 1-4 body-wave-down\n head 5-8 stay', vocabulary)
      .combination,
  },
  {
    code: 'rule.broken',
    said: 'snag A3',
    has: readSheet(
      'sway 2\nrule step L forward, step R back\nphrase A 8\n feet 1 step L forward; 2 step R back; 3 step L side',
      vocabulary,
    ).combination,
    not: readSheet(
      'sway 2\nrule step L forward, step R back\nphrase A 8\n feet 1 step L forward; 2 step R back; 3 step L in-place',
      vocabulary,
    ).combination,
  },
  {
    code: 'option.ends',
    said: 'note A8',
    noRepair: true,
    has: readSheet(
      'sway 2\nphrase A 8\n option small easier "a touch at the end"\n feet 1 step R side; 8 step L\n feet [small] 8 touch L',
      vocabulary,
    ).combination,
    not: readSheet(
      'sway 2\nphrase A 8\n option small easier "on the spot"\n feet 1 step R side; 8 step L\n feet [small] 1 step R in-place',
      vocabulary,
    ).combination,
  },
  {
    code: 'prepare.lost',
    said: 'note A3',
    has: readSheet('sway 2\nphrase A 8\n prepare 3 "elbow in" for 7', vocabulary).combination,
    not: readSheet(
      'sway 2\nphrase A 8\n feet 7 step R side\n prepare 3 "elbow in" for 7',
      vocabulary,
    ).combination,
  },
  {
    code: 'prop.hand',
    said: 'snag A3',
    has: holding('3 both prayer'),
    not: holding('1 R crown, L hips'),
  },
  {
    code: 'join.level',
    said: 'note A8',
    has: combination([feet(`${steps}; 5 lower`)], {
      start: { ...defaultStart('R'), level: 'low' },
    }),
    not: combination([feet(`${steps}; 5 rise`)]),
  },
  {
    code: 'hips.loaded-lift',
    said: 'snag A3',
    has: combination([[...feet('3 step R side'), move('hip-lift', '3', 'R')]]),
    not: combination([[...feet('3 step R side ball'), move('hip-lift', '3', 'R')]]),
  },
  {
    code: 'hips.locked',
    said: 'snag A1',
    has: combination([[...feet('2 straighten'), texture('knee-shimmy', '1-4')]]),
    not: combination([[...feet('2 lower'), texture('knee-shimmy', '1-4')]]),
  },
  {
    code: 'layer.clash',
    said: 'snag A2',
    has: combination([[move('hip-circle-small', '1-2'), move('hip-bump', '2', 'R')]]),
    not: combination([[move('hip-circle-small', '1-2'), move('hip-bump', '3', 'R')]]),
  },
  {
    code: 'layer.no-time',
    said: 'snag A3',
    has: at(132, [
      on('hips', '2', { kind: 'at', place: 'R' }),
      move('half-circle-front', '3', 'R'),
    ]),
    // From the left it starts where it is; and C is always a start.
    not: combination([
      [on('hips', '1-2', { kind: 'at', place: 'L' }), move('half-circle-front', '3-4', 'R')],
    ]),
  },
  // Through second both palms go 1.53 m: at 3.5 m a second that needs 0.44 s, a count at 137.
  {
    code: 'arms.far',
    said: 'snag A1',
    has: at(138, [on('arms', '1', { kind: 'arms', R: 'crown', L: 'crown', via: 'side' })]),
    not: at(136, [on('arms', '1', { kind: 'arms', R: 'crown', L: 'crown', via: 'side' })]),
  },
  // The small hip circle likes 0.7 s and takes 0.56: two counts at 214.
  {
    code: 'move.too-fast',
    said: 'snag A1',
    has: at(123, [move('hip-circle-small', '1-1')]),
    not: at(122, [move('hip-circle-small', '1-1')]),
  },
  {
    code: 'move.needs',
    said: 'note A3',
    has: combination([[...feet('1 step R side; 2 centre'), move('hip-lift', '3', 'R')]]),
    not: combination([
      [...feet('1 step R side; 2 centre; 3 touch R together'), move('hip-lift', '3', 'R')],
    ]),
  },
  {
    code: 'head.turning',
    said: 'care A1',
    has: at(60, [
      ...feet('1 step R side; 2 step L side turn 180; 3 step R side turn 180'),
      move('head-roll', '1-4'),
    ]),
    not: at(60, [...feet('1 step R side; 2 step L side; 3 step R side'), move('head-roll', '1-4')]),
  },
  {
    code: 'load.high',
    said: 'note A1',
    has: combination(
      [
        [
          move('hip-circle-large', '1-2'),
          texture('shoulder-shimmy', '1-2'),
          ...feet('1 step R side; 1& close L'),
        ],
      ],
      { level: 'new' },
    ),
    not: combination([[move('hip-sway', '1-2', 'R'), ...feet('1 step R side')]], { level: 'new' }),
  },
  {
    code: 'load.risk',
    said: 'care A1',
    has: at(60, jumps()),
    not: at(60, jumps().slice(0, 16)),
  },
  {
    code: 'space.room',
    said: 'snag A1',
    has: combination([feet(walk(8))]),
    not: combination([feet(walk(8, ' small'))]),
  },
  {
    code: 'space.neighbour',
    said: 'snag A1',
    has: combination([[on('arms', '1', { kind: 'arms', R: 'second', L: 'second' })]]),
    not: combination([[on('arms', '1', { kind: 'arms', R: 'high-v', L: 'high-v' })]]),
    house: houseOf({ ...USUAL_RULES, heights: { shortest: 1.6, tallest: 1.8 } }),
  },
  // A kicked foot hangs there for 4 counts: 2 s at 120.
  {
    code: 'balance.long',
    said: 'note A1',
    has: at(119, feet('1 kick R forward; 5 touch R forward')),
    not: at(120, feet('1 kick R forward; 5 touch R forward')),
  },
  {
    code: 'legs.twist',
    said: 'care A2',
    has: readSheet(
      'sway 2\nphrase A 8\n feet 1 step R side; 1& bend\n legs 2 R in until 2',
      vocabulary,
    ).combination,
    not: readSheet(
      'sway 2\nphrase A 8\n feet 1 touch R side; 1& bend\n legs 2 R in until 2',
      vocabulary,
    ).combination,
  },
  {
    code: 'join.legs',
    said: 'note A8',
    has: readSheet(
      'sway 2\nphrase A 8\n feet 1 step R side; 8 touch L together\n legs 5 R out',
      vocabulary,
    ).combination,
    not: readSheet(
      'sway 2\nphrase A 8\n feet 1 step R side; 8 touch L together\n legs 5 R out until 6',
      vocabulary,
    ).combination,
  },
  {
    code: 'join.trunk',
    said: 'note A8',
    has: readSheet(
      'sway 2\nphrase A 8\n feet 1 step R side; 8 touch L together\n torso 5 at twist L',
      vocabulary,
    ).combination,
    not: readSheet(
      'sway 2\nphrase A 8\n feet 1 step R side; 8 touch L together\n torso 5 at twist L until 7',
      vocabulary,
    ).combination,
  },
  {
    code: 'arms.low',
    said: 'snag A2',
    has: readSheet('sway 2\nphrase A 8\n arms 2 both floor', vocabulary).combination,
    not: readSheet('sway 2\nphrase A 8\n feet 1 deep; 8 up\n arms 2 both floor', vocabulary)
      .combination,
  },
  {
    code: 'look.behind',
    said: 'snag A3',
    has: readSheet(
      'sway 2\nphrase A 8\n feet 1 step R side turn 180\n head 3 look audience',
      vocabulary,
    ).combination,
    not: readSheet(
      'sway 2\nphrase A 8\n feet 1 step R side turn 90; 2 close L\n head 3 look audience',
      vocabulary,
    ).combination,
  },
  {
    code: 'turn.idle',
    said: 'note A5',
    has: sheet('1 step R side; 2 close L; 5-8 share 180'),
    not: sheet('1 step R side; 2 close L; 1-2 share 180'),
  },
  // 8 counts deep are 10 s at 48.
  {
    code: 'legs.long',
    said: 'note A1',
    has: at(47, feet('1 deep')),
    not: at(48, feet('1 deep')),
  },
  {
    code: 'move.remainder',
    said: 'note A1',
    has: combination([[move('grapevine', '1-6', 'R')]]),
    not: combination([[move('grapevine', '1-4', 'R')]]),
  },
  {
    code: 'move.unknown',
    said: 'note A1',
    has: combination([[on('hips', '1', { kind: 'move', move: 'mystery' })]]),
    not: combination([[on('hips', '1', { kind: 'move', move: 'hip-drop', side: 'R' })]]),
  },
  ...PAIR_CASES,
  ...PROP_CASES,
]

/** Seventeen jumps in nine counts: one more than a drill should have. */
function jumps(): readonly Event[] {
  return feet(
    Array.from({ length: 9 }, (_, i) => `${i + 1} jump both; ${i + 1}& jump both`)
      .join(';')
      .replace(/; 9& jump both$/, ''),
  )
}
