import { mirrorFootAction } from '../body/feet'
import { mirrorCompass, mirrorGaze } from '../body/places'
import { mirrorWeight, negated, otherSide, otherWay } from '../body/side'
import type { Event, OneSide, Phrase, Remark, Start, What } from './combination'

/** Only these spellings swap, so that swapping twice always gives the text back. */
const otherWord: Readonly<Record<string, string>> = {
  right: 'left',
  left: 'right',
  Right: 'Left',
  Left: 'Right',
  RIGHT: 'LEFT',
  LEFT: 'RIGHT',
  R: 'L',
  L: 'R',
}

// Quoted parts and what follows “all” are matched first, so that they are passed over whole.
const SIDE_WORD =
  /"[^"]*"|“[^”]*”|\b[Aa][Ll][Ll]\s+\w+|\b(?:right|left|Right|Left|RIGHT|LEFT|R|L)\b/g

/**
 * Swaps the words right / left and R / L of a cue or a note (model 6). Words in quotes and
 * after “all” stay: “all right” is no side.
 */
export const mirrorWords = (text: string): string =>
  text.replace(SIDE_WORD, (found) => otherWord[found] ?? found)

export function mirrorWhat(what: What): What {
  switch (what.kind) {
    case 'foot':
      return { ...what, action: mirrorFootAction(what.action) }
    case 'at':
      return { ...what, place: mirrorCompass(what.place) }
    case 'arms': {
      const { R, L, ...rest } = what
      return { ...rest, ...(L && { R: L }), ...(R && { L: R }) }
    }
    case 'look':
      return { ...what, gaze: mirrorGaze(what.gaze) }
    case 'move':
      return {
        ...what,
        ...(what.side && { side: otherSide[what.side] }),
        ...(what.way && { way: otherWay[what.way] }),
      }
  }
}

const mirroredEvents = new WeakMap<Event, Event>()

/**
 * The event from the other side; a kept one stays as written. The same event has the same
 * mirror image every time, so that what is known of it need not be worked out again.
 */
export function mirrorEvent(event: Event): Event {
  if (event.kept) return event
  const known = mirroredEvents.get(event)
  if (known) return known
  const made = imageOf(event)
  mirroredEvents.set(event, made)
  return made
}

const imageOf = (event: Event): Event => ({
  ...event,
  what: mirrorWhat(event.what),
  ...(event.cue !== undefined && { cue: mirrorWords(event.cue) }),
  ...(event.note !== undefined && { note: mirrorWords(event.note) }),
})

const mirrorStart = (start: Start): Start => ({
  ...start,
  weight: mirrorWeight(start.weight),
  hips: mirrorCompass(start.hips),
  ribs: mirrorCompass(start.ribs),
  arms: { R: start.arms.L, L: start.arms.R },
  gaze: mirrorGaze(start.gaze),
  facing: negated(start.facing),
})

/** The other side of the whole combination. Mirroring twice gives back the original. */
export const mirror = ({ otherTurns, ...combination }: OneSide): OneSide => ({
  ...combination,
  ...(combination.keepTurns && !otherTurns && { otherTurns: true }),
  lead: otherSide[combination.lead],
  start: mirrorStart(combination.start),
  phrases: combination.phrases.map(mirrorPhrase),
})

const mirroredPhrases = new WeakMap<Phrase, Phrase>()

/** The same phrase has the same mirror image every time. */
function mirrorPhrase(phrase: Phrase): Phrase {
  const known = mirroredPhrases.get(phrase)
  if (known) return known
  const made: Phrase = {
    ...phrase,
    events: phrase.events.map(mirrorEvent),
    ...(phrase.remarks && { remarks: phrase.remarks.map(mirrorRemark) }),
    ...(phrase.facings && {
      facings: phrase.facings.map(({ at, degrees }) => ({ at, degrees: negated(degrees) })),
    }),
  }
  mirroredPhrases.set(phrase, made)
  return made
}

/** Lyric words stay; what is said and noted names the other side. */
const mirrorRemark = (remark: Remark): Remark =>
  remark.kind === 'words' ? remark : { ...remark, text: mirrorWords(remark.text) }
