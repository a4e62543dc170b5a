import type { FootAction } from '../body/feet'
import { otherSide, type Side, sideWord } from '../body/side'
import { nameOfAction } from '../combination/names'
import { assertNever } from '../errors'
import type { BodyPart } from '../moves/move'
import { labelIn, TICKS_PER_COUNT } from '../time/time'
import type { Fact, Finding, Spot } from './finding'

/** `A3&`, and which time round when the phrase is danced more than once. */
export function spotText(spot: Spot): string {
  return `${placeText(spot)}${spot.time === undefined ? '' : `, ${ordinal(spot.time)} time`}`
}

/** `A3&` alone. */
export const placeText = ({ phrase, counts, at }: Spot): string => `${phrase}${labelIn(counts)(at)}`

const ordinal = (n: number): string => ['', 'first', 'second', 'third'][n] ?? `${n}th`

const partWord: Readonly<Record<BodyPart, string>> = {
  feet: 'feet',
  knees: 'knees',
  pelvis: 'hips',
  waist: 'waist',
  ribs: 'ribs',
  shoulders: 'shoulders',
  armR: 'right arm',
  armL: 'left arm',
  handR: 'right hand',
  handL: 'left hand',
  head: 'head',
}

const listed = (words: readonly string[]): string =>
  words.length < 2 ? (words[0] ?? '') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)}`

const foot = (side: Side): string => `${sideWord[side]} foot`

/** `step side` of `step R side`: the sentence names the foot itself. */
const withoutFoot = ({ foot: _, ...action }: FootAction): string => nameOfAction(action)

/** What was found in the dancer's words: what, why, and what to do. */
export function findingText(finding: Finding): string {
  const text = factText(finding)
  return finding.side === 'other' ? `On the other side: ${text}` : text
}

function factText(fact: Fact): string {
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
    case 'move.remainder': {
      const counts = fact.left / TICKS_PER_COUNT
      const rest = `${counts} count${counts === 1 ? '' : 's'}`
      return fact.none
        ? `${fact.move} does not fit here: give it more counts, or write its first steps one by one.`
        : `${fact.move} leaves ${rest} over at its end. Stretch it, or write something there.`
    }
    case 'move.unknown':
      return `This vocabulary has no move called “${fact.move}”, so it is only shown, not checked. Put a known move in its place.`
    default:
      return assertNever(fact)
  }
}

function noSupport({ action, weight }: Extract<Fact, { code: 'feet.no-support' }>): string {
  switch (action.primitive) {
    case 'hop':
      return weight === 'both'
        ? `A hop needs you on your ${foot(action.foot ?? 'R')} alone. Step onto it first.`
        : `You stand on your ${foot(weight)}, so you can't hop on the other one. Hop on the ${sideWord[weight]}, or leap.`
    case 'pivot':
      return 'Both feet hold you flat, so nothing can turn. Rise first, or stand on one foot.'
    default:
      return `One foot is off the floor, so you can't ${action.primitive}. Put it down with a step or a touch first.`
  }
}

function joinText(fact: Extract<Fact, { code: 'join.foot' }>): string {
  const end = fact.weight === 'both' ? 'both feet' : `your ${foot(fact.weight)}`
  const free = fact.weight === 'both' ? '' : `, the ${sideWord[otherSide[fact.weight]]} is free`
  const ends = `You end on ${end}${free}.`
  if (fact.repeats && fact.switches)
    return `${ends} It repeats on the same side and switches, both without a stop.`
  if (fact.switches) return `${ends} It switches sides by itself.`
  if (fact.repeats)
    return `${ends} It repeats on the same side, but does not switch by itself: make the last step a touch, or add a ball change.`
  return `${ends} Neither side can follow from there: change the last step.`
}
