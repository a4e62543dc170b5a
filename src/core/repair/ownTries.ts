import { dequal } from 'dequal'
import { factsOf } from '../body/feet'
import type { Between } from '../combination/between'
import type { Combination } from '../combination/combination'
import { mirrorWhat } from '../combination/mirror'
import { phraseOf } from '../combination/partOf'
import { isOwnOf, isShared } from '../combination/whose'
import { changeEvent, removeEvents } from '../edits/edits'
import { danceBy } from '../edits/parts'
import { writeVoice } from '../edits/voices'
import type { Finding } from '../findings/finding'
import { COUNT, TICKS_PER_COUNT, tick } from '../time/time'
import { addTo, idFor, type PairTry } from './meetingTries'

/** Who follows comes in early enough to dance all of it. */
export function inTimeForAll(
  { spot, whose: [part] }: Finding,
  { phrases, parts = [] }: Combination,
): readonly PairTry[] {
  const phrase = phrases.find(({ name }) => name === spot.phrase)
  const voice = phrase?.voices?.find((one) => one.part === part)
  const leader = parts.find(({ id }) => id === voice?.of)
  if (!phrase || !voice || !leader) return []
  const last = Math.max(...phraseOf(phrase, leader, parts).events.map(({ at }) => at))
  const room = phrase.counts * TICKS_PER_COUNT - 1 - last
  const counts = Math.floor(room / TICKS_PER_COUNT)
  return counts < 1
    ? []
    : [
        {
          label: `come in ${counts === 1 ? 'a count' : `${counts} counts`} later, not more`,
          make: writeVoice(phrase.id, { ...voice, by: tick(counts * TICKS_PER_COUNT) }),
        },
      ]
}

/** Somebody who carries her for as long as she leans, or a lean that needs nobody. */
export function supportFor(
  { events, whose }: Finding,
  { phrases, parts = [] }: Combination,
): readonly PairTry[] {
  const [id] = events
  const phrase = phrases.find((one) => one.events.some((event) => event.id === id))
  const event = phrase?.events.find((one) => one.id === id)
  const [of] = whose
  const by = parts.find((part) => part.id !== of)
  if (!phrase || !event || of === undefined || !by) return []
  const support: Between = {
    id: idFor('support', event),
    at: event.at,
    length: event.length ?? COUNT,
    what: { kind: 'support', by: by.id, of, share: 20 },
  }
  return [
    { label: `${by.name} carries her`, make: addTo(phrase.id, support) },
    { label: 'dance it without leaning', make: changeEvent(event.id, { supported: undefined }) },
  ]
}

/** What two dance alike is written once, for all. */
export function shareIt(
  { events, whose, spot }: Finding,
  { phrases, parts = [] }: Combination,
): readonly PairTry[] {
  const [id] = events
  const phrase = phrases.find(({ name }) => name === spot.phrase)
  const event = phrase?.events.find((one) => one.id === id)
  if (!phrase || !event || parts.length !== whose.length) return []
  const same = phrase.events.filter(
    (one) =>
      one !== event &&
      one.layer === event.layer &&
      one.who !== undefined &&
      Math.abs(one.at - event.at) <= TICKS_PER_COUNT / 2 &&
      dequal(one.what, event.what),
  )
  return [
    {
      label: 'write it once, for all',
      make: (combination) =>
        danceBy([event.id], whose)(removeEvents(same.map((one) => one.id))(combination)),
    },
  ]
}

/** What one dances of her own as the other one does, later or as its image, becomes a voice. */
export function followIt(
  { whose, spot, by: how }: Extract<Finding, { code: 'pair.unison' }>,
  { phrases, parts = [] }: Combination,
): readonly PairTry[] {
  const phrase = phrases.find(({ name }) => name === spot.phrase)
  const [a, b] = whose.map((id) => parts.find((part) => part.id === id))
  // A voice is all she dances in the phrase.
  if (!phrase || !a || !b || phrase.events.some(isShared)) return []
  const [ofA = [], ofB = []] = [a, b].map(({ id }) =>
    phrase.events.filter((one) => isOwnOf(one, id)),
  )
  const late = (ofB[0]?.at ?? 0) - (ofA[0]?.at ?? 0)
  const [leader, follower, led, following] = late < 0 ? [b, a, ofB, ofA] : [a, b, ofA, ofB]
  const by = tick(Math.abs(late))
  const isMirrored = how === 'image'
  const isVoice =
    led.length === following.length &&
    led.every(({ at, layer, what, length }, i) => {
      const own = following[i]
      return (
        own?.at === at + by &&
        own.layer === layer &&
        own.length === length &&
        dequal(own.what, isMirrored ? mirrorWhat(what) : what)
      )
    })
  if (!isVoice) return []
  const voice = {
    part: follower.id,
    of: leader.id,
    by,
    ...(isMirrored && { mirrored: true as const }),
  }
  return [
    {
      label: `${follower.name} follows ${leader.name}`,
      make: (combination) =>
        writeVoice(phrase.id, voice)(removeEvents(following.map(({ id }) => id))(combination)),
    },
  ]
}

/** The last step of her own before all dance on turns her back to where the other one faces. */
export function turnsBack(
  { whose, spot, degrees = 0 }: Extract<Finding, { code: 'pair.rejoin' }>,
  { phrases, parts = [] }: Combination,
): readonly PairTry[] {
  const phrase = phrases.find(({ name }) => name === spot.phrase)
  if (!phrase) return []
  return whose.flatMap((id) => {
    const name = parts.find((part) => part.id === id)?.name ?? ''
    const last = phrase.events.findLast(
      (one) =>
        one.layer === 'feet' &&
        one.at < spot.at &&
        isOwnOf(one, id) &&
        one.what.kind === 'foot' &&
        factsOf(one.what.action.primitive).lands,
    )
    if (last?.what.kind !== 'foot') return []
    const { what } = last
    return [-1, 1].map((sign) => {
      const turn = (what.action.turn ?? 0) + sign * Math.round(degrees)
      const { turn: _, ...action } = what.action
      return {
        label: `${name} turns back on her last step${sign < 0 ? '' : ', the other way'}`,
        make: changeEvent(last.id, {
          what: { ...what, action: turn === 0 ? action : { ...action, turn } },
        }),
      }
    })
  })
}
