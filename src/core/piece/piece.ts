import { dequal } from 'dequal'
import type { FloorPoint } from '../body/places'
import type { Between, MeetingOf } from '../combination/between'
import type { Combination, OneSide } from '../combination/combination'
import { mirror } from '../combination/mirror'
import { mirrorBetween } from '../combination/mirrorBetween'
import type { Part } from '../combination/part'
import { partIds, partOf } from '../combination/partOf'
import type { Pass } from '../combination/passes'
import { CENTRE, type PartId } from '../combination/whose'
import type { House } from '../house/house'
import type { Vocabulary } from '../moves/vocabulary'
import { remembered } from '../record/remembered'
import type { DancedMeeting } from '../simulate/company'
import { type Danced, danced } from '../simulate/danced'
import { delayed } from '../simulate/delayed'
import type { Simulation, Slice } from '../simulate/simulate'
import { carries, type Drawing, drawnBy } from './drawn'
import { DrawnWay } from './drawnWay'
import { apartOf, type Goal, goalOf, MIDDLE } from './relation'
import { placeBefore, type Way, type WayPoint, wayOf } from './way'

/** A part as it is danced on one side of a piece. */
export interface Placed {
  readonly part: Part
  /** Her dance on the clock of the piece, with the steps that her places draw. */
  readonly simulation: Simulation
  /** Where each of its dancers stands on count 1. */
  readonly at: readonly FloorPoint[]
  /** The way of the first of them. */
  readonly way: Way
}

/** All parts of a combination in one room, on one side. */
export interface Piece {
  readonly placed: readonly Placed[]
  readonly meetings: readonly DancedMeeting[]
  /** The parts whose steps are drawn by their places. */
  readonly drawn: ReadonlySet<PartId>
  readonly length: number
  readonly house: House
}

/** A combination for several, danced: each part with both sides, and all of them together on each. */
export interface DancedPiece {
  readonly of: (part: PartId) => Danced
  readonly lead: Piece
  readonly other: Piece
}

interface By {
  readonly base: Vocabulary
  readonly house: House
}

const isSameBy = (a: By, b: By): boolean => a.base === b.base && a.house === b.house

/** A combination for one danced, or a part by herself; the very same for as long as nothing of hers changes. */
export const dancedAlone = remembered(
  (alone: Combination, { base, house }: By): Danced => danced(alone, base, house),
  isSameBy,
)

/** Dances a combination for several; the very same for the same combination, words and house. */
export const dancedPiece = (
  combination: Combination,
  base: Vocabulary,
  house: House,
): DancedPiece => dancedTogether(combination, { base, house })

const dancedTogether = remembered(danceTogether, isSameBy)

function danceTogether(combination: Combination, by: By): DancedPiece {
  const alone = new Map(
    partIds(combination).map((id) => [id, dancedAlone(partOf(combination, id), by)]),
  )
  const aloneOf = (id: PartId): Danced => {
    const dance = alone.get(id) ?? [...alone.values()][0]
    if (!dance) throw new Error('a combination has a part')
    return dance
  }
  const sideOf = (side: 'lead' | 'other'): Piece =>
    pieceOf(
      side === 'lead' ? combination : mirror(combination),
      (id) => aloneOf(id)[side],
      by.house,
    )
  const lead = sideOf('lead')
  let other: Piece | undefined
  const onOther = () => {
    other ??= sideOf('other')
    return other
  }
  return {
    of: (id) => drawnDance(aloneOf(id), { lead, other: onOther, id }),
    lead,
    get other() {
      return onOther()
    },
  }
}

interface Drawn {
  readonly lead: Piece
  readonly other: () => Piece
  readonly id: PartId
}

/** A part's dance on her own clock, as it is drawn. */
function simulationIn({ placed }: Piece, id: PartId): Simulation | undefined {
  const found = placed.find(({ part }) => part.id === id)
  return found && delayed(found.simulation, -(found.part.delay ?? 0))
}

/** Whether places draw any of her steps. */
const isDrawn = ({ drawn }: Piece, id: PartId): boolean => drawn.has(id)

