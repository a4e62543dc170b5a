import { facingWord } from '../body/facing'
import type { FootAction } from '../body/feet'
import { otherSide, type Side, sideWord, type Weight } from '../body/side'
import { capital } from '../capital'
import type { Relation } from '../combination/between'
import type { DancerLevel } from '../combination/combination'
import { placeIn } from '../combination/names'
import { assertNever } from '../errors'
import { lengthWords, type Units } from '../house/lengths'
import type { BodyPart, Risk } from '../moves/move'
import { countWords } from '../time/countWords'
import { labelIn, TICKS_PER_COUNT } from '../time/time'
import { nameOfAction } from '../what/foot'
import type { Fact, Finding, Spot } from './finding'
import { propText } from './propText'

/** `A3&`, and which time round when the phrase is danced more than once. */
export function spotText(spot: Spot): string {
  return `${placeText(spot)}${spot.time === undefined ? '' : `, ${ordinal(spot.time)} time`}`
}

/** `A3&` alone. */
export const placeText = (spot: Spot): string => placeIn(spot.phrase, labelIn(spot)(spot.at))

const ordinal = (n: number): string => ['', 'first', 'second', 'third'][n] ?? `${n}th`

const partWord: Readonly<Record<BodyPart, string>> = {
  feet: 'feet',
  legR: 'right leg',
  legL: 'left leg',
  knees: 'knees',
  pelvis: 'hips',
  waist: 'waist',
  ribs: 'ribs',
  shoulders: 'shoulders',
  armR: 'right arm',
  armL: 'left arm',
  handR: 'right hand',
  handL: 'left hand',
  fingersR: 'right hand',
  fingersL: 'left hand',
  head: 'head',
}

const RELATION_WORDS: Readonly<Record<Relation | 'round', string>> = {
  round: 'on her way round',
  behind: 'behind',
  before: 'before',
  left: 'on the left of',
  right: 'on the right of',
  facing: 'face to face with',
  'back-to-back': 'back to back with',
}

const STANCE_WORDS = {
  'one-foot': 'stands on one foot',
  narrow: 'has her feet close together',
  moves: 'steps or turns meanwhile',
  high: 'stands high, on straight knees or toes',
} as const

