import type { DancedEvent } from '../../combination/lengths'
import type { Move } from '../../moves/move'
import { cyclesOf } from '../../moves/rate'
import { secondsOfTicks, tempoFor } from '../../time/tempo'
import { TICKS_PER_COUNT } from '../../time/time'
import { feetByPass } from '../passByPass'
import { spotOf } from '../rule'
import { canBeFound, type TempoLimit, type TempoRule } from '../tempoRule'

/** Moves with less time than they can be danced well in (model 8). */
export const fastMoves: TempoRule = {
  id: 'fast-moves',
  tempoLimits: (danceable) => fastIn(danceable).found,
}

const fastIn = feetByPass<undefined, TempoLimit>(
  undefined,
  ({ slice: { pass }, house, vocabulary }) => {
    const share = house.limits['reach.ofFastest']
    const found = pass.events.flatMap((event): readonly TempoLimit[] => {
      const move = event.what.kind === 'move' && vocabulary.find(event.what.move)
      if (!move || event.on) return []
      const least = move.fastest_s * share
      const { ticks, each } = timeGiven(event, move)
      const most = tempoFor(ticks, least)
      if (!canBeFound(most)) return []
      return [
        {
          at: pass.at + event.at,
          most,
          found: (tempo) => ({
            code: 'move.too-fast',
            move: move.name,
            seconds: secondsOfTicks(ticks, tempo),
            least,
            each,
            spot: spotOf(pass, event),
            events: [event.id],
          }),
        },
      ]
    })
    return { found, carry: undefined }
  },
)

/** The ticks a move has for what must be danced in its fastest time: itself, a repeat, or one swing. */
function timeGiven(
  { what, length, rate }: DancedEvent,
  move: Move,
): { ticks: number; each: 'whole' | 'repeat' | 'swing' } {
  const every = what.kind === 'move' ? what.every : undefined
  if (move.kind === 'texture')
    return { ticks: TICKS_PER_COUNT / (rate ?? cyclesOf(move).perCount), each: 'swing' }
  if (rate !== undefined && move.kind === 'path')
    return { ticks: (TICKS_PER_COUNT * cyclesOf(move).inMove) / rate, each: 'repeat' }
  if (every !== undefined) return { ticks: Math.min(every, length), each: 'repeat' }
  if (move.kind === 'path' || move.kind === 'place') return { ticks: length, each: 'whole' }
  return { ticks: Math.min(move.length, length), each: length > move.length ? 'repeat' : 'whole' }
}