/** A part's dance as her places draw it: her own where nothing is drawn. */
const drawnDance = remembered(
  (alone: Danced, { lead, other, id }: Drawn): Danced => {
    const drawn = simulationIn(lead, id) ?? alone.lead
    if (!isDrawn(lead, id)) return alone
    const onOther = () => simulationIn(other(), id) ?? alone.other
    return {
      written: alone.written,
      vocabulary: alone.vocabulary,
      house: alone.house,
      lead: drawn,
      get other() {
        return onOther()
      },
      from: ({ side }) => (side === alone.written.lead ? drawn : onOther()),
    }
  },
  (a, b) => a.id === b.id && simulationIn(a.lead, a.id) === simulationIn(b.lead, b.id),
)

/** The parts of one side of a combination in their room, their steps drawn by their places. */
function pieceOf(combination: OneSide, danceOf: (part: PartId) => Simulation, house: House): Piece {
  const parts = combination.parts ?? []
  const aloneOf = (id: PartId): Simulation =>
    delayed(danceOf(id), parts.find((one) => one.id === id)?.delay)
  const [first] = parts
  const meetings = first ? meetingsIn(combination, aloneOf(first.id).passes) : []
  const length = first ? aloneOf(first.id).length : 0
  const ways = new Map(
    parts.map((part) => [part.id, new DrawnWay(aloneOf(part.id), placeOf(part))] as const),
  )
  for (const one of meetings) {
    const { what } = one.meeting
    if (what.kind !== 'place' && what.kind !== 'orbit') continue
    /** Where a dancer is with what is drawn of her so far. */
    const placed = (id: PartId) => {
      const way = ways.get(id)
      return way && { way: way.until(one.until) }
    }
    const drawing = drawingOf(one, { placed, steps: aloneOf(what.of).slices, meetings, house })
    if (drawing) ways.get(what.of)?.add(drawing)
  }
  const drawingsOf = (id: PartId): readonly Drawing[] => ways.get(id)?.drawings ?? []
  return {
    placed: parts.map((part) => placedOn(part, drawnFrom(aloneOf(part.id), drawingsOf(part.id)))),
    meetings,
    drawn: new Set(parts.flatMap(({ id }) => (drawingsOf(id).length > 0 ? [id] : []))),
    length,
    house,
  }
}

/** Where the first of a part stands on count 1. */
const placeOf = ({ at }: Part): FloorPoint => at[0] ?? { right: 0, forward: 0 }

const placedOn = (part: Part, simulation: Simulation): Placed => ({
  part,
  simulation,
  at: part.at,
  way: wayOf(simulation, placeOf(part)),
})

/** The whole dance as it is drawn; the very same for the same drawings. */
const drawnFrom = remembered(drawnBy, (a: readonly Drawing[], b: readonly Drawing[]) =>
  dequal(a, b),
)

/** What two do with each other, pass by pass, in order of time; a meeting of a mirrored dancing is mirrored. */
export function meetingsIn(
  combination: OneSide,
  passes: readonly Pass[],
): readonly DancedMeeting[] {
  const written = new Map(combination.phrases.map((phrase) => [phrase.id, phrase]))
  return passes
    .flatMap((pass) =>
      (written.get(pass.phrase.id)?.between ?? []).map((meeting): DancedMeeting => {
        const from = pass.at + meeting.at
        return {
          meeting: pass.mirrored ? mirrorBetween(meeting) : meeting,
          pass,
          from,
          until: from + meeting.length,
        }
      }),
    )
    .sort((a, b) => a.from - b.from)
}

/** Where a place leads to at its end, and where she would be; undefined where a part is unknown. */
export function placeGoal(
  { meeting, from, until }: DancedMeeting,
  placed: (id: PartId) => Pick<Placed, 'way'> | undefined,
  meetings: readonly DancedMeeting[],
  house: House,
): { readonly goal: Goal; readonly is: WayPoint } | undefined {
  const { what } = meeting
  if (what.kind === 'orbit') return orbitGoal(meeting, what, { from, until, placed, house })
  if (what.kind !== 'place') return undefined
  const own = placed(what.of)
  const other = what.to === CENTRE ? undefined : placed(what.to)
  if (!own || (what.to !== CENTRE && !other)) return undefined
  const to = other ? placeBefore(other.way, until) : MIDDLE
  return {
    goal: goalOf(what.rel, to, apartOf(what, until, meetings, house)),
    is: placeBefore(own.way, until),
  }
}

