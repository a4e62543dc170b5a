import { ArmPlace, type Gaze, palmAt } from '../body/places'
import type { Side } from '../body/side'
import type { Between } from '../combination/between'
import { FEATURES_OF, type Prop } from '../combination/carried'
import { claimOf } from '../combination/claims'
import type { Combination, Event, Phrase } from '../combination/combination'
import { nearestForm } from '../combination/forms'
import { mirrorEvent } from '../combination/mirror'
import { partOf, partWith } from '../combination/partOf'
import { isSolo, type PartId, type Who } from '../combination/whose'
import type { House } from '../house/house'
import { type Vocabulary, vocabularyFor } from '../moves/vocabulary'
import { handsIn, toldTo, toldWithin } from '../piece/hands'
import { dancedPiece, type Piece } from '../piece/piece'
import { BODY, heldIn, meetingPoint } from '../piece/reach'
import { placeAt } from '../piece/way'
import type { DancedMeeting } from '../simulate/company'
import { intoRoom } from '../simulate/landing'
import { meetingWords } from '../teaching/meetingWords'
import { COUNT, overlap, slotAt, type Tick, tick } from '../time/time'
import { inOrder } from './edit'

/** Something of a piece that one who dances it alone does otherwise. */
interface Replaced {
  readonly phrase: string
  readonly at: Tick
  readonly length: Tick
  /** What it was, in words. */
  readonly what: string
  /** What is danced instead; nothing where it is left out. */
  readonly instead: string
}

export interface Solo {
  readonly combination: Combination
  readonly replaced: readonly Replaced[]
}

/** The size of a lean with nobody to lean on, where it has no easier form (h). */
const LEAN_SIZE = 60

/**
 * What a part dances when her partners are not there: what is written for that, and where nothing is,
 * what comes nearest: hands where they were held, a lean without the weight, her own way round on the
 * spot, eyes to where her partner was.
 */
export function soloOf(combination: Combination, id: PartId, base: Vocabulary, house: House): Solo {
  const part = partWith(combination, id)
  if (!part) return { combination, replaced: [] }
  const vocabulary = vocabularyFor(combination, base)
  const piece = dancedPiece(combination, base, house).lead
  // Nobody is there to wait for.
  const alone = partOf(withoutWaits(combination, part.id), part.id)
  const replaced: Replaced[] = []
  const carried = carriedAlone(combination, alone, part.id)
  const phrases = alone.phrases.map((own): Phrase => {
    const written = combination.phrases.find((one) => one.id === own.id)
    if (!written) return own
    const made = phraseAlone(own, written, {
      part: part.id,
      combination,
      carried,
      piece,
      vocabulary,
      house,
    })
    replaced.push(...made.replaced)
    return made.phrase
  })
  return {
    combination: {
      ...alone,
      title: `${alone.title}, ${part.name} alone`,
      ...(carried.length > 0 && { carried }),
      phrases,
    },
    replaced,
  }
}

/** What she carries alone: her own things, and from the start what a partner would pass to her. */
function carriedAlone(
  combination: Combination,
  { carried: own = [] }: Combination,
  part: PartId,
): readonly Prop[] {
  const given = combination.phrases
    .flatMap(({ between = [] }) => between)
    .flatMap(({ what }) => {
      if (what.kind !== 'pass' || what.to.part !== part) return []
      const prop = combination.carried?.find(({ id }) => id === what.prop)
      const has = own.some(({ id, start }) => id === prop?.id && (start.hands.R || start.hands.L))
      if (!prop || has) return []
      const { part: _, ...thing } = prop
      const on = prop.start.hands.R ?? prop.start.hands.L
      const held = on ?? { at: FEATURES_OF[prop.kind].slice(0, 1), grip: 'fist' as const }
      return [{ ...thing, start: { ...prop.start, hands: { [what.to.side]: held } } }]
    })
  const all = new Map([...own, ...given].map((prop) => [prop.id, prop]))
  return [...all.values()]
}

