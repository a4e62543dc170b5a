import { z } from 'zod'
import { ArmPlace, PALM_CM, REACH_CM } from '../body/places'

/** A house figure: what it decides, what it usually is, and how far it may be changed. */
export interface Figure {
  readonly words: string
  readonly unit: 's' | 'm' | 'cm' | '°' | '°/s' | 'm/s' | '×' | 'points' | 'times' | 'counts'
  readonly usual: number
  readonly least: number
  readonly most: number
}

const figure = (
  words: string,
  usual: number,
  unit: Figure['unit'],
  least = 0,
  most = usual * 5 || 1,
): Figure => ({ words, unit, usual, least, most })

/**
 * Every figure of the model that is a judgement and not a law (marked (h) there), in one
 * place: an instructor who disagrees changes it, and everything is computed anew.
 */
const SINGLE_FIGURES = {
  'quick.sameFoot': figure('One foot lands twice no sooner than', 0.22, 's'),
  'quick.sameFootFault': figure('One foot twice can’t be danced under', 0.15, 's'),
  'quick.eitherFoot': figure('Two landings are no closer than', 0.11, 's'),
  'quick.eitherFootFault': figure('Two landings can’t be danced under', 0.08, 's'),
  'quick.stride': figure('Longest step when there is time', 0.9, 'm', 0.2, 2),
  'quick.strideTime': figure('Time the longest step needs', 0.5, 's', 0.1, 2),
  'landing.together': figure('Feet together, apart by', 0.12, 'm', 0.02, 0.4),
  'landing.side': figure('A step to the side', 0.45, 'm', 0.1, 1),
  'landing.ahead': figure('A step forward or back', 0.45, 'm', 0.1, 1),
  'landing.ownSide': figure('… forward or back, and to its own side', 0.08, 'm', 0, 0.4),
  'landing.diagonal': figure('A diagonal step, each way', 0.32, 'm', 0.05, 1),
  'landing.crossAhead': figure('A crossing step, ahead or behind', 0.18, 'm', 0.02, 0.6),
  'landing.crossPast': figure('A crossing step, past the other foot', 0.1, 'm', 0.02, 0.6),
  'landing.stance': figure('Neutral stance, feet apart by', 0.22, 'm', 0.05, 0.8),
  'landing.jumpOut': figure('A jump out, or to a side', 0.45, 'm', 0.1, 1),
  'landing.middle': figure('The middle, inside the standing foot by', 0.11, 'm', 0, 0.4),
  'landing.wrongSide': figure('A free foot may hang on the wrong side by', 0.12, 'm', 0, 0.6),
  'landing.tooFar': figure('A free foot may hang away by', 0.7, 'm', 0.2, 1.5),
  'landing.small': figure('A small step is smaller by', 0.55, '×', 0.1, 1),
  'landing.large': figure('A large step is larger by', 1.5, '×', 1, 3),
  'turn.oneSupport.new': figure('Turn on one support, new dancers', 180, '°', 45, 1440),
  'turn.oneSupport.improver': figure('Turn on one support, improvers', 180, '°', 45, 1440),
  'turn.oneSupport.intermediate': figure('Turn on one support, intermediate', 360, '°', 45, 1440),
  'turn.oneSupport.advanced': figure('Turn on one support, advanced', 720, '°', 45, 1440),
  'turn.speed.new': figure('Turning speed, new dancers', 300, '°/s', 60, 1500),
  'turn.speed.improver': figure('Turning speed, improvers', 400, '°/s', 60, 1500),
  'turn.speed.intermediate': figure('Turning speed, intermediate', 500, '°/s', 60, 1500),
  'turn.speed.advanced': figure('Turning speed, advanced', 720, '°/s', 60, 1500),
  'reach.compass': figure('Hips or ribs go one step of the compass in', 0.18, 's'),
  'reach.armMetre': figure('A palm goes a metre in', 0.35, 's'),
  'reach.armLeast': figure('A palm never goes anywhere under', 0.15, 's'),
  'reach.gaze': figure('The head turns 90° in', 0.2, 's'),
  'reach.armSpeed': figure('A palm goes at the most', 3.5, 'm/s', 0.5, 10),
  'reach.ofFastest': figure('A move may have less than its comfortable time, by', 0.8, '×', 0.3, 1),
  'head.rolls': figure('Head rolls and whips in 8 counts, at the most', 4, 'times', 0, 32),
  'load.limit.new': figure('Load for new dancers', 3.5, 'points', 1, 30),
  'load.limit.improver': figure('Load for improvers', 5, 'points', 1, 30),
  'load.limit.intermediate': figure('Load for intermediate dancers', 7, 'points', 1, 30),
  'load.limit.advanced': figure('Load for advanced dancers', 10, 'points', 1, 30),
  'risk.drill.neck': figure('Neck repetitions in a drill', 8, 'times', 0, 200),
  'risk.drill.back': figure('Back repetitions in a drill', 8, 'times', 0, 200),
  'risk.drill.knees': figure('Knee repetitions in a drill', 16, 'times', 0, 200),
  'risk.drill.impact': figure('Impacts in a drill', 16, 'times', 0, 200),
  'risk.class.neck': figure('Neck repetitions in a class', 24, 'times', 0, 600),
  'risk.class.back': figure('Back repetitions in a class', 24, 'times', 0, 600),
  'risk.class.knees': figure('Knee repetitions in a class', 48, 'times', 0, 600),
  'risk.class.impact': figure('Impacts in a class', 64, 'times', 0, 600),
  'space.armMargin': figure('Air beyond the farthest palm', 0.1, 'm', 0, 1),
  'space.sideways': figure('Next dancer sideways at', 1.6, 'm', 0.6, 6),
  'space.deep': figure('Next row at', 1.8, 'm', 0.6, 6),
  'join.travel': figure('A round may end away from its start by', 0.5, 'm', 0, 10),
  'balance.air': figure('One foot in the air, at the longest', 2, 's', 0.2, 20),
  'balance.toes': figure('Standing on the toes, at the longest', 4, 's', 0.2, 60),
  'balance.toesWalking': figure('Walking on the toes, at the longest', 12, 's', 0.2, 120),
  'plan.talkNew': figure('Talk before a new layer', 12, 's', 0, 120),
  'plan.talk': figure('Talk before any other drill', 5, 's', 0, 60),
  'call.lead': figure('A cue is over before its move by', 1, 'counts', 0, 8),
  'call.leadBig': figure(
    'A cue is over before a switch, a turn or a new phrase by',
    2,
    'counts',
    0,
    8,
  ),
  'repair.touch': figure('Step to touch, or touch to step', 1, 'points', 0.1, 20),
  'repair.touchLast': figure('Step to touch on the last event of a phrase', 0.6, 'points', 0.1, 20),
  'repair.swap': figure('The other foot for one event', 2, 'points', 0.1, 20),
  'repair.ballChange': figure('Make it a ball change', 1.5, 'points', 0.1, 20),
  'repair.insert': figure('A close on a free count', 1.2, 'points', 0.1, 20),
  'repair.sway': figure('A hold becomes a sway', 0.8, 'points', 0.1, 20),
  'repair.link1': figure('A link of 1 count', 3, 'points', 0.1, 20),
  'repair.link2': figure('A link of 2 counts', 3.5, 'points', 0.1, 20),
  'repair.link4': figure('A link of 4 counts', 4.5, 'points', 0.1, 20),
  'repair.ownPhrase': figure('One occurrence becomes its own phrase', 0.8, 'points', 0.1, 20),
  'repair.otherSide': figure('One occurrence from the other side', 1, 'points', 0.1, 20),
} as const satisfies Record<string, Figure>

