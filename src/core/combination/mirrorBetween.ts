import { otherSide } from '../body/side'
import { type Between, type Hand, isHand, type Meeting, type Met } from './between'
import { mirrorWords } from './mirrorWords'

/** A meeting from the other side; a kept one stays as written. */
export const mirrorBetween = (one: Between): Between =>
  one.kept
    ? one
    : {
        ...one,
        what: mirrorMeeting(one.what),
        ...(one.cue !== undefined && { cue: mirrorWords(one.cue) }),
        ...(one.note !== undefined && { note: mirrorWords(one.note) }),
      }

const mirrorHand = (hand: Hand): Hand => ({ ...hand, side: otherSide[hand.side] })

const mirrorMet = (met: Met): Met =>
  isHand(met) ? mirrorHand(met) : met.side ? { ...met, side: otherSide[met.side] } : met

function mirrorMeeting(what: Meeting): Meeting {
  switch (what.kind) {
    case 'touch':
    case 'hold':
      return { ...what, from: mirrorHand(what.from), to: mirrorMet(what.to) }
    case 'place':
      return what.rel === 'left' || what.rel === 'right'
        ? { ...what, rel: what.rel === 'left' ? 'right' : 'left' }
        : what
    case 'orbit':
      return { ...what, degrees: -what.degrees }
    case 'led':
      return { ...what, by: mirrorHand(what.by) }
    case 'support':
    case 'look':
    case 'wait':
      return what
  }
}
