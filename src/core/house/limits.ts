import { z } from 'zod'
import { ARM_PLACES, type ArmPlace, PALM_CM, REACH_CM } from '../body/places'

/** A house limit: what it decides, what it usually is, and how far it may be changed. */
export interface HouseLimit {
  readonly words: string
  readonly unit: 's' | 'm' | 'cm' | '°' | '°/s' | 'm/s' | '×' | 'points' | 'times' | 'counts'
  readonly usual: number
  readonly least: number
  readonly most: number
}

const limit = (
  words: string,
  usual: number,
  unit: HouseLimit['unit'],
  least = 0,
  most = usual * 5 || 1,
): HouseLimit => ({ words, unit, usual, least, most })

/**
 * Every limit of the model that is a judgement and not a law (marked (h) there), in one
 * place: an instructor who disagrees changes it, and everything is computed anew.
 */
const SINGLE_LIMITS = {
  'quick.sameFoot': limit('One foot lands twice no sooner than', 0.22, 's'),
  'quick.sameFootFault': limit('One foot twice can’t be danced under', 0.15, 's'),
  'quick.eitherFoot': limit('Two landings are no closer than', 0.11, 's'),
  'quick.eitherFootFault': limit('Two landings can’t be danced under', 0.08, 's'),
  'quick.stride': limit('Longest step when there is time', 0.9, 'm', 0.2, 2),
  'quick.strideTime': limit('Time the longest step needs', 0.5, 's', 0.1, 2),
  'landing.together': limit('Feet together, apart by', 0.12, 'm', 0.02, 0.4),
  'landing.side': limit('A step to the side', 0.45, 'm', 0.1, 1),
  'landing.ahead': limit('A step forward or back', 0.45, 'm', 0.1, 1),
  'landing.ownSide': limit('… forward or back, and to its own side', 0.08, 'm', 0, 0.4),
  'landing.diagonal': limit('A diagonal step, each way', 0.32, 'm', 0.05, 1),
  'landing.crossAhead': limit('A crossing step, ahead or behind', 0.18, 'm', 0.02, 0.6),
  'landing.crossPast': limit('A crossing step, past the other foot', 0.1, 'm', 0.02, 0.6),
  'landing.stance': limit('Neutral stance, feet apart by', 0.22, 'm', 0.05, 0.8),
  'landing.jumpOut': limit('A jump out, or to a side', 0.45, 'm', 0.1, 1),
  'landing.hop': limit('A hop that travels', 0.3, 'm', 0.05, 1),
  'landing.jump': limit('A jump forward or back', 0.35, 'm', 0.05, 1),
  'landing.middle': limit('The middle, inside the standing foot by', 0.11, 'm', 0, 0.4),
  'landing.wrongSide': limit('A free foot may hang on the wrong side by', 0.12, 'm', 0, 0.6),
  'landing.tooFar': limit('A free foot may hang away by', 0.7, 'm', 0.2, 1.5),
  'landing.apart': limit('Feet stand apart from', 0.35, 'm', 0.1, 1),
  'landing.small': limit('A small step is smaller by', 0.55, '×', 0.1, 1),
  'landing.large': limit('A large step is larger by', 1.5, '×', 1, 3),
  'turn.oneSupport.new': limit('Turn on one support, new dancers', 180, '°', 45, 1440),
  'turn.oneSupport.improver': limit('Turn on one support, improvers', 360, '°', 45, 1440),
  'turn.oneSupport.intermediate': limit('Turn on one support, intermediate', 540, '°', 45, 1440),
  'turn.oneSupport.advanced': limit('Turn on one support, advanced', 720, '°', 45, 1440),
  'turn.speed.new': limit('Turning speed, new dancers', 360, '°/s', 60, 1500),
  'turn.speed.improver': limit('Turning speed, improvers', 500, '°/s', 60, 1500),
  'turn.speed.intermediate': limit('Turning speed, intermediate', 600, '°/s', 60, 1500),
  'turn.speed.advanced': limit('Turning speed, advanced', 720, '°/s', 60, 1500),
  'turn.planted': limit('Both feet turn by themselves as far as', 90, '°', 0, 360),
  'turn.many.new': limit('Turning one way in 8 counts, new dancers', 720, '°', 180, 5760),
  'turn.many.improver': limit('Turning one way in 8 counts, improvers', 720, '°', 180, 5760),
  'turn.many.intermediate': limit(
    'Turning one way in 8 counts, intermediate',
    1440,
    '°',
    180,
    5760,
  ),
  'turn.many.advanced': limit('Turning one way in 8 counts, advanced', 2160, '°', 180, 5760),
  'turn.over': limit('Turns are said from so much over their limit', 1.1, '×', 1, 2),
  'reach.compass': limit('Hips or ribs go one step of the compass in', 0.18, 's'),
  'reach.armMetre': limit('A palm goes a metre in', 0.35, 's'),
  'reach.armLeast': limit('A palm never goes anywhere under', 0.15, 's'),
  'reach.gaze': limit('The head turns 90° in', 0.2, 's'),
  'reach.leg': limit('A leg turns in or out in', 0.15, 's'),
  'reach.armSpeed': limit('A palm goes at the most', 3.5, 'm/s', 0.5, 10),
  'reach.ofFastest': limit('A move may have less than its comfortable time, by', 0.7, '×', 0.3, 1),
  'head.rolls': limit('Head rolls and whips in 8 counts, at the most', 4, 'times', 0, 32),
  'head.quickRoll': limit('A head roll is quick under', 1.9, 's'),
  'head.quickWhip': limit('A head whip is quick under', 0.9, 's'),
  'head.behind': limit('The audience is behind one from', 90, '°', 0, 180),
  'load.limit.new': limit('Load for new dancers', 4.5, 'points', 1, 30),
  'load.limit.improver': limit('Load for improvers', 5.5, 'points', 1, 30),
  'load.limit.intermediate': limit('Load for intermediate dancers', 7, 'points', 1, 30),
  'load.limit.advanced': limit('Load for advanced dancers', 10, 'points', 1, 30),
  'load.over': limit('Load is said from so much over its limit', 1.1, '×', 1, 2),
  'load.still': limit('Hips and trunk weigh less where the feet begin nothing', 0.85, '×', 0.3, 1),
  'load.impact.new': limit('Hops, leaps and jumps in 8 counts, new dancers', 4, 'times', 0, 96),
  'load.impact.improver': limit('Hops, leaps and jumps in 8 counts, improvers', 8, 'times', 0, 96),
  'load.impact.intermediate': limit(
    'Hops, leaps and jumps in 8 counts, intermediate',
    16,
    'times',
    0,
    96,
  ),
  'load.impact.advanced': limit('Hops, leaps and jumps in 8 counts, advanced', 24, 'times', 0, 96),
  'risk.drill.neck': limit('Neck repetitions in a drill', 8, 'times', 0, 200),
  'risk.drill.back': limit('Back repetitions in a drill', 8, 'times', 0, 200),
  'risk.drill.knees': limit('Knee repetitions in a drill', 16, 'times', 0, 200),
  'risk.drill.impact': limit('Impacts in a drill', 16, 'times', 0, 200),
  'risk.class.neck': limit('Neck repetitions in a class', 24, 'times', 0, 600),
  'risk.class.back': limit('Back repetitions in a class', 24, 'times', 0, 600),
  'risk.class.knees': limit('Knee repetitions in a class', 48, 'times', 0, 600),
  'risk.class.impact': limit('Impacts in a class', 64, 'times', 0, 600),
  'space.armMargin': limit('Air beyond the farthest palm', 0.1, 'm', 0, 1),
  'space.sideways': limit('Next dancer sideways at', 1.6, 'm', 0.6, 6),
  'space.deep': limit('Next row at', 1.8, 'm', 0.6, 6),
  'join.travel': limit('A round may end away from its start by', 0.5, 'm', 0, 10),
  'pair.apart': limit('Two who stand by each other are apart by', 1, 'm', 0.3, 4),
  'pair.apartHeld': limit('… with a hand held', 0.8, 'm', 0.3, 2),
  'pair.place': limit('A place may be missed by', 0.25, 'm', 0.02, 2),
  'pair.facing': limit('… and its facing by', 30, '°', 0, 180),
  'pair.drawStep': limit('A step goes farther for a place, at the most by', 0.12, 'm', 0, 0.4),
  'pair.drawFar': limit('All steps of a place together, at the most', 0.5, 'm', 0, 2),
  'pair.bodySide': limit('A body reaches from its middle, to the side', 0.25, 'm', 0.1, 0.6),
  'pair.bodyDeep': limit('… forward and back', 0.19, 'm', 0.1, 0.6),
  'pair.collision': limit('Two bodies can’t pass nearer than, of their reach', 0.7, '×', 0, 1),
  'pair.held': limit('With a hand held they may be nearer, by', 0.5, '×', 0, 1),
  'pair.tread': limit('A foot comes down beside another dancer’s no nearer than', 0.1, 'm', 0, 0.4),
  'pair.armLocked': limit('Two arms are locked from so much of their length', 0.95, '×', 0.5, 1),
  'pair.handSpeed': limit('A hand comes to a partner’s at the most', 3.5, 'm/s', 0.5, 10),
  'pair.stance': limit('Who carries another one has her feet apart by', 0.4, 'm', 0.1, 1),
  'pair.join': limit('A dancer may end a round away from her next start by', 0.35, 'm', 0, 4),
  'pair.joinRest': limit('… and for each count of rest by', 0.35, 'm', 0, 2),
  'pair.contactTempo': limit('Two dance with each other first at the tempo', 0.8, '×', 0.3, 1),
  'pair.eyes': limit('Somebody is looked at up to', 100, '°', 30, 180),
  'prop.handsApart': limit('Two hands pull a cloth out to, of its length', 1.05, '×', 0.5, 2),
  'prop.passApart': limit('One hand passes to the other one over', 0.35, 'm', 0.05, 1),
  'prop.lag': limit('A cloth hangs still within', 30, '°', 5, 180),
  'prop.settles': limit('A veil of 2.5 m has followed a turn after', 0.45, 's', 0, 2),
  'prop.wound': limit('A cloth may be wound round, half turns', 2, 'times', 0, 8),
  'prop.onFloor': limit('Cloth on the floor reaches round, of what is too long', 0.35, '×', 0, 1),
  'prop.landing': limit('A throw comes down where the hand was, within', 0.3, 'm', 0.05, 2),
  'prop.airLeast': limit('A throw takes at least', 0.45, 's', 0.1, 2),
  'prop.airStick': limit('… with a stick at the most', 1.2, 's', 0.2, 4),
  'prop.airCloth': limit('… with a cloth at the most', 2, 's', 0.2, 5),
  'balance.air': limit('One foot in the air, at the longest', 2, 's', 0.2, 20),
  'balance.toes': limit('Standing on the toes, at the longest', 4, 's', 0.2, 60),
  'balance.low': limit('Low, at the longest', 20, 's', 1, 600),
  'balance.deep': limit('Deep, at the longest', 10, 's', 1, 600),
  'balance.toesWalking': limit('Walking on the toes, at the longest', 12, 's', 0.2, 120),
  'plan.talk': limit('Talk for a phrase, before anything is counted', 6, 's', 0, 60),
  'plan.talkThing': limit('… more for each new thing', 8, 's', 0, 60),
  'plan.talkThing3': limit('… for one that asks something', 14, 's', 0, 120),
  'plan.talkThing4': limit('… for one that asks much', 20, 's', 0, 120),
  'plan.talkTechnique': limit(
    '… technique of a hard new thing, new dancers and improvers',
    25,
    's',
    0,
    180,
  ),
  'plan.talkMet': limit('… for a thing met before that is not light', 4, 's', 0, 60),
  'plan.talkTimes.new': limit('… all of it for new dancers, times', 1.5, '×', 0.2, 4),
  'plan.talkTimes.improver': limit('… all of it for improvers, times', 1.2, '×', 0.2, 4),
  'plan.talkTimes.intermediate': limit('… all of it for intermediate, times', 1, '×', 0.2, 4),
  'plan.talkTimes.advanced': limit('… all of it for advanced, times', 0.8, '×', 0.2, 4),
  'plan.talkFirst': limit('… the first phrase of a class, times', 1.3, '×', 1, 3),
  'plan.talkSide': limit('Talk before the other side', 8, 's', 0, 60),
  'plan.talkJoin': limit('Talk before a run from the top', 5, 's', 0, 60),
  'plan.talkTask': limit('Talk before a run with a task', 12, 's', 0, 60),
  'plan.talkMost': limit('Talk before a step, at the most', 90, 's', 15, 90),
  'plan.talkTry': limit('Talk is parted by tries from', 40, 's', 10, 90),
  'plan.listen': limit('Listening to the music before its first run', 20, 's', 0, 120),
  'plan.walk': limit('A count of a walk', 1.6, 's', 0.5, 6),
  'plan.heavy': limit('A layer is heavy from so much of the load limit', 0.7, '×', 0.3, 1),
  'plan.halves.new': limit(
    'A phrase is taught in halves over so many new things, new dancers',
    5,
    'times',
    1,
    40,
  ),
  'plan.halves.improver': limit(
    'A phrase is taught in halves over so many new things, improvers',
    7,
    'times',
    1,
    40,
  ),
  'plan.halves.intermediate': limit(
    'A phrase is taught in halves over so many new things, intermediate',
    9,
    'times',
    1,
    40,
  ),
  'plan.halves.advanced': limit(
    'A phrase is taught in halves over so many new things, advanced',
    12,
    'times',
    1,
    40,
  ),
  'plan.enough.new': limit('Whole rounds a phrase needs, new dancers', 8, 'times', 2, 8),
  'plan.enough.improver': limit('Whole rounds a phrase needs, improvers', 7, 'times', 2, 8),
  'plan.enough.intermediate': limit('Whole rounds a phrase needs, intermediate', 6, 'times', 2, 8),
  'plan.enough.advanced': limit('Whole rounds a phrase needs, advanced', 5, 'times', 2, 8),
  'plan.rounds': limit('Rounds of a step, a side, at the most', 8, 'times', 2, 8),
  'plan.longest': limit('A step dances at the most', 180, 's', 60, 180),
  'plan.piece': limit('A piece of one layer dances at the most', 60, 's', 20, 60),
  'plan.growing': limit('A run from the top has at the most', 32, 'counts', 8, 128),
  'plan.riseNone': limit('No tempo between two that differ by up to, times', 1.35, '×', 1.05, 3),
  'plan.riseOne': limit('One tempo between two that differ by up to, times', 1.8, '×', 1.05, 5),
  'plan.rise': limit('A tempo rises at once by at the most, times', 1.3, '×', 1.05, 2),
  'plan.music': limit('Music from so much of the tempo', 0.85, '×', 0.3, 1),
  'plan.breath': limit('Between two runs', 15, 's', 15, 120),
  'plan.water': limit('Water', 60, 's', 15, 300),
  'plan.questions': limit('Questions', 30, 's', 0, 300),
  'plan.pauseEvery': limit('A pause comes about every', 900, 's', 300, 1140),
  'plan.hold': limit('What is held in a cool-down is held a side', 25, 's', 20, 30),
  'call.lead': limit('A cue is over before its move by', 1, 'counts', 0, 8),
  'call.leadBig': limit(
    'A cue is over before a switch, a turn or a new phrase by',
    2,
    'counts',
    0,
    8,
  ),
  'repair.touch': limit('Step to touch, or touch to step', 1, 'points', 0.1, 20),
  'repair.touchLast': limit('Step to touch on the last event of a phrase', 0.6, 'points', 0.1, 20),
  'repair.swap': limit('The other foot for one event', 2, 'points', 0.1, 20),
  'repair.ballChange': limit('Make it a ball change', 1.5, 'points', 0.1, 20),
  'repair.insert': limit('A close on a free count', 1.2, 'points', 0.1, 20),
  'repair.sway': limit('A sway on a hold or on a free count', 0.8, 'points', 0.1, 20),
  'repair.swayHips': limit(
    'A sway is put in under a hip move to that side',
    0.5,
    'points',
    0.1,
    20,
  ),
  'repair.recover': limit('Recover before a foot comes home', 0.9, 'points', 0.1, 20),
  'repair.hop': limit('A leap becomes a hop', 1, 'points', 0.1, 20),
  'repair.link1': limit('A link of 1 count', 3, 'points', 0.1, 20),
  'repair.link2': limit('A link of 2 counts', 3.5, 'points', 0.1, 20),
  'repair.link4': limit('A link of 4 counts', 4.5, 'points', 0.1, 20),
  'repair.ownPhrase': limit('One occurrence becomes its own phrase', 0.8, 'points', 0.1, 20),
  'repair.otherSide': limit('One occurrence from the other side', 1, 'points', 0.1, 20),
} as const satisfies Record<string, HouseLimit>

