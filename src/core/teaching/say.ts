import { facingWord } from '../body/facing'
import type { Direction, FootAction } from '../body/feet'
import type { Layer } from '../body/layers'
import { Compass, compassWord, mirrorCompass } from '../body/places'
import { otherSide, SIDES, type Side, sideWord } from '../body/side'
import type { Combination, Event, Remark, What } from '../combination/combination'
import { gazeName, nameOf } from '../combination/names'
import { type Pass, pickupTicks } from '../combination/passes'
import { turningOf } from '../moves/motion'
import type { Move } from '../moves/move'
import type { Vocabulary } from '../moves/vocabulary'
import { type Simulation, stateAt } from '../simulate/simulate'
import {
  labelIn,
  labelOfSpan,
  type Span,
  TICKS_PER_COUNT,
  type Tick,
  tick,
  tickOfCount,
} from '../time/time'

/** What to do on one count, in words a dancer can follow. */
export interface CountWords {
  readonly count: number
  /** What the feet do, with its label when it is not on the count itself. */
  readonly feet: readonly string[]
  /** The other layers that start here. */
  readonly layers: readonly { readonly layer: Layer; readonly text: string }[]
  /** Where the weight is when the count is over. */
  readonly weight: string
  /** Spoken cues written for this count, of a move or of the phrase. */
  readonly cues: readonly string[]
  /** What a page says beside it: easier forms, lyrics, notes, what is held, where it faces. */
  readonly asides: readonly string[]
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

/** `until 4`: where something ends that lasts longer than a count. */
function untilWords(event: Span, counts: number): string {
  if (event.length <= TICKS_PER_COUNT) return ''
  const label = labelIn(counts)
  const last = labelOfSpan(event, label).split(/[->]/).at(-1) ?? ''
  return `, until ${last}`
}

/** How often it is danced, and on which sides in turn. */
function everyWords(what: Extract<What, { kind: 'move' }>): string {
  if (what.every === undefined) return ''
  const counts = what.every / TICKS_PER_COUNT
  return counts === 1
    ? ', on every count'
    : counts === 0.5
      ? ', on every half count'
      : `, every ${Math.round(counts * 100) / 100} counts`
}

/** A half ring says where it goes; its side alone would leave that open. */
function goesTo(what: Extract<What, { kind: 'move' }>, move: Move | undefined): string | undefined {
  const [path, ...more] = move?.motion ?? []
  if (path?.verb !== 'arc' || more.length > 0 || !turningOf(move?.motion ?? [])) return undefined
  const end = Compass.safeParse(path.places.at(-1)).data
  if (!end || path.places[0] === end) return undefined
  return `to the ${compassWord[what.side === 'L' ? mirrorCompass(end) : end]}`
}

const SIDE_AT_END = / (R|L|cw|ccw)$/
const WAY_WORDS: ReadonlyMap<string, string> = new Map([
  ['R', ' right'],
  ['L', ' left'],
  ['cw', ', clockwise'],
  ['ccw', ', anticlockwise'],
])

/** A move by name, with its side, how often, how large and how long. */
function sayMove(
  event: Event,
  what: Extract<What, { kind: 'move' }>,
  vocabulary: Vocabulary,
): string {
  const { as, size, rate } = event
  const name = nameOf(event, vocabulary)
  const where = goesTo(what, vocabulary.find(what.move))
  const side = as ? '' : (WAY_WORDS.get(SIDE_AT_END.exec(name)?.[1] ?? '') ?? '')
  const plain = as ?? name.replace(SIDE_AT_END, '')
  const sides = !what.alt ? (where ? `, ${where}` : side) : turnsWords(what, where ?? side)
  return [
    plain,
    sides,
    everyWords(what),
    size !== undefined && `, at ${size} % of its size`,
    rate !== undefined && `, ${rate} a count`,
    what.via && `, by the ${what.via}`,
  ]
    .filter(Boolean)
    .join('')
}

/** Repeats that take turns: the first on the side that is written. */
const turnsWords = (what: Extract<What, { kind: 'move' }>, side: string): string =>
  what.side
    ? ` ${sideWord[what.side]}, ${sideWord[otherSide[what.side]]}, ${sideWord[what.side]} …`
    : `${side}, then the other way round, in turn`

/** What one event of another layer asks for. */
function sayEvent(event: Event, counts: number, vocabulary: Vocabulary): string {
  const { what } = event
  const until = untilWords(event, counts)
  const maybe = event.optional ? 'if you like: ' : ''
  const already = event.on ? ', there on the count' : ''
  const text = (): string => {
    switch (what.kind) {
      case 'at':
        return `${event.layer === 'torso' ? 'ribs' : 'hips'} to the ${compassWord[what.place]}`
      case 'arms': {
        const via = what.via ? `, by the ${what.via}` : ''
        if (what.R === what.L) return `both arms to ${what.R}${via}`
        const each = SIDES.flatMap((side) => {
          const place = what[side]
          return place ? [`${sideWord[side]} arm to ${place}`] : []
        })
        return `${each.join(', ')}${via}`
      }
      case 'look':
        return gazeName[what.gaze]
      case 'move':
        return sayMove(event, what, vocabulary)
      case 'foot':
        return sayAction(what.action)
    }
  }
  // What the instructor calls it is said as she writes it.
  const said = event.as && what.kind !== 'move' ? event.as : text()
  return `${maybe}${said}${already}${until}`
}

/** What a page says beside a move: its easier and harder form, its lyric word, what was noted. */
function asidesOf(event: Event, vocabulary: Vocabulary): readonly string[] {
  const name = nameOf(event, vocabulary)
  const form = (id: string | undefined) => id && (vocabulary.find(id)?.name.toLowerCase() ?? id)
  const [easier, harder] = [form(event.easier), form(event.harder)]
  return [
    ...(easier ? [`easier for ${name}: ${easier}`] : []),
    ...(harder ? [`harder for ${name}: ${harder}`] : []),
    ...(event.words ? [`words: “${event.words}”`] : []),
    ...(event.note ? [event.note] : []),
  ]
}

/** What is noted for a place and belongs to no move; what is said stands with the cues. */
const remarkWords = ({ kind, text, ...span }: Remark, counts: number): string => {
  const until = untilWords(span, counts)
  return kind === 'words' ? `words: “${text}”${until}` : kind === 'prop' ? `${text}${until}` : text
}

/** What to do on each count of a phrase, for the layers that are being practised. */
export function sayPass(
  simulation: Simulation,
  pass: Pass,
  layers: ReadonlySet<Layer>,
  vocabulary: Vocabulary,
): readonly CountWords[] {
  return Array.from({ length: pass.phrase.counts }, (_, i) =>
    sayCount(simulation, pass, i + 1, layers, vocabulary),
  )
}

/** When the pickup is danced, over its lines on a page. */
export const pickupTitle = ({ pickup }: Pick<Combination, 'pickup'>): string =>
  pickup?.each ? 'Before every round' : 'Before count 1'

/**
 * What the pickup asks for, count by count; empty without one. Each is called by the count it
 * has in an eight: the one before count 1 is the last of its phrase.
 */
export function sayPickup(
  simulation: Simulation,
  layers: ReadonlySet<Layer>,
  vocabulary: Vocabulary,
): readonly CountWords[] {
  const [pass] = simulation.passes
  const counts = pickupTicks(simulation.combination) / TICKS_PER_COUNT
  if (!pass) return []
  return Array.from({ length: counts }, (_, i) => {
    const said = sayCount(simulation, pass, i + 1 - counts, layers, vocabulary)
    return { ...said, count: said.count + pass.phrase.counts }
  })
}

function sayCount(
  simulation: Simulation,
  pass: Pass,
  count: number,
  layers: ReadonlySet<Layer>,
  vocabulary: Vocabulary,
): CountWords {
  const { counts, facings = [] } = pass.phrase
  const from = tickOfCount(count)
  const to = from + TICKS_PER_COUNT
  const isHere = ({ at }: { readonly at: number }) => at >= from && at < to
  const here = pass.events.filter(isHere)
  const remarks = pass.remarks.filter(isHere)
  const steps = simulation.danced.filter(
    ({ at, pass: danced }) => danced.index === pass.index && isHere({ at: at - pass.at }),
  )
  const { weight } = stateAt(simulation, pass.at + to - 1)
  const label = labelIn(counts)
  const withLabel = (at: Tick, text: string): string =>
    at % TICKS_PER_COUNT === 0 ? capital(text) : `${label(at)}: ${text}`
  return {
    count,
    feet: layers.has('feet')
      ? steps.map(({ at, action, event }) =>
          withLabel(
            tick(at - pass.at),
            `${event.optional ? 'if you like: ' : ''}${sayAction(action)}`,
          ),
        )
      : [],
    layers: here
      .filter((event) => event.layer !== 'feet' && layers.has(event.layer))
      .map((event) => ({
        layer: event.layer,
        text: withLabel(event.at, sayEvent(event, counts, vocabulary)),
      })),
    weight: weight === 'both' ? 'both feet' : `${sideWord[weight]} foot`,
    cues: [
      ...new Set([
        ...here.flatMap(({ cue }) => (cue ? [cue] : [])),
        ...remarks.flatMap(({ kind, text }) => (kind === 'say' ? [text] : [])),
      ]),
    ],
    asides: [
      ...here
        .filter(({ layer }) => layers.has(layer))
        .flatMap((event) => asidesOf(event, vocabulary)),
      ...remarks.filter(({ kind }) => kind !== 'say').map((remark) => remarkWords(remark, counts)),
      ...facings
        .filter(isHere)
        .map(({ at }) => `facing ${facingWord(stateAt(simulation, pass.at + at).facing)}`),
    ],
  }
}
