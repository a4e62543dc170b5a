import { factsOf } from '../body/feet'
import type { Event, Phrase } from '../combination/combination'
import type { Edit } from '../edits/edit'
import { spreadTurn } from '../edits/turns'
import { COUNT, tick } from '../time/time'

/** So far each step of a walked turn goes at the most. */
const MOST_EACH = 120

const turnOf = ({ what }: Event): number => (what.kind === 'foot' ? (what.action.turn ?? 0) : 0)

const lands = ({ layer, what }: Event): boolean =>
  layer === 'feet' && what.kind === 'foot' && factsOf(what.action.primitive).lands

/** The single steps that turn one way around an event, without a whole count between them. */
function runAround({ events }: Phrase, id: string): readonly Event[] {
  const steps = events.filter(lands).sort((a, b) => a.at - b.at)
  const at = steps.findIndex((one) => one.id === id)
  const way = Math.sign(turnOf(steps[at] as Event))
  if (at < 0 || way === 0) return []
  const goesOn = (i: number, by: 1 | -1) => {
    const [here, next] = [steps[i], steps[i + by]]
    if (!here || !next || Math.sign(turnOf(next)) !== way) return false
    return Math.abs(next.at - here.at) <= COUNT
  }
  let [from, to] = [at, at]
  while (goesOn(from, -1)) from--
  while (goesOn(to, 1)) to++
  return steps.slice(from, to + 1)
}

/** A run of turns that makes whole turns, walked over its steps; unchanged where each would get too much. */
export const walkedTurn =
  (id: string): Edit =>
  (combination) => {
    const phrase = combination.phrases.find(({ events }) => events.some((one) => one.id === id))
    const event = phrase?.events.find((one) => one.id === id)
    if (!phrase || !event || turnOf(event) === 0 || !lands(event)) return combination
    const run = runAround(phrase, id)
    const [first] = run
    const last = run.at(-1)
    const degrees = run.reduce((sum, one) => sum + turnOf(one), 0)
    if (!first || !last || degrees % 360 !== 0) return combination
    if (Math.abs(degrees) / run.length > MOST_EACH) return combination
    const span = { at: first.at, length: tick(last.at + 1 - first.at) }
    return spreadTurn(phrase.id, span, degrees)(combination)
  }