interface Round {
  readonly from: number
  readonly until: number
  readonly placed: (id: PartId) => Pick<Placed, 'way'> | undefined
  readonly house: House
  /** The tick it is asked for; the end where it is not said. */
  readonly at?: number
}

/** Where a way round somebody leads to by a tick, and where she would be. */
function orbitGoal(
  { at: _ }: Between,
  { of, round, degrees, apart, face }: MeetingOf<'orbit'>,
  { from, until, placed, house, at = until }: Round,
): { readonly goal: Goal; readonly is: WayPoint } | undefined {
  const [own, other] = [placed(of), placed(round)]
  if (!own || !other) return undefined
  const [begins, middle] = [placeBefore(own.way, from), placeBefore(other.way, from)]
  const angle = Math.atan2(begins.right - middle.right, begins.forward - middle.forward)
  const share = (at - from) / (until - from)
  const turned = angle + ((degrees * Math.PI) / 180) * share
  const now = placeBefore(other.way, at)
  const far = apart ?? house.limits['pair.apart']
  const out = (turned * 180) / Math.PI
  const facing =
    face === 'out' ? out : face === 'in' ? out + 180 : face && out + (degrees > 0 ? 90 : -90)
  return {
    goal: {
      right: now.right + Math.sin(turned) * far,
      forward: now.forward + Math.cos(turned) * far,
      facing,
    },
    is: placeBefore(own.way, at),
  }
}

/** Who and what a place is drawn among. */
interface Among {
  readonly placed: (id: PartId) => Pick<Placed, 'way'> | undefined
  /** What she dances who is drawn, pass by pass. */
  readonly steps: readonly Slice[]
  readonly meetings: readonly DancedMeeting[]
  readonly house: House
}

/** Her landings within a meeting that carry her. */
const landingsOf = (
  { steps }: Among,
  { from, until }: DancedMeeting,
): readonly { readonly at: number }[] =>
  steps.flatMap(({ pass, danced: all }) =>
    pass.at < until && pass.at + pass.length > from
      ? all.filter((step) => carries(step) && step.at >= from && step.at < until)
      : [],
  )

/** How a place draws the steps of its range; nothing where she is there, or could not be brought there. */
function drawingOf(one: DancedMeeting, among: Among): Drawing | undefined {
  const { what } = one.meeting
  if (one.meeting.at < 0) return undefined
  if (what.kind === 'orbit') return orbitDrawing(one, what, among)
  if (what.kind !== 'place') return undefined
  const { placed, meetings, house } = among
  const found = placeGoal(one, placed, meetings, house)
  if (!found) return undefined
  const { goal, is } = found
  const by = { right: goal.right - is.right, forward: goal.forward - is.forward }
  const far = Math.hypot(by.right, by.forward)
  const landings = landingsOf(among, one).length
  const { limits } = house
  const isDrawn =
    landings > 0 &&
    far > 1e-6 &&
    far <= limits['pair.drawFar'] &&
    far / landings <= limits['pair.drawStep']
  if (!isDrawn) return undefined
  return {
    from: one.from,
    to: one.until,
    by: Array.from({ length: landings }, (_, k) => ({
      right: (by.right * (k + 1)) / landings,
      forward: (by.forward * (k + 1)) / landings,
    })),
  }
}

/** How a way round somebody draws the steps: each landing is brought onto the circle, for as long as none has to go too far. */
function orbitDrawing(
  one: DancedMeeting,
  what: MeetingOf<'orbit'>,
  among: Among,
): Drawing | undefined {
  const { placed, house } = among
  const { from, until } = one
  const landings = landingsOf(among, one)
  const by: FloorPoint[] = []
  for (const [i] of landings.entries()) {
    const at = landings[i + 1]?.at ?? until
    const found = orbitGoal(one.meeting, what, { from, until, placed, house, at })
    if (!found) return undefined
    const { goal, is } = found
    by.push({ right: goal.right - is.right, forward: goal.forward - is.forward })
  }
  const { limits } = house
  const isDrawn = by.every((now, i) => {
    const last = by[i - 1] ?? { right: 0, forward: 0 }
    const more = Math.hypot(now.right - last.right, now.forward - last.forward)
    return (
      more <= limits['pair.drawStep'] &&
      Math.hypot(now.right, now.forward) <= limits['pair.drawFar']
    )
  })
  return by.length > 0 && isDrawn ? { from, to: until, by } : undefined
}
