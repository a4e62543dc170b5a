import { otherSide } from '../body/side'
import type { PropAct } from '../combination/carried'
import { type Combination, lengthOf, type Phrase } from '../combination/combination'
import { actOf, addAct, changeAct, readyFromStart, removeAct } from '../edits/props'
import type { Finding } from '../findings/finding'
import { actRow } from '../props/acts'
import { COUNT, TICKS_PER_COUNT, tick } from '../time/time'
import type { PairTry } from './meetingTries'

/** What may put a finding about something carried right, the smallest change first. */
export function propTries(finding: Finding, combination: Combination): readonly PairTry[] {
  const [id] = finding.events
  const act = id === undefined ? undefined : actOf(combination, id)
  const phrase = combination.phrases.find(({ name }) => name === finding.spot.phrase)
  if (!phrase) return []
  switch (finding.code) {
    case 'prop.underfoot':
      return keepsHold(combination)
    case 'prop.join':
      return [...keepsHold(combination), ...comesBack(finding, combination)]
    default:
      if (!act) return []
  }
  switch (finding.code) {
    case 'prop.unready':
      return [...readyBefore(act, phrase, finding.ready), leaveOut(act)]
    case 'prop.full':
    case 'prop.empty':
      return [...otherHand(act), ...takesBefore(act, phrase), leaveOut(act)]
    case 'prop.two-hands':
      return [...takesBefore(act, phrase), leaveOut(act)]
    case 'prop.late':
      return [...moreTime(act, phrase), leaveOut(act)]
    case 'prop.lag':
      return [...later(act, phrase), leaveOut(act)]
    case 'prop.air':
      return [...caughtLater(act, phrase), leaveOut(act)]
    default:
      return [leaveOut(act)]
  }
}

const leaveOut = (act: PropAct): PairTry => ({
  label: `leave “${actRow(act.act).name}” out`,
  make: removeAct(act.id),
})

const otherHand = ({ id, hand }: PropAct): readonly PairTry[] =>
  hand
    ? [{ label: 'do it with the other hand', make: changeAct(id, { hand: otherSide[hand] }) }]
    : []

/** The hand that is missing takes it on the count before. */
function takesBefore(act: PropAct, phrase: Phrase): readonly PairTry[] {
  const at = act.at - TICKS_PER_COUNT
  if (at < 0) return []
  return (['R', 'L'] as const).map((hand) => ({
    label: `take it with the ${hand === 'R' ? 'right' : 'left'} hand a count before`,
    make: addAct(phrase.id, {
      id: `take ${hand} ${act.id}`,
      at: tick(at),
      length: COUNT,
      prop: act.prop,
      act: 'take',
      hand,
      ...(act.who && { who: act.who }),
    }),
  }))
}

/** What is asked for is made ready on the last count before on which nothing else is done with it. */
function readyBefore(act: PropAct, phrase: Phrase, ready: string): readonly PairTry[] {
  const free = (at: number) =>
    (phrase.props ?? []).every(
      (one) => one.at >= at + TICKS_PER_COUNT || one.at + one.length <= at || one.act === 'carry',
    )
  for (let at = act.at - TICKS_PER_COUNT; at >= 0; at -= TICKS_PER_COUNT / 2)
    if (free(at))
      return [
        {
          label: `ready ${ready} before`,
          make: addAct(phrase.id, {
            id: `ready ${act.id}`,
            at: tick(at),
            length: COUNT,
            prop: act.prop,
            act: 'ready',
            ready,
            ...(act.who && { who: act.who }),
          }),
        },
      ]
  return [
    {
      label: `ready ${ready} from the start`,
      make: readyFromStart(act.prop, ready),
    },
  ]
}

const STEPS = [1, 2, 4].map((counts) => counts * TICKS_PER_COUNT)
const countsText = (ticks: number): string =>
  ticks === TICKS_PER_COUNT ? 'a count' : `${ticks / TICKS_PER_COUNT} counts`

