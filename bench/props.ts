import { type PropAct, USUAL_PROP } from '../src/core/combination/carried'
import type { Combination } from '../src/core/combination/combination'
import { moveEvents } from '../src/core/edits/edits'
import { checkCombination } from '../src/core/findings/check'
import { USUAL_HOUSE } from '../src/core/house/house'
import { vocabulary } from '../src/core/moves/vocabulary'
import { carryingOf } from '../src/core/pose/carrying'
import { dancerOf } from '../src/core/pose/dancer'
import { newPose } from '../src/core/pose/joints'
import { danced } from '../src/core/simulate/danced'
import { tick } from '../src/core/time/time'
import { row, say } from './measure'

/** A combination with a veil in both hands, and four things done with it in every phrase. */
export function withVeil(alone: Combination): Combination {
  return {
    ...alone,
    carried: [{ id: 'veil', kind: 'veil', name: 'Silk', ...USUAL_PROP.veil }],
    phrases: alone.phrases.map((phrase, i) => ({
      ...phrase,
      props: [
        done(`r${i}`, 0, { act: 'ready', ready: 'hair-in' }),
        done(`o${i}`, 24, { act: 'over' }),
        done(`f${i}`, 48, { act: 'frame' }),
        done(`c${i}`, 72, { act: 'carry', to: 'behind' }),
      ],
    })),
  }
}

const done = (id: string, at: number, more: Pick<PropAct, 'act'> & Partial<PropAct>): PropAct => ({
  id,
  at: tick(at),
  length: tick(24),
  prop: 'veil',
  ...more,
})

/** What a veil costs against empty hands, edit by edit and picture by picture in one run. */
export function benchProps(alone: Combination): void {
  const veil = withVeil(alone)
  let by = 0
  const recheck = (one: Combination) => {
    by = by === 6 ? -6 : 6
    const [, , event] = one.phrases[0]?.events ?? []
    return checkCombination(moveEvents([event?.id ?? ''], by)(one), vocabulary)
  }
  for (let i = 0; i < 600; i++) recheck(i % 2 === 0 ? alone : veil)
  const empty = row('One dancer, 64 counts, empty hands: an edit, re-checked', () => recheck(alone))
  const full = row('… with a veil and four things done with it a phrase', () => recheck(veil))
  say('… against empty hands', `× ${(full / empty).toFixed(2)}`)
  const { lead } = danced(veil, vocabulary, USUAL_HOUSE)
  const dancer = dancerOf(lead)
  const carrying = carryingOf(lead)
  const pose = newPose()
  let at = 0
  const next = () => {
    at = (at + 7.37) % 384
    return dancer.poseAt(at, pose)
  }
  const hung = () => {
    next()
    carrying?.at(at, pose, (ticks, into) => dancer.poseAt(at - ticks, into))
  }
  for (let i = 0; i < 20_000; i++) hung()
  row('A pose', next)
  row('… with the veil as it hangs then', hung)
}