const listed = (words: readonly string[]): string =>
  words.length < 2 ? (words[0] ?? '') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)}`

const countsWords = (ticks: number): string => {
  const counts = Math.round((ticks / TICKS_PER_COUNT) * 100) / 100
  return counts === 1 ? 'count is' : `${counts} counts are`
}

const foot = (side: Side): string => `${sideWord[side]} foot`

/** `step side` of `step R side`: the sentence names the foot itself. */
const withoutFoot = ({ foot: _, ...action }: FootAction): string => nameOfAction(action)

/** What was found in the dancer's words: what, why, and what to do. */
export function findingText(finding: Finding, units: Units = 'metres'): string {
  const said = `${capital(factText(finding, units))}${againText(finding)}`
  const text = finding.option === undefined ? said : `With “${finding.option}”: ${said}`
  return finding.side === 'other' ? `On the other side: ${text}` : text
}

/** Where else it is the same: other counts of its phrase, or other times round. */
function againText({ also = [], spot }: Finding): string {
  if (also.length === 0) return ''
  const label = labelIn(spot)
  const ats = [...new Set(also.map(({ at }) => at))].filter((at) => at !== spot.at)
  if (ats.length > 0) return ` The same on ${listed(ats.map(label))}.`
  const times = also.flatMap(({ time }) => (time === undefined ? [] : [ordinal(time)]))
  return ` The same the ${listed(times)} time.`
}

function factText(fact: Fact, units: Units): string {
  const metres = (value: number) => lengthWords(value, units)
  switch (fact.code) {
    case 'feet.loaded':
      return `You already stand on your ${foot(fact.foot)}, so it can't ${withoutFoot(fact.action)}. Use the ${foot(otherSide[fact.foot])}, or make the step before it a touch.`
    case 'feet.loaded-touch':
      return `Your ${foot(fact.foot)} carries you here, so it can't ${fact.action.primitive}. Use the ${foot(otherSide[fact.foot])}, or step onto that one first.`
    case 'feet.no-support':
      return noSupport(fact)
    case 'layer.clash':
      return `“${fact.first}” and “${fact.second}” both need the ${listed(fact.parts.map((part) => partWord[part]))} at the same time. ${fact.severity === 'fault' ? 'Move one of them, or take one out.' : 'It can be danced, but one of them will blur.'}`
    case 'join.foot':
      return joinText(fact)
    case 'feet.too-fast': {
      const what = fact.foot ? `your ${foot(fact.foot)} lands again` : 'one foot lands'
      const after = fact.foot ? '' : ' after the other'
      return `Only ${seconds(fact.seconds)} until ${what}${after}; ${fact.severity === 'fault' ? `under ${seconds(fact.least)} nobody gets there` : `${seconds(fact.least)} is the least that works`}. Slow down, give it a whole count, or leave one of the two out.`
    }
    case 'feet.wide-quick':
      return `This ${withoutFoot(fact.action)} goes ${metres(fact.metres)} in ${seconds(fact.seconds)}; ${metres(fact.most)} is as far as that time takes you. Make it small, or give it longer.`
    case 'turn.too-fast':
      return fact.speed === undefined
        ? `${degrees(fact.degrees)} on one support; for ${LEVEL_WORD[fact.level]} ${fact.most}° is the most. Walk it in ${walkedIn(fact.degrees)} steps.`
        : `${degrees(fact.degrees)} here is ${Math.round(fact.speed)}° a second; for ${LEVEL_WORD[fact.level]} ${fact.most}° a second is the most. Share the turn over more counts, or slow down.`
    case 'turn.planted':
      return `${degrees(fact.degrees)} on both feet: up to ${fact.most}° they go onto their balls by themselves. Rise for it, or turn on one foot.`
    case 'turn.low':
      return `${degrees(fact.degrees)} with ${fact.level === 'deep' ? 'deep' : 'bent'} knees over a flat foot winds the knee up. Turn on the ball of the foot, or come up before.`
    case 'turn.many':
      return `${fact.degrees}° one way within 8 counts; for ${LEVEL_WORD[fact.level]} ${fact.most}° is plenty. Spot, turn fewer times, or come back the other way.`
    case 'feet.same-sway':
      return `You are on your ${foot(fact.foot)} already: this sway is a pulse. Sway onto the other one, or put a hip on it.`
    case 'feet.left-out':
      return `Your ${foot(fact.foot)} still stands where it touched, ${metres(fact.metres)} out. Bring it home before the sway, or step onto it.`
    case 'head.quick':
      return `${fact.move} in ${seconds(fact.seconds)}: small and soft, on a warm neck.`
    case 'head.level':
      return `${fact.move} asks much of neck or back; for new dancers ${fact.easier ? `${fact.easier} is enough` : 'leave it out'}.`
    case 'prop.hand':
      return `Your ${sideWord[fact.hand]} hand holds “${fact.prop}”, so it is busy for “${fact.move}”. Use the other hand, or put it down before.`
    case 'load.impact':
      return `${fact.times} hops, leaps and jumps within 8 counts; ${fact.most} is plenty. Keep them small and under you, or step some of them.`
    case 'turn.blocked': {
      const front = fact.way === 'front' ? 'in front' : 'behind'
      const way = fact.degrees > 0 ? 'right' : 'left'
      return `Your ${foot(fact.foot)} is crossed ${front}, so a turn to the ${way} winds you up. Turn ${way === 'right' ? 'left' : 'right'}, or cross the other foot.`
    }
    case 'turn.sum':
      return `The sheet says ${facingWord(fact.written)} here, but the turns add up to ${facingWord(fact.facing)} (${fact.facing}°). Change a turn, or what is written.`
    case 'join.facing': {
      const wall = `You end facing ${facingWord(fact.turned)}`
      return fact.severity === 'snag'
        ? `${wall}, which is no wall of the room. Finish the turn, or write the facing if you mean it.`
        : `${wall}: ${fact.rounds} rounds bring you back to front.`
    }
    case 'join.place': {
      const each = fact.after === 'both' ? 'Both sides together end' : 'Each round ends'
      return `${each} ${wayWords(fact, units)} from where you began. Four times that is ${metres(4 * Math.hypot(fact.right, fact.forward))}.`
    }
    case 'join.arms':
    case 'join.hips':
    case 'join.ribs':
    case 'join.trunk':
    case 'join.legs':
    case 'join.gaze':
    case 'join.level':
      return partJoin(fact)
    case 'hips.loaded-lift':
      return `Your ${foot(fact.hip)} carries you here, so ${fact.move} has nothing to lift. Use the ${sideWord[otherSide[fact.hip]]} hip, touch instead of stepping, or step on the ball.`
    case 'hips.locked':
      return fact.where === 'tall'
        ? `${fact.move} comes from soft knees, and here they are straight. Lower, or take the shake from the twist of the waist.`
        : fact.where === 'air'
          ? `${fact.move} needs the floor, and here you jump. Stop it before, or step instead.`
          : `${fact.move} on the toes: keep the knees soft and the shake small.`
    case 'layer.no-time':
      return `${fact.move} starts from ${fact.starts}; getting there takes ${seconds(fact.needs)} and there is ${fact.has < 0.005 ? 'no time' : seconds(fact.has)}. End the move before it there, start later, or let the repeats take turns.`
    case 'arms.far':
      return `“${fact.name}” takes a palm ${metres(fact.metres)} in ${seconds(fact.seconds)}, that is ${metres(fact.metres / fact.seconds)} a second; ${metres(fact.most)} is the most that still looks danced. Give it longer, or a nearer place.`
    case 'move.too-fast': {
      const what = { whole: 'has', repeat: 'has each time', swing: 'has for each swing' }[fact.each]
      // What is not enough never reads as if it were.
      const [has, needs] = [
        Math.floor(fact.seconds * 100 + 1e-6),
        Math.ceil(fact.least * 100 - 1e-6),
      ]
      return `${fact.move} ${what} ${seconds(has / 100)}; it needs ${seconds(needs / 100)} to be seen. Give it longer, do it less often, or take the easier form.`
    }
    case 'move.needs':
      return needText(fact)
    case 'head.turning':
      return fact.times === undefined
        ? `${fact.move} while you turn makes dizzy. Look at one point instead, or wait until you stand.`
        : `${fact.times} rolls or throws of the head in 8 counts; ${fact.most} is plenty. Warm neck, small and few; stop if it makes dizzy.`
    case 'load.high': {
      const more = fact.counts > 1 ? `, and ${fact.counts - 1} more here over it` : ''
      const ways = [
        fact.easier && `dance ${fact.easier.to.toLowerCase()} for ${fact.easier.from}`,
        fact.drop && `drop the ${fact.drop}`,
        'slow down',
      ].filter(Boolean)
      return `Load ${fact.load.toFixed(1)}; about ${fact.limit} is enough for ${LEVEL_WORD[fact.level]}${more}. ${capital(ways.slice(0, 2).join(', or '))}.`
    }
    case 'load.risk':
      return `${fact.times} ${RISK_WORD[fact.risk]} in one round; ${fact.cap} a ${fact.over} is plenty. Take an easier form for some of them, or dance fewer rounds.`
    case 'space.room': {
      const each = fact.group === undefined ? 'dancer' : `group of ${fact.group}`
      const many = fact.group === undefined ? 'dancers' : `groups of ${fact.group}`
      const room =
        fact.fit === 0 ? `not one ${each} has` : `${fact.fit} of your ${fact.dancers} ${many} have`
      const smaller =
        fact.steps === undefined
          ? 'Turn some of the steps round, or dance in two groups.'
          : `With steps at ${Math.round(fact.steps * 100)} % of their size all fit; or dance in two groups.`
      return `It travels ${metres(fact.width)} across and ${metres(fact.depth)} deep; in your room ${room} the floor for that. ${smaller}`
    }
    case 'space.neighbour':
      return `The arms reach ${metres(fact.reach)} ${fact.way === 'deep' ? 'to the front and back' : 'to the side'}; the next dancer’s place begins at ${metres(fact.half)}. Stand further apart, or take the arms nearer.`
    case 'balance.long':
      return fact.what === 'air'
        ? `Your ${foot(fact.foot ?? 'R')} is in the air for ${seconds(fact.seconds)}; over ${fact.most} s it sinks. Put it down with a touch.`
        : `${seconds(fact.seconds)} on the toes${fact.what === 'toes-walking' ? ', walking' : ''}; over ${fact.most} s calves tire. Come down in between.`
    case 'arms.low':
      return `Standing, no hand gets to the ${fact.place}. Bend, or go low, or take the arm to low.`
    case 'look.behind':
      return `The ${fact.who ?? 'audience'} is ${Math.round(Math.abs(fact.degrees))}° away here: no head turns that far. Turn first, or look back over a shoulder.`
    case 'turn.idle':
      return `No foot lands in these counts that could share the turn of ${degrees(fact.degrees)}. Step or touch there, or leave it out.`
    case 'legs.twist':
      return `Your ${fact.leg === 'R' ? 'right' : 'left'} leg is turned while it carries you${fact.isTurning ? ' through a turn' : ' with bent knees, the foot flat'}: that winds the knee up. Turn it on the ball of the foot, or with the weight off it.`
    case 'stay.moved':
      return fact.stays === 'pose'
        ? `It is a pose here, and ${fact.move} goes on. End it before, or write the pose later.`
        : `The ${fact.stays} ${fact.stays === 'legs' || fact.stays === 'hips' || fact.stays === 'arms' ? 'are' : 'is'} to stay here, and ${fact.move} moves ${fact.stays === 'legs' || fact.stays === 'hips' || fact.stays === 'arms' ? 'them' : 'it'}. Leave that out, or end the stay before.`
    case 'prepare.lost':
      return `Nothing begins on the count that “${fact.text}” prepares for. Write what begins there, or take the word out.`
    case 'legs.long':
      return `${seconds(fact.seconds)} ${fact.level}; over ${fact.most} s thighs and knees tire. Come up in between.`
    case 'move.remainder': {
      const counts = fact.left / TICKS_PER_COUNT
      const rest = countWords(counts)
      if (fact.danced !== undefined)
        return `${fact.move} is cut short by what comes next: only its first ${countsWords(fact.danced)} danced. Start it sooner, or write its steps one by one.`
      return fact.none
        ? `${fact.move} does not fit here: give it more counts, or write its first steps one by one.`
        : `${fact.move} leaves ${rest} over at its end. Stretch it, or write something there.`
    }
    case 'move.unknown':
      return `This vocabulary has no move called “${fact.move}”, so it is only shown, not checked. Put a known move in its place.`
    case 'pickup.over':
      return fact.of === undefined
        ? `The pickup is danced over the last ${fact.counts === 1 ? 'count' : countWords(fact.counts)} of every round, in place of ${listed(fact.replaced)}. Write that earlier, dance the pickup only once, or leave out what is not danced.`
        : `The pickup of ${fact.of} is danced here, in place of ${listed(fact.replaced)}. Write that earlier, or leave out what is not danced.`
    case 'rule.broken':
      return `Your own rule is “${fact.rule}”, and here it is otherwise. Change it here, or take the rule out.`
    case 'pair.collision':
      return `${fact.a} and ${fact.b} come ${lengthWords(fact.apart, units)} near each other, and their bodies take ${lengthWords(fact.touch, units)}. ${fact.severity === 'fault' ? 'They run into each other: let one wait, or let them stand further apart.' : 'That is too narrow to be sure: let them stand a little further apart.'}`
    case 'pair.tread':
      return `${fact.a} puts a foot down ${lengthWords(fact.metres, units)} from where ${fact.b} stands. Smaller steps, or stand further apart.`
    case 'pair.place':
      return `${fact.a} ends ${lengthWords(fact.metres, units)} from where she is to be, ${RELATION_WORDS[fact.rel]} ${fact.b}. ${fact.more === 1 ? 'One step more' : `${fact.more} steps more`} would bring her there, or give it more counts.`
    case 'pair.facing':
      return `${fact.a} is to stand ${RELATION_WORDS[fact.rel]} ${fact.b}, and faces ${Math.round(fact.degrees)}° another way. Turn one of them, or choose another place.`
    case 'pair.reach': {
      const what = fact.on ? `${fact.b}’s ${fact.on}` : `${fact.b}’s hand`
      return fact.severity === 'fault'
        ? `${fact.a} does not reach ${what}: it is ${lengthWords(fact.metres, units)} from shoulder to ${fact.on || 'shoulder'}, and ${fact.on ? 'her arm is' : 'both arms are'} ${lengthWords(fact.reach, units)} long. Stand nearer, or take each other later.`
        : `${fact.a} reaches ${what} only with ${fact.on ? 'a locked arm' : 'locked arms'}. Stand a little nearer.`
    }
    case 'pair.hand-busy':
      return fact.by === 'held'
        ? `${fact.a}’s ${sideWord[fact.hand]} hand is held twice at once. Let it go first, or take the other hand.`
        : fact.by === 'prop'
          ? `${fact.a}’s ${sideWord[fact.hand]} hand has something in it and is to be held. Let that go first, or take the other hand.`
          : `${fact.a}’s ${sideWord[fact.hand]} hand is held here, and its own line sends it elsewhere. Take that out, or let the hand go.`
    case 'pair.hand-late':
      return `${fact.a}’s ${sideWord[fact.hand]} hand has ${seconds(fact.seconds)} for ${lengthWords(fact.metres, units)} to ${fact.b}. Take each other a count later, or end the arms sooner.`
    case 'pair.turn-held':
      return `${fact.a} and ${fact.b} turn ${Math.round(fact.degrees)}° against each other with a hand held; as they hold it ${fact.most}° is the most. Turn under the raised hands, or let go for the turn.`
    case 'pair.crossed':
      return `With both hands held ${fact.a} and ${fact.b} end with crossed arms. Turn back under them, or let one hand go.`
    case 'pair.led':
      return fact.lacks === 'hand'
        ? `${fact.b} leads ${fact.a}’s turn with a hand that does not hold or touch her then. Write the hold, or let her turn by herself.`
        : `${fact.b} leads ${fact.a} into a turn, and her feet turn nowhere then. Write the degrees in her steps.`
    case 'pair.support-stance':
      return `${fact.a} carries ${fact.b} and ${STANCE_WORDS[fact.why]}. Both feet flat, apart and still from a count before to the end.`
    case 'pair.support-hold':
      return `${fact.a} carries ${fact.b} with no hand on her. Write the hold they do it by.`
    case 'pair.support-missing':
      return `${fact.a} leans on somebody in ${fact.move}, and nobody carries her. Write the support, or dance it upright.`
    case 'pair.support':
      return `${fact.times === 1 ? 'One of them leans' : 'They lean'} on the other: only warm, with hands that know each other, and agree on a word to stop. Who has pain or an injury asks a doctor or physiotherapist first.`
    case 'pair.rejoin':
      return fact.differs === 'facing'
        ? `${fact.a} and ${fact.b} dance on together, and face ${Math.round(fact.degrees ?? 0)}° apart otherwise than at the start. Turn one of them before, or dance it as an image.`
        : `${fact.a} and ${fact.b} dance on together at different heights. Bring one of them up or down before.`
    case 'pair.unison':
      return fact.by === 'time'
        ? `${fact.a} and ${fact.b} both dance ${fact.move}, half a count apart. Share it, if that was not meant.`
        : fact.by === 'image'
          ? `${fact.a} and ${fact.b} dance ${fact.move} to either side. If she is the other’s image, say so of the part.`
          : `${fact.a} and ${fact.b} both dance ${fact.move} here. Written once for both it stays the same when you change it.`
    case 'prop.full':
    case 'prop.empty':
    case 'prop.two-hands':
    case 'prop.drape':
    case 'prop.no-turn':
    case 'prop.unready':
    case 'prop.late':
    case 'prop.lag':
    case 'prop.hands-apart':
    case 'prop.clap':
    case 'prop.wound':
    case 'prop.underfoot':
    case 'prop.air':
    case 'prop.join':
      return propText(fact, units)
    case 'pair.cut':
      return `${fact.a} follows ${fact.b}, and the phrase is over before ${listed(fact.moves.slice(0, 3))}${fact.moves.length > 3 ? ` and ${fact.moves.length - 3} more` : ''}. Let her come in sooner, or end the phrase later.`
    case 'pair.join':
      return `${fact.a} ends ${lengthWords(fact.metres, units)} from where ${fact.swapped ? 'the next round begins, whichever part she takes' : 'she begins the next round'}; there is time for ${lengthWords(fact.room, units)}. Give her a place at the end, or counts of rest.`
    case 'pair.eyes':
      return fact.degrees === undefined
        ? `${fact.a} is to look at ${fact.b}, and her own line looks elsewhere. Take one of the two out.`
        : `${fact.a} is to look at ${fact.b}, who is ${Math.round(fact.degrees)}° from where she faces. Turn to her, or look later.`
    case 'option.ends':
      return `It ends on ${onFoot(fact.weight)}, and without it on ${onFoot(fact.usual)}: what comes next begins otherwise. Add or leave out a step, or end it with a touch.`
    default:
      return assertNever(fact)
  }
}