const ONE: Readonly<Partial<Record<HouseLimit['unit'], string>>> = {
  points: 'point',
  times: 'time',
  counts: 'count',
}

/** The unit of a figure as it is said after a value: `1 count`, `2 counts`. */
export const unitAfter = (unit: HouseLimit['unit'], value: number): string =>
  (value === 1 ? ONE[unit] : undefined) ?? unit

/** The three ways a palm is measured from the chest centre, for the right hand. */
export const PALM_WAYS = ['right', 'up', 'front'] as const
type PalmId = `palm.${ArmPlace}.${(typeof PALM_WAYS)[number]}`
type CompassId = `compass.${'hips' | 'ribs'}.${'side' | 'forward' | 'back'}`
export type LimitId = keyof typeof SINGLE_LIMITS | PalmId | CompassId

const palmLimits = (): Record<string, HouseLimit> =>
  Object.fromEntries(
    ARM_PLACES.flatMap((place) =>
      PALM_WAYS.map((way, i) => [
        `palm.${place}.${way}`,
        limit(`Palm at ${place}, ${way}`, PALM_CM[place][i] ?? 0, 'cm', -120, 120),
      ]),
    ),
  )

const compassLimits = (): Record<string, HouseLimit> =>
  Object.fromEntries(
    (['hips', 'ribs'] as const).flatMap((part) =>
      (['side', 'forward', 'back'] as const).map((way) => [
        `compass.${part}.${way}`,
        limit(
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
export const LIMITS = {
  ...SINGLE_LIMITS,
  ...compassLimits(),
  ...palmLimits(),
} as Readonly<Record<LimitId, HouseLimit>>

export const LIMIT_IDS = Object.keys(LIMITS) as [LimitId, ...LimitId[]]
export const LimitId = z.enum(LIMIT_IDS)

/** What the first part of a figure's name is about. */
export const LIMIT_GROUPS: Readonly<Record<string, string>> = {
  quick: 'Quick feet',
  landing: 'Where a foot lands (a dancer of 1.65 m)',
  turn: 'Turns',
  reach: 'Reaching and speed',
  head: 'Head',
  load: 'Load',
  risk: 'Repetitions that pile up',
  space: 'Space',
  pair: 'Several dancers',
  prop: 'What is carried',
  join: 'Joins',
  balance: 'Balance',
  plan: 'How a class is built',
  call: 'Calling',
  repair: 'What a repair costs',
  compass: 'How far hips and ribs go',
  palm: 'Where the arms are: the right palm from the chest centre, the left mirrored',
}