const withoutWaits = (combination: Combination, part: PartId): Combination => ({
  ...combination,
  phrases: combination.phrases.map(({ between, ...phrase }) => {
    const left = between?.filter(({ what }) => what.kind !== 'wait' || !what.of.includes(part))
    return { ...phrase, ...(left && left.length > 0 && { between: left }) }
  }),
})

const plain = <T extends { readonly who?: Who | undefined }>({ who: _, ...one }: T): T => one as T

interface Around {
  readonly part: PartId
  readonly combination: Combination
  /** What she carries alone. */
  readonly carried: readonly Prop[]
  readonly piece: Piece
  readonly vocabulary: Vocabulary
  readonly house: House
}

function phraseAlone(
  own: Phrase,
  written: Phrase,
  around: Around,
): { readonly phrase: Phrase; readonly replaced: readonly Replaced[] } {
  const { part, combination, vocabulary } = around
  const isHers = (one: { readonly who?: Who | undefined }) =>
    isSolo(one) && (one.who?.length === 1 || one.who?.includes(part) === true)
  const solos = written.events.filter(isHers).map(plain)
  const displaced = (event: Event) => solos.some((solo) => claimsOver(solo, event, vocabulary))
  let events: readonly Event[] = [
    ...own.events.map(plain).filter((event) => !displaced(event)),
    ...solos,
  ]
  const replaced: Replaced[] = []
  const say = (
    one: { readonly at: Tick; readonly length?: Tick | undefined },
    what: string,
    instead: string,
  ) =>
    replaced.push({
      phrase: written.name,
      at: one.at,
      length: one.length ?? slotAt(one.at),
      what,
      instead,
    })
  for (const event of own.events.filter(displaced))
    say(
      event,
      `what is danced with a partner on the ${event.layer}`,
      'what is written for dancing alone',
    )
  for (const one of written.between ?? []) {
    const instead = insteadOf(one, solos, events, around)
    if (!instead) continue
    events = instead.events
    say(one, meetingWords(one.what, combination.parts ?? []), instead.words)
  }
  const lean = events.map((event) => {
    if (!event.supported) return event
    const made = uprightOf(event, vocabulary)
    say(event, 'a lean on a partner', made.words)
    return made.event
  })
  const remarks = [
    ...(own.remarks ?? []).map(plain),
    ...(written.remarks ?? []).filter(isHers).map(plain),
  ]
  const facings = own.facings?.map(plain)
  const props = [...(own.props ?? []), ...(written.props ?? []).filter(isHers)]
    .filter(({ prop }) => around.carried.some(({ id }) => id === prop))
    // What would be passed on she has all along.
    .filter(({ id }) => !written.between?.some((one) => one.id === id))
    .map(plain)
  const { remarks: _, facings: __, options, between: ___, props: ____, ...rest } = own
  return {
    phrase: {
      ...rest,
      events: inOrder(lean),
      ...(remarks.length > 0 && { remarks }),
      ...(props.length > 0 && { props }),
      ...(facings && facings.length > 0 && { facings }),
      ...(options && {
        options: options.map((option) => ({
          ...option,
          events: option.events.filter((event) => !isSolo(event)).map(plain),
        })),
      }),
    },
    replaced,
  }
}

const spanOf = ({ at, length }: Pick<Event, 'at' | 'length'>) => ({
  at,
  length: length ?? slotAt(at),
})

/** Whether an entry for dancing alone takes the place of another one: the same of the body at the same time. */
function claimsOver(solo: Event, event: Event, vocabulary: Vocabulary): boolean {
  if (solo.layer !== event.layer || !overlap(spanOf(solo), spanOf(event))) return false
  const parts = claimOf(solo, vocabulary).parts
  return claimOf(event, vocabulary).parts.some((one) => parts.includes(one))
}