const onFoot = (weight: Weight): string => (weight === 'both' ? 'both feet' : `the ${foot(weight)}`)

const seconds = (value: number): string => `${value.toFixed(2).replace(/0$/, '')} s`
const degrees = (value: number): string => `A turn of ${Math.abs(value)}°`

const LEVEL_WORD: Readonly<Record<DancerLevel, string>> = {
  new: 'new dancers',
  improver: 'improvers',
  intermediate: 'intermediate dancers',
  advanced: 'advanced dancers',
}

const RISK_WORD: Readonly<Record<Risk, string>> = {
  neck: 'moves that load the neck',
  back: 'moves that load the back',
  knees: 'moves that load the knees',
  impact: 'jumps or hops',
}

/** How far and where, in the dancer's words: `1.2 m to the right and 0.5 m to the front`. */
export function wayWords(
  { right, forward }: { right: number; forward: number },
  units: Units = 'metres',
): string {
  const metres = (value: number) => lengthWords(value, units)
  const parts = [
    Math.abs(right) >= 0.05 && `${metres(Math.abs(right))} to the ${right > 0 ? 'right' : 'left'}`,
    Math.abs(forward) >= 0.05 &&
      `${metres(Math.abs(forward))} to the ${forward > 0 ? 'front' : 'back'}`,
  ].filter((part): part is string => Boolean(part))
  return parts.join(' and ') || 'less than a step'
}

