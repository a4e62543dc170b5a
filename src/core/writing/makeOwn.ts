import { mirrorFootAction } from '../body/feet'
import { claimOf } from '../combination/claims'
import type { Event } from '../combination/combination'
import type { DancedEvent } from '../combination/lengths'
import { sideOf } from '../combination/names'
import { defaultStart } from '../combination/start'
import { stepsOf } from '../combination/steps'
import { UserError } from '../errors'
import { type Motion, readMotion } from '../moves/motion'
import type { BodyPart, MoveKind, OwnMove } from '../moves/move'
import { readPattern, type TimedAction } from '../moves/pattern'
import type { Vocabulary } from '../moves/vocabulary'
import { mirrorMotion, writeMotion } from '../moves/writeMotion'
import { folded } from '../record/folded'
import { dance } from '../simulate/primitives'
import { startState } from '../simulate/start'
import { labelOfTick, TICKS_PER_COUNT, type Tick, tick } from '../time/time'
import { actionText } from '../what/foot'
import { kindOf } from '../what/kinds'

/** The id of a new own move: its name in plain letters, with a number when it is taken. */
export function freeId(name: string, vocabulary: Vocabulary): string {
  const plain =
    folded(name)
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-|-$/g, '') || 'own-move'
  if (!vocabulary.find(plain)) return plain
  for (let i = 2; ; i++) if (!vocabulary.find(`${plain}-${i}`)) return `${plain}-${i}`
}

/** The weight a pattern ends with, as the vocabulary says it: danced from weight on L. */
export function endOfPattern(pattern: readonly TimedAction[]): '=' | 'on-R' | 'both' {
  let state = startState(defaultStart('R'))
  for (const { at, action } of pattern) state = dance(state, action, at).state
  return state.weight === 'L' ? '=' : state.weight === 'R' ? 'on-R' : 'both'
}

const patternText = (pattern: readonly TimedAction[]): string =>
  pattern.map(({ at, action }) => `${labelOfTick(at)} ${actionText(action)}`).join('; ')

/**
 * Makes a move of what stands on one layer: the steps of the feet as a pattern, written from
 * the right foot; the isolations of another layer as one motion after another.
 * @throws UserError when there is nothing to make it of, or it is on several layers.
 */
export function ownMoveOf(
  events: readonly DancedEvent[],
  { from, length }: { readonly from: Tick; readonly length: Tick },
  name: string,
  vocabulary: Vocabulary,
): OwnMove {
  const [first] = events
  if (!first)
    throw new UserError(
      'There is nothing selected to make a move of.',
      'Select the counts of one layer that belong to it.',
    )
  if (events.some(({ layer }) => layer !== first.layer))
    throw new UserError(
      'These are moves of several layers; a move belongs to one.',
      'Select the counts of one layer only.',
    )
  const counts = Math.max(1, length) / TICKS_PER_COUNT
  const common = { id: freeId(name, vocabulary), name, layer: first.layer, counts }
  if (first.layer === 'feet') {
    const steps = events
      .flatMap((event) =>
        stepsOf(event, vocabulary).map(({ at, action }) => ({
          at: tick(event.at + at - from),
          action,
        })),
      )
      .sort((a, b) => a.at - b.at)
    const starts = steps.find(({ action }) => action.foot)?.action.foot
    const written =
      starts === 'L'
        ? steps.map(({ at, action }) => ({ at, action: mirrorFootAction(action) }))
        : steps
    return {
      ...common,
      kind: 'steps',
      pattern: patternText(written),
      sided: 'side',
      claims: ['feet'],
      to: endOfPattern(written),
    }
  }
  const side = events.map(({ what }) => sideOf(what)).find((one) => one !== undefined)
  const motion = events.flatMap((event) => motionOf(event, vocabulary))
  const written = side === 'L' ? mirrorMotion(motion) : motion
  const claims = [...new Set(events.flatMap((event) => claimOf(event, vocabulary).parts))]
  return {
    ...common,
    kind: moveKindOf(events, vocabulary),
    motion: writeMotion(written),
    sided: side ? 'side' : 'none',
    claims: claims.length > 0 ? claims : [USUAL_PART[first.layer]],
    to: endOfMotion(written) ?? '=',
  }
}

const USUAL_PART: Readonly<Record<Event['layer'], BodyPart>> = {
  feet: 'feet',
  legs: 'legR',
  hips: 'pelvis',
  torso: 'ribs',
  arms: 'armR',
  head: 'head',
}

/** Several together run through; one alone stays what it is. */
function moveKindOf(events: readonly Event[], vocabulary: Vocabulary): MoveKind {
  const kinds = new Set(events.map((event) => claimOf(event, vocabulary).kind))
  const [only] = kinds
  return kinds.size === 1 && only && (events.length === 1 || only !== 'place') ? only : 'path'
}

const motionOf = ({ what }: Event, vocabulary: Vocabulary): readonly Motion[] =>
  kindOf(what).motion(what, vocabulary)

/** The last place a motion goes to, for hips, ribs and head. */
function endOfMotion(motion: readonly Motion[]): string | undefined {
  const last = motion.findLast((item) => item.verb === 'to' || item.verb === 'arc')
  if (last?.verb === 'to') return last.arm ? undefined : last.place
  return last?.verb === 'arc' ? last.places.at(-1) : undefined
}

/** The pattern or motion as it was typed, or what is wrong with it. */
export function problemIn(own: Pick<OwnMove, 'layer' | 'pattern' | 'motion'>): string | undefined {
  try {
    if (own.layer === 'feet') readPattern(own.pattern ?? '')
    else if (readMotion(own.motion ?? '').length === 0)
      return 'Say what moves: peak(pelvis.side +7 sharp).'
    return undefined
  } catch (error) {
    return error instanceof Error ? error.message : String(error)
  }
}