/** A lean that nobody carries: its easier form, or smaller. */
function uprightOf(
  { supported: _, ...event }: Event,
  vocabulary: Vocabulary,
): { readonly event: Event; readonly words: string } {
  const form = nearestForm(event, 'easier', vocabulary)
  if (form && 'what' in form)
    return { event: { ...event, what: form.what }, words: 'its easier form' }
  if (form && 'move' in form && event.what.kind === 'move')
    return {
      event: { ...event, what: { ...event.what, move: form.move } },
      words: 'its easier form',
    }
  return {
    event: { ...event, size: Math.round(((event.size ?? 100) * LEAN_SIZE) / 100) },
    words: 'smaller, in her own balance',
  }
}

interface Instead {
  readonly events: readonly Event[]
  readonly words: string
}

/** What is danced in place of a meeting; undefined where it is not hers. */
function insteadOf(
  one: Between,
  solos: readonly Event[],
  events: readonly Event[],
  around: Around,
): Instead | undefined {
  const { part } = around
  const { what } = one
  const isSaid = (layer: Event['layer']) =>
    solos.some((solo) => solo.layer === layer && overlap(spanOf(solo), one))
  const written = { events, words: 'what is written for dancing alone' }
  switch (what.kind) {
    case 'hold':
    case 'touch': {
      const hand = handsIn(what).find((each) => each.part === part)
      if (!hand) return what.to.part === part ? { events, words: 'nothing' } : undefined
      return isSaid('arms') ? written : handAlone(one, hand.side, events, around)
    }
    case 'place':
      return what.of === part ? { events, words: 'her own way' } : undefined
    case 'support':
      return what.by === part || what.of === part ? { events, words: 'nothing' } : undefined
    case 'led':
      return what.of === part ? { events, words: 'her own turn' } : undefined
    case 'orbit':
      return what.of === part
        ? {
            events: isSaid('feet') ? events : events.map(onTheSpot(one)),
            words: 'the same turns on the spot',
          }
        : undefined
    case 'look':
      if (what.a !== part && (what.b !== part || what.oneWay)) return undefined
      return isSaid('head')
        ? written
        : lookAlone(one, what.a === part ? what.b : what.a, events, around)
    case 'pass':
      return what.from.part === part || what.to.part === part
        ? { events, words: 'in her hand from the start' }
        : undefined
    case 'wait':
      return what.of.includes(part) ? { events, words: 'what all dance' } : undefined
  }
}

const onTheSpot =
  (one: Between) =>
  (event: Event): Event => {
    const { what } = event
    if (
      event.layer !== 'feet' ||
      what.kind !== 'foot' ||
      event.at < one.at ||
      event.at >= one.at + one.length
    )
      return event
    const { direction, ...action } = what.action
    return direction === undefined
      ? event
      : { ...event, what: { ...what, action: { ...action, direction: 'in-place', size: 'small' } } }
  }

/** A meeting as it is first danced. */
const firstOf = ({ meetings }: Piece, { id }: Between): DancedMeeting | undefined =>
  meetings.find(({ meeting }) => meeting.id === id)