const PART_WORD = {
  'join.arms': 'arms',
  'join.hips': 'hips',
  'join.ribs': 'ribs',
  'join.trunk': 'body',
  'join.legs': 'legs',
  'join.gaze': 'eyes',
  'join.level': 'height',
} as const

function partJoin(fact: Extract<Fact, { code: keyof typeof PART_WORD }>): string {
  const part = PART_WORD[fact.code]
  const into = {
    repeat: 'the repeat begins',
    switch: 'the other side begins',
    both: 'repeat and switch begin',
  }[fact.into]
  const meets = `The ${part} end${part === 'height' || part === 'body' ? 's' : ''} at “${fact.ends}”; ${into} at “${fact.starts}”.`
  if (fact.late)
    return `${meets} That takes ${seconds(fact.late.needs)} and there is ${fact.late.has < 0.005 ? 'no time' : seconds(fact.late.has)}. End nearer, or begin it later.`
  return `${meets} From the second round on it looks different.`
}

function needText({ move, need, foot: working }: Extract<Fact, { code: 'move.needs' }>): string {
  switch (need) {
    case 'weight-one':
      return `${move} is danced over one leg, and your weight is on both. Shift it before.`
    case 'weight-both':
      return `${move} is danced over both feet, and here you step from one to the other. Stand for it, or keep it small.`
    case 'heel-up':
      return `${move} needs the ${sideWord[working ?? 'R']} heel up, and both feet are flat. Touch with the ball of that foot before.`
    case 'free-leg':
      return `${move} needs the ${sideWord[working ?? 'R']} leg free, and it carries you. Stand on the other one.`
    case 'flat-feet':
      return `${move} is danced on flat feet, and your heel is up. Lower it before.`
  }
}

