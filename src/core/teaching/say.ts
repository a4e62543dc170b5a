import type { Direction, FootAction } from '../body/feet'
import { compassWord } from '../body/places'
import { type Side, sideWord } from '../body/side'
import type { Event } from '../combination/combination'
import { gazeName, nameOf } from '../combination/names'
import type { Pass } from '../combination/passes'
import type { Layer } from '../moves/move'
import type { Vocabulary } from '../moves/vocabulary'
import { type Simulation, stateAt } from '../simulate/simulate'
import { labelOfSpan, labelOfTick, TICKS_PER_COUNT, tick, tickOfCount } from '../time/time'

/** What to do on one count, in words a dancer can follow. */
export interface CountWords {
  readonly count: number
  /** What the feet do, with its label when it is not on the count itself. */
  readonly feet: readonly string[]
  /** The other layers that start here. */
  readonly layers: readonly { readonly layer: Layer; readonly text: string }[]
  /** Where the weight is when the count is over. */
  readonly weight: string
  /** Spoken cues written for this count. */
  readonly cues: readonly string[]
}

function directionWords(direction: Direction, foot: Side): string {
  switch (direction) {
    case 'side':
      return `to the ${sideWord[foot]}`
    case 'together':
      return 'beside the other'
    case 'in-place':
      return 'in place'
    case 'diag-forward':
      return `forward to the ${sideWord[foot]}`
    case 'diag-back':
      return `back to the ${sideWord[foot]}`
    case 'cross-front':
      return 'across in front'
    case 'cross-behind':
      return 'across behind'
    default:
      return direction
  }
}

const turnWords = (degrees: number): string =>
  `turning ${Math.abs(degrees)}° to the ${degrees > 0 ? 'right' : 'left'}`

/** One thing the feet do as a sentence without its full stop: “left foot touches beside the other”. */
function sayAction(action: FootAction): string {
  const { primitive, foot, direction, turn, size, contact } = action
  const who = foot ? `${sideWord[foot]} foot` : ''
  const turning = turn ? `, ${turnWords(turn)}` : ''
  switch (primitive) {
    case 'close':
      return `${who} closes${turning}`
    case 'sway':
      return `sway onto the ${who}${turning}`
    case 'hop':
      return `hop on the ${who}${turning}`
    case 'heel':
      return `${who} puts its heel ${directionWords(direction ?? 'forward', foot ?? 'R')}${turning}`
    case 'lift':
      return `${who} lifts${direction === 'forward' ? '' : ` ${directionWords(direction ?? 'forward', foot ?? 'R')}`}${turning}`
    case 'centre':
      return 'weight onto both feet'
    case 'pivot':
      return `stay on the spot, ${turnWords(turn ?? 0)}`
    case 'jump':
      return `jump onto both feet${turning}`
    case 'rise':
      return 'rise onto the toes'
    case 'lower':
      return 'heels down'
    case 'bend':
      return 'bend the knees'
    case 'straighten':
      return 'stand tall, knees not locked'
    case 'hold':
      return 'hold'
    default: {
      const verb = primitive.endsWith('h') ? `${primitive}es` : `${primitive}s`
      const how = [
        size === 'small' ? ' small' : size === 'large' ? ' wide' : '',
        contact ? ` on the ${contact}` : '',
      ]
      return `${who} ${verb} ${directionWords(direction ?? 'in-place', foot ?? 'R')}${how.join('')}${turning}`
    }
  }
}

const capital = (text: string): string => `${text[0]?.toUpperCase() ?? ''}${text.slice(1)}`

/** What one event of another layer asks for. */
function sayEvent(event: Event, vocabulary: Vocabulary): string {
  const { what } = event
  const until = event.length > TICKS_PER_COUNT ? ` (${labelOfSpan(event)})` : ''
  switch (what.kind) {
    case 'at':
      return `${event.layer === 'torso' ? 'ribs' : 'hips'} to the ${compassWord[what.place]}${until}`
    case 'arms': {
      const via = what.via ? `, by the ${what.via}` : ''
      if (what.R === what.L) return `both arms to ${what.R}${via}${until}`
      const each = (['R', 'L'] as const).flatMap((side) => {
        const place = what[side]
        return place ? [`${sideWord[side]} arm to ${place}`] : []
      })
      return `${each.join(', ')}${via}${until}`
    }
    case 'look':
      return `${gazeName[what.gaze]}${until}`
    default: {
      const name = nameOf(event, vocabulary).replace(/ R$/, ' right').replace(/ L$/, ' left')
      return `${name.replace(/ cw$/, ', clockwise').replace(/ ccw$/, ', anticlockwise')}${until}`
    }
  }
}

/** What to do on each count of a phrase, for the layers that are being practised. */
export function sayPass(
  simulation: Simulation,
  pass: Pass,
  layers: ReadonlySet<Layer>,
  vocabulary: Vocabulary,
): readonly CountWords[] {
  return Array.from({ length: pass.phrase.counts }, (_, i): CountWords => {
    const from = tickOfCount(i + 1)
    const to = from + TICKS_PER_COUNT
    const here = pass.events.filter((event) => event.at >= from && event.at < to)
    const steps = simulation.danced.filter(
      ({ at, pass: danced }) =>
        danced.index === pass.index && at - pass.at >= from && at - pass.at < to,
    )
    const weight = stateAt(simulation, pass.at + to - 1).weight
    return {
      count: i + 1,
      feet: layers.has('feet')
        ? steps.map(({ at, action }) => withLabel(tick(at - pass.at), sayAction(action)))
        : [],
      layers: here
        .filter((event) => event.layer !== 'feet' && layers.has(event.layer))
        .map((event) => ({
          layer: event.layer,
          text: withLabel(event.at, sayEvent(event, vocabulary)),
        })),
      weight: weight === 'both' ? 'both feet' : `${sideWord[weight]} foot`,
      cues: here.flatMap(({ cue }) => (cue ? [cue] : [])),
    }
  })
}

const withLabel = (at: ReturnType<typeof tick>, text: string): string =>
  at % TICKS_PER_COUNT === 0 ? capital(text) : `${labelOfTick(at)}: ${text}`