/** The arm where the hand was held: at the nearest place it has a name for, and then home again. */
function handAlone(one: Between, side: Side, events: readonly Event[], around: Around): Instead {
  const { part, piece, house, vocabulary } = around
  const first = firstOf(piece, one)
  const held = heldIn(piece).find(({ meeting }) => meeting.id === one.id)
  const own = piece.placed.find((placed) => placed.part.id === part)
  if (!first || !held || !own) return { events, words: 'nothing' }
  const isMirrored = first.pass.mirrored
  const danced: Side = isMirrored ? (side === 'R' ? 'L' : 'R') : side
  const told = toldTo(own.simulation, danced)
  // Her own line leads, or says it already.
  if (toldWithin(told, first).length > 0) return { events, words: 'her arm as it is written' }
  const place = nearestPlace(placeInChest(held, first.from), danced)
  const back = told.findLast(({ until }) => until <= first.from)
  const home =
    back?.event.what.kind === 'arms'
      ? (back.event.what[danced] ?? own.simulation.combination.start.arms[danced])
      : own.simulation.combination.start.arms[danced]
  const end = one.at + one.length
  const goesOn = events.some(
    (event) =>
      event.layer === 'arms' &&
      event.at >= end &&
      event.at < end + COUNT &&
      claimOf(event, vocabulary).parts.includes(`arm${side}`),
  )
  const arm = (at: number, length: number, to: ArmPlace, name: string): Event => {
    const event: Event = {
      id: `${one.id}-${name}`,
      layer: 'arms',
      at: tick(at),
      length: tick(length),
      what: { kind: 'arms', [danced]: to },
    }
    return isMirrored ? mirrorEvent(event) : event
  }
  const counts = around.combination.phrases.find(({ between = [] }) =>
    between.some(({ id }) => id === one.id),
  )?.counts
  const hasRoom = end + COUNT <= (counts ?? 0) * COUNT
  const made = [
    arm(one.at, one.length, place, 'alone'),
    ...(goesOn || home === place || !hasRoom ? [] : [arm(end, COUNT, home, 'home')]),
  ]
  return { events: [...events, ...made], words: `${side === 'R' ? 'right' : 'left'} arm ${place}` }

  function placeInChest(of: NonNullable<typeof held>, at: number) {
    const point = meetingPoint(of, at)
    const { right, forward, facing } = placeAt((own as NonNullable<typeof own>).way, at)
    const seen = intoRoom(-facing, point.right - right, point.forward - forward)
    return { right: seen.right, up: point.up - BODY.chestUp, forward: seen.forward }
  }

  function nearestPlace(to: ReturnType<typeof placeInChest>, of: Side): ArmPlace {
    const far = (name: ArmPlace) => {
      const palm = palmAt(of, name, house.palms)
      return Math.hypot(palm.right - to.right, palm.up - to.up, palm.forward - to.forward)
    }
    return HELD_PLACES.reduce((best, name) => (far(name) < far(best) ? name : best))
  }
}

/** Places a hand is held at in the air, none on the own body. */
const HELD_PLACES: readonly ArmPlace[] = ArmPlace.options.filter((place) =>
  ['low', 'low-v', 'demi-second', 'second', 'front', 'high-v', 'crown', 'corner'].includes(place),
)

/** Eyes to where the partner was, by the nearest word there is for it. */
function lookAlone(
  one: Between,
  other: PartId,
  events: readonly Event[],
  { part, piece }: Around,
): Instead {
  const first = firstOf(piece, one)
  const [own, partner] = [part, other].map((id) =>
    piece.placed.find((placed) => placed.part.id === id),
  )
  if (!first || !own || !partner) return { events, words: 'nothing' }
  const [from, to] = [placeAt(own.way, first.from), placeAt(partner.way, first.from)]
  const way = (Math.atan2(to.right - from.right, to.forward - from.forward) * 180) / Math.PI
  const off = ((((way - from.facing) % 360) + 540) % 360) - 180
  const gaze = gazeTo(off)
  const event: Event = {
    id: `${one.id}-alone`,
    layer: 'head',
    at: one.at,
    length: one.length,
    what: { kind: 'look', gaze },
  }
  const hasOwn = events.some((each) => each.layer === 'head' && overlap(spanOf(each), one))
  return {
    events: hasOwn ? events : [...events, first.pass.mirrored ? mirrorEvent(event) : event],
    words: `a look ${gaze}`,
  }
}

/** The word for a look so many degrees to the right. */
function gazeTo(degrees: number): Gaze {
  const side = degrees > 0 ? 'R' : 'L'
  const far = Math.abs(degrees)
  return far < 25 ? 'front' : far < 60 ? `corner-${side}` : far < 110 ? side : `over-${side}`
}
