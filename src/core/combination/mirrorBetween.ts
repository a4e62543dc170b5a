import { otherSide } from '../body/side'
import { type Between, type Hand, isHand, type Meeting, type Met } from './between'
import { mirrorWords } from './mirrorWords'

const images = new WeakMap<Between, Between>()

/** A meeting from the other side, the very same each time; a kept one stays as written. */
export function mirrorBetween(one: Between): Between {
  if (one.kept) return one
  const known = images.get(one) ?? imageOf(one)
  images.set(one, known)
  return known
}

const imageOf = (one: Between): Between => ({
  ...one,
  what: mirrorMeeting(one.what),
  ...(one.cue !== undefined && { cue: mirrorWords(one.cue) }),
  ...(one.note !== undefined && { note: mirrorWords(one.note) }),
})

const mirrorHand = (hand: Hand): Hand => ({ ...hand, side: otherSide[hand.side] })

const mirrorMet = (met: Met): Met =>
  isHand(met) ? mirrorHand(met) : met.side ? { ...met, side: otherSide[met.side] } : met

function mirrorMeeting(what: Meeting): Meeting {
  switch (what.kind) {
    case 'touch':
    case 'hold':
      return { ...what, from: mirrorHand(what.from), to: mirrorMet(what.to) }
    case 'pass':
      return { ...what, from: mirrorHand(what.from), to: mirrorHand(what.to) }
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
