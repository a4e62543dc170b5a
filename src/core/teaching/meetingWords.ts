import { sideWord } from '../body/side'
import {
  type Hand,
  isHand,
  type Meeting,
  type Met,
  type Relation,
  type TouchAs,
} from '../combination/between'
import type { Part } from '../combination/part'
import { CENTRE, type PartId } from '../combination/whose'

type Named = Pick<Part, 'id' | 'name'>

const RELATIONS: Readonly<Record<Relation, string>> = {
  behind: 'behind',
  before: 'in front of',
  left: 'on the left of',
  right: 'on the right of',
  facing: 'face to face with',
  'back-to-back': 'back to back with',
}

/** Touches that are none of the palm, the back or the fingers. */
const TOUCHES: Readonly<Partial<Record<TouchAs, string>>> = { near: 'passes', strike: 'strikes' }

/** The same in as few words as a line has room for, the longest first. */
export function meetingShort(what: Meeting, parts: readonly Named[]): readonly string[] {
  const nameOf = (id: PartId) => parts.find((part) => part.id === id)?.name ?? id
  const all = meetingWords(what, parts)
  const handOf = (hand: Hand) => `${nameOf(hand.part)} ${hand.side}`
  switch (what.kind) {
    case 'hold':
    case 'touch': {
      const to = isHand(what.to) ? handOf(what.to) : `${nameOf(what.to.part)}’s ${what.to.on}`
      return [
        all,
        `${handOf(what.from)} – ${to}, ${what.kind === 'hold' ? what.grip : what.as}`,
        `${handOf(what.from)} – ${to}`,
        what.kind,
      ]
    }
    case 'look':
      return [all, what.oneWay ? `${nameOf(what.a)} looks` : 'eyes meet', 'look']
    case 'place':
      return [all, `${nameOf(what.of)} ${what.rel}`, 'place']
    case 'orbit':
      return [all, `${nameOf(what.of)} round`, 'round']
    case 'support':
      return [all, `${nameOf(what.by)} carries`, 'support']
    case 'led':
      return [all, `${handOf(what.by)} leads`, 'led']
    case 'pass':
      return [all, `${handOf(what.from)} to ${handOf(what.to)}`, 'pass']
    case 'wait':
      return [all, 'wait']
  }
}

/** What two do with each other, in words: `Amber’s right hand holds Blue’s left, by the fingers, low`. */
export function meetingWords(what: Meeting, parts: readonly Named[]): string {
  const nameOf = (id: PartId) => parts.find((part) => part.id === id)?.name ?? id
  const handOf = (hand: Hand) => `${nameOf(hand.part)}’s ${sideWord[hand.side]}`
  const metOf = (met: Met) =>
    isHand(met)
      ? handOf(met)
      : `${nameOf(met.part)}’s ${met.side ? `${sideWord[met.side]} ` : ''}${met.on}`
  switch (what.kind) {
    case 'hold': {
      const grip =
        what.grip === 'flat'
          ? 'the hand flat on it'
          : `by the ${what.grip === 'palm' ? 'hand' : what.grip}`
      const height =
        what.height &&
        (what.height === 'low' || what.height === 'overhead'
          ? what.height
          : `at the ${what.height}`)
      const through =
        what.through === 'over' ? 'turning under' : what.through === 'round' && 'the arm round her'
      return [`${handOf(what.from)} holds ${metOf(what.to)}`, grip, height, through]
        .filter(Boolean)
        .join(', ')
    }
    case 'touch':
      return `${handOf(what.from)} ${TOUCHES[what.as] ?? 'touches'} ${metOf(what.to)}${what.as in TOUCHES || what.as === 'palm' ? '' : `, ${what.as === 'back' ? 'backs of the hands' : 'fingers'}`}`
    case 'place':
      return `${nameOf(what.of)} comes ${RELATIONS[what.rel]} ${what.to === CENTRE ? 'the middle' : nameOf(what.to)}`
    case 'orbit':
      return `${nameOf(what.of)} goes round ${nameOf(what.round)}, ${Math.abs(what.degrees)}° ${what.degrees > 0 ? 'clockwise' : 'anticlockwise'}${what.face === 'in' ? ', facing her' : what.face === 'out' ? ', her back to her' : ''}`
    case 'support':
      return `${nameOf(what.by)} carries ${what.share} % of ${nameOf(what.of)}’s weight`
    case 'led':
      return `${handOf(what.by)} leads ${nameOf(what.of)}’s turn`
    case 'look':
      return what.oneWay
        ? `${nameOf(what.a)} looks at ${nameOf(what.b)}`
        : `${nameOf(what.a)} and ${nameOf(what.b)} look at each other`
    case 'pass':
      return `${nameOf(what.from.part)} passes the ${what.prop} into ${handOf(what.to)} hand`
    case 'wait':
      return `${what.of.map(nameOf).join(' and ')} ${what.of.length > 1 ? 'wait' : 'waits'}`
  }
}