function noSupport({ action, weight }: Extract<Fact, { code: 'feet.no-support' }>): string {
  switch (action.primitive) {
    case 'hop':
      return weight === 'both'
        ? `A hop needs you on your ${foot(action.foot ?? 'R')} alone. Step onto it first.`
        : `You stand on your ${foot(weight)}, so you can't hop on the other one. Hop on the ${sideWord[weight]}, or leap.`
    default:
      return `One foot is off the floor, so you can't ${action.primitive}. Put it down with a step or a touch first.`
  }
}

/** What would make it switch. */
const switchHint = (last: 'step' | 'touch' | undefined): string =>
  last === 'touch'
    ? 'to switch, make the last touch a step'
    : last === 'step'
      ? 'to switch, make the last step a touch'
      : 'to switch, add a step or a ball change'

/** How many steps a turn is walked in: a quarter to a third of a turn each. */
function walkedIn(turned: number): string {
  const [least, most] = [Math.ceil(turned / 120), Math.ceil(turned / 90)]
  return least === most ? `${least}` : `${least} or ${most}`
}

function joinText(fact: Extract<Fact, { code: 'join.foot' }>): string {
  const end = fact.weight === 'both' ? 'both feet' : `your ${foot(fact.weight)}`
  const free = fact.weight === 'both' ? '' : `, the ${sideWord[otherSide[fact.weight]]} is free`
  const ends = `You end on ${end}${free}.`
  if (fact.bothSides) return `${ends} Both sides are in it.`
  if (fact.repeats && fact.switches)
    return `${ends} It repeats on the same side and switches, both without a stop.`
  if (fact.switches) return `${ends} It switches sides by itself.`
  if (fact.repeats) return `${ends} It repeats on the same side; ${switchHint(fact.last)}.`
  return `${ends} Neither side can follow from there: change the last step.`
}