const ONE: Readonly<Partial<Record<Figure['unit'], string>>> = {
  points: 'point',
  times: 'time',
  counts: 'count',
}

/** The unit of a figure as it is said after a value: `1 count`, `2 counts`. */
export const unitAfter = (unit: Figure['unit'], value: number): string =>
  (value === 1 ? ONE[unit] : undefined) ?? unit

/** The three ways a palm is measured from the chest centre, for the right hand. */
export const PALM_WAYS = ['right', 'up', 'front'] as const
type PalmId = `palm.${ArmPlace}.${(typeof PALM_WAYS)[number]}`
type CompassId = `compass.${'hips' | 'ribs'}.${'side' | 'forward' | 'back'}`
export type FigureId = keyof typeof SINGLE_FIGURES | PalmId | CompassId

const palmFigures = (): Record<string, Figure> =>
  Object.fromEntries(
    ArmPlace.options.flatMap((place) =>
      PALM_WAYS.map((way, i) => [
        `palm.${place}.${way}`,
        figure(`Palm at ${place}, ${way}`, PALM_CM[place][i] ?? 0, 'cm', -120, 120),
      ]),
    ),
  )

const compassFigures = (): Record<string, Figure> =>
  Object.fromEntries(
    (['hips', 'ribs'] as const).flatMap((part) =>
      (['side', 'forward', 'back'] as const).map((way) => [
        `compass.${part}.${way}`,
        figure(
          `${part === 'hips' ? 'Hips' : 'Ribs'} to the ${way}`,
          REACH_CM[part][way],
          'cm',
          1,
          30,
        ),
      ]),
    ),
  )

/** Every house figure by its name. */
export const FIGURES = {
  ...SINGLE_FIGURES,
  ...compassFigures(),
  ...palmFigures(),
} as Readonly<Record<FigureId, Figure>>

export const FigureId = z.enum(Object.keys(FIGURES) as [FigureId, ...FigureId[]])

/** What the first part of a figure's name is about. */
export const FIGURE_GROUPS: Readonly<Record<string, string>> = {
  quick: 'Quick feet',
  landing: 'Where a foot lands (a dancer of 1.65 m)',
  turn: 'Turns',
  reach: 'Reaching and speed',
  head: 'Head',
  load: 'Load',
  risk: 'Repetitions that pile up',
  space: 'Space',
  join: 'Joins',
  balance: 'Balance',
  plan: 'Talk in a class',
  call: 'Calling',
  repair: 'What a repair costs',
  compass: 'How far hips and ribs go',
  palm: 'Where the arms are: the right palm from the chest centre, the left mirrored',
}
