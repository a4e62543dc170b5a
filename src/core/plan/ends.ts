import type { Combination } from '../combination/combination'
import { TICKS_PER_COUNT } from '../time/time'
import { steady } from '../time/timeMap'
import type { Drill } from './drill'
import { danceSeconds, type Materials, roundOf } from './material'
import { COUNTS_A_MOVE } from './moveRounds'
import { ready } from './outline'
import { classSeconds, type PlanWishes } from './plan'
import { talkOf, type Unit } from './units'
import { coolDownMoves, warmUpMoves } from './warmUp'

const share = (seconds: number, part: number, least: number, most: number): number =>
  Math.round(Math.min(most * 60, Math.max(least * 60, seconds * part)))

/** A warm-up or cool-down of exactly some seconds: the moves danced as often as they fit, the rest is talk. */
function movesDrill(
  kind: 'warm-up' | 'cool-down',
  seconds: number,
  tempo: number,
  choose: (most: number) => readonly string[],
  materials: Materials,
): Unit & { readonly repeats: number } {
  const danced = seconds - talkOf(materials.house)
  const countsIn = (some: number) => steady(tempo).tickAt(some) / TICKS_PER_COUNT
  const fitting = Math.floor((countsIn(danced) - 4) / COUNTS_A_MOVE)
  const moves = choose(Math.max(1, fitting))
  const unit: Unit = {
    kind,
    phrases: [],
    layers: ['feet', 'hips', 'torso', 'arms', 'head'],
    sides: ['R'],
    tempo,
    talk: 0,
    stand: 'mirror',
    music: true,
    moves: [...moves],
  }
  const round = roundOf(unit, materials)
  if (!round) return { ...unit, repeats: 1, talk: seconds }
  const most = Math.floor((countsIn(danced) - round.countIn) / round.counts)
  const repeats = Math.max(1, most)
  const taken = Math.ceil(danceSeconds(unit, round, repeats) - 1e-9)
  return { ...unit, repeats, talk: Math.max(0, seconds - taken) }
}

/** Warm-up 12 % of the class, 3 to 8 minutes; cool-down 6 %, 2 to 4 (model 10). */
export function endsOf(
  wishes: PlanWishes,
  combinations: readonly Combination[],
  materials: Materials,
): readonly Drill[] {
  const seconds = classSeconds(wishes)
  const { vocabulary } = materials
  const warm = movesDrill(
    'warm-up',
    share(seconds, 0.12, 3, 8),
    Math.min(96, wishes.tempoNow),
    (most) => warmUpMoves(combinations, vocabulary, most),
    materials,
  )
  const cool = movesDrill(
    'cool-down',
    share(seconds, 0.06, 2, 4),
    Math.min(64, wishes.tempoNow),
    (most) => coolDownMoves(combinations, vocabulary, most),
    materials,
  )
  return [warm, cool].map((unit) => ready(unit, unit.repeats))
}
