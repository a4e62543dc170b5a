import { tick } from '../../time/time'
import { repeatsOf } from '../../what/repeats'
import { type Rule, spotOf } from '../rule'

/** Figures that do not fill their range, and moves this vocabulary does not know. */
export const figures: Rule = {
  id: 'figures',
  *check({ simulation, vocabulary }) {
    for (const pass of simulation.passes) {
      for (const event of pass.events) {
        if (event.what.kind !== 'move') continue
        const where = { spot: spotOf(pass, event), events: [event.id] }
        const move = vocabulary.find(event.what.move)
        if (!move) {
          yield { code: 'move.unknown', move: event.what.move, ...where }
        } else if (move.kind === 'steps' && event.isCut) {
          // Behind its last step there is nothing of it to lose; and a pickup takes what it takes.
          const isLost = move.pattern.some(({ at }) => at >= event.length)
          const isLed = pass.leadIn?.from.get('feet') === event.at + event.length
          if (!isLost || isLed) continue
          const left = tick(move.length - event.length)
          const danced = event.length
          yield { code: 'move.remainder', move: move.name, left, none: false, danced, ...where }
        } else if (move.kind === 'steps') {
          const { times, left } = repeatsOf(event.what, event.whole ?? event.length, move)
          if (left > 0)
            yield { code: 'move.remainder', move: move.name, left, none: times === 0, ...where }
        }
      }
    }
  },
}
