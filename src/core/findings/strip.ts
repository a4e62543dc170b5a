import { facingWord } from '../body/facing'
import { footFits } from '../joins/joins'
import { type Gap, gapsInto } from '../joins/meets'
import { roundEnds, type Simulation } from '../simulate/simulate'
import { endsAway } from '../space/space'
import type { Checked } from './checked'
import { wayWords } from './findingText'

/** How one part of the body meets what follows. */
export interface Meeting {
  readonly part:
    | 'foot'
    | 'facing'
    | 'place'
    | 'height'
    | 'hips'
    | 'ribs'
    | 'arms'
    | 'gaze'
    | 'trunk'
    | 'legs'
  /** meets, can still be made or only looks different, or does not work. */
  readonly how: 'meets' | 'differs' | 'misses'
  readonly words: string
}

/**
 * Part by part, how the end meets the same side again and the other side (model 7); nothing of what is
 * danced once.
 * @param next what she dances then, where that is another one's part
 */
export function joinStrip(
  checked: Checked,
  into: 'repeat' | 'switch',
  next?: Simulation,
): readonly Meeting[] {
  const { lead, joins } = checked
  if (lead.combination.once) return []
  const { house } = lead
  const { from, to } = roundEnds(lead)
  const isFootRight = next
    ? footFits(lead, next)
    : into === 'repeat'
      ? joins.repeats
      : joins.switches
  const begins = next ? next.start.facing : into === 'repeat' ? from.facing : 0 - from.facing
  const off = to.facing - begins
  const gaps = new Map(gapsInto(lead, into, next).map((gap) => [gap.part, gap]))
  const away = endsAway(lead, into === 'switch')
  const isNear = Math.hypot(away.right, away.forward) <= house.limits['join.travel']
  const starts = next ? next.start.level : from.level
  const isLevel = to.level === starts || to.moment !== undefined
  const meeting = (part: Meeting['part'], isGood: boolean, good: string, bad: string): Meeting => ({
    part,
    how: isGood ? 'meets' : part === 'foot' ? 'misses' : 'differs',
    words: isGood ? good : bad,
  })
  return [
    meeting('foot', isFootRight, 'the right foot is free', 'the foot that should step carries you'),
    meeting('facing', off % 360 === 0, 'same facing', `facing ${facingWord(off)}`),
    meeting(
      'place',
      isNear,
      'near the start',
      `${wayWords(away, house.units)} ${into === 'repeat' ? 'each round' : 'after both sides'}`,
    ),
    meeting('height', isLevel, 'same height', `${to.level}, begins ${starts}`),
    ...(['hips', 'ribs', 'arms', 'gaze'] as const).map((part) => meetingOf(part, gaps.get(part))),
    // Trunk and legs are named where it matters: most dances never hold them anywhere.
    ...(['trunk', 'legs'] as const).flatMap((part) =>
      gaps.has(part) ? [meetingOf(part, gaps.get(part))] : [],
    ),
  ]
}

function meetingOf(part: Gap['part'], gap: Gap | undefined): Meeting {
  if (!gap) return { part, how: 'meets', words: 'meets' }
  const words = `${gap.ends}, begins ${gap.starts}`
  const isLate = gap.reach && gap.reach.has + 1e-9 < gap.reach.needs
  return { part, how: isLate ? 'misses' : 'differs', words }
}