function moreTime({ id, at, length }: PropAct, phrase: Phrase): readonly PairTry[] {
  return STEPS.flatMap((by) => [
    ...(at + length + by <= lengthOf(phrase)
      ? [
          {
            label: `give it ${countsText(by)} more`,
            make: changeAct(id, { length: tick(length + by) }),
          },
        ]
      : []),
    ...(at - by >= 0
      ? [
          {
            label: `begin it ${countsText(by)} sooner`,
            make: changeAct(id, { at: tick(at - by), length: tick(length + by) }),
          },
        ]
      : []),
  ])
}

const later = ({ id, at, length }: PropAct, phrase: Phrase): readonly PairTry[] =>
  [TICKS_PER_COUNT / 2, TICKS_PER_COUNT, 2 * TICKS_PER_COUNT]
    .filter((by) => at + length + by <= lengthOf(phrase))
    .map((by) => ({
      label: `do it ${by < TICKS_PER_COUNT ? 'half a count' : countsText(by)} later`,
      make: changeAct(id, { at: tick(at + by) }),
    }))

/** A throw is caught in its phrase, a count or two later, by the hand that threw it. */
function caughtLater(act: PropAct, phrase: Phrase): readonly PairTry[] {
  const next = (phrase.props ?? []).find(
    (one) => one.prop === act.prop && one.act === 'catch' && one.at > act.at,
  )
  const moved = STEPS.slice(0, 2).flatMap((by): readonly PairTry[] => {
    const at = act.at + by
    if (at + TICKS_PER_COUNT > lengthOf(phrase)) return []
    const label = `catch it ${countsText(by)} later`
    return next
      ? [{ label, make: changeAct(next.id, { at: tick(at) }) }]
      : [
          {
            label,
            make: addAct(phrase.id, {
              id: `catch ${act.id}`,
              at: tick(at),
              length: COUNT,
              prop: act.prop,
              act: 'catch',
              ...(act.hand && { hand: act.hand }),
              ...(act.who && { who: act.who }),
            }),
          },
        ]
  })
  return [
    ...moved,
    ...(next?.hand
      ? [
          {
            label: 'catch it with the other hand',
            make: changeAct(next.id, { hand: otherSide[next.hand] }),
          },
        ]
      : []),
  ]
}

/** The last hand that lets go keeps its hold. */
const keepsHold = ({ phrases, order }: Combination): readonly PairTry[] =>
  [...new Set(order.map(({ phrase }) => phrase))]
    .toReversed()
    .flatMap((id) => phrases.find((one) => one.id === id)?.props?.toReversed() ?? [])
    .filter(({ act }) => act === 'let-go')
    .slice(0, 2)
    .map((act) => ({ label: 'keep hold of it there', make: removeAct(act.id) }))

/** What was changed last is left out, so that it ends as it begins; or a last act brings it back. */
function comesBack(finding: Finding, { phrases, order }: Combination): readonly PairTry[] {
  const last = phrases.find(({ id }) => id === order.at(-1)?.phrase)
  if (!last || finding.code !== 'prop.join') return []
  const acts = last.props ?? []
  const prop = acts.at(-1)?.prop ?? ''
  const ends = lengthOf(last)
  const busy = Math.max(0, ...acts.map(({ at, length }) => at + length))
  const brings = (['over', 'under', 'unroll', 'open'] as const).map((act) => ({
    label: `${actRow(act).name} at the end`,
    make: addAct(last.id, {
      id: `${act} ${last.id}`,
      at: tick(Math.max(busy, ends - 2 * TICKS_PER_COUNT)),
      length: tick(Math.max(1, Math.min(2 * TICKS_PER_COUNT, ends - busy))),
      prop,
      act,
    }),
  }))
  return [...(busy < ends ? brings : []), ...acts.toReversed().slice(0, 2).map(leaveOut)]
}
