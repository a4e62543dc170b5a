import { handWords } from '../body/hands'
import { isCompass, isGaze, mirrorCompass, mirrorGaze } from '../body/places'
import type { Channel, Motion } from './motion'

const otherArm = { R: 'L', L: 'R', both: 'both' } as const
const otherRound = { cw: 'ccw', ccw: 'cw', in: 'in', out: 'out' } as const

/** What goes sideways or round changes its sign on the other side; shoulders change places (model 6). */
const isSideways = (channel: Channel): boolean =>
  /^(?!leg).*\.(side|tilt|twist|turn)$/.test(channel)
const otherChannel = (channel: Channel): Channel =>
  channel.replace(
    /^(shoulder|leg)([RL])/,
    (_, part: string, side: 'R' | 'L') => `${part}${otherArm[side]}`,
  ) as Channel

function otherPlace(place: string): string {
  if (isCompass(place)) return mirrorCompass(place)
  const gaze = place.replace('shoulder-', 'over-')
  return isGaze(gaze) ? mirrorGaze(gaze).replace('over-', 'shoulder-') : place
}

/** The same motion from the other side. */
export const mirrorMotion = (motion: readonly Motion[]): readonly Motion[] =>
  motion.map((item): Motion => {
    switch (item.verb) {
      case 'to':
        return {
          ...item,
          place: otherPlace(item.place) as typeof item.place,
          ...(item.arm && { arm: otherArm[item.arm] }),
        }
      case 'arc':
        return { ...item, places: item.places.map(otherPlace) as typeof item.places }
      case 'circle':
        return {
          ...item,
          way: otherRound[item.way],
          ...(item.arm && { arm: otherArm[item.arm] }),
        }
      case 'peak':
      case 'osc':
        return {
          ...item,
          channel: otherChannel(item.channel),
          amount: isSideways(item.channel) ? 0 - item.amount : item.amount,
        }
      case 'eight':
      case 'alternate':
        return item
      default:
        return 'arm' in item && item.arm ? { ...item, arm: otherArm[item.arm] } : item
    }
  })

/** Writes a motion as it is read: `arc(L>F>R)&osc(pelvis.tilt 4, 1/move)`. */
export const writeMotion = (motion: readonly Motion[]): string =>
  motion
    .map((item, i) => {
      const joint = i === 0 ? '' : 'with' in item && item.with ? '&' : '+'
      const arm = 'arm' in item && item.arm ? `${item.arm}:` : ''
      return `${joint}${arm}${itemText(item)}`
    })
    .join('')

const signed = (amount: number): string => (amount > 0 ? `+${amount}` : String(amount))
const rateText = (rate: { cycles: number; per: string } | undefined) =>
  rate && `${rate.cycles}/${rate.per}`
const listed = (...parts: (string | number | undefined)[]): string =>
  parts.filter((part) => part !== undefined).join(', ')

function itemText(item: Motion): string {
  switch (item.verb) {
    case 'to':
      return `to(${item.place})`
    case 'via':
      return `via(${item.way})`
    case 'arc':
      return `arc(${item.places.join('>')})`
    case 'circle':
      return `circle(${listed(item.joint, item.way, item.size, rateText(item.rate))})`
    case 'eight':
      return `eight(${listed(item.plane, item.loops, item.size, rateText(item.rate))})`
    case 'peak':
      return `peak(${item.channel} ${signed(item.amount)} ${item.sharp ? 'sharp' : 'soft'})`
    case 'osc':
      return `osc(${listed(`${item.channel} ${item.amount}`, rateText(item.rate), item.phase)})`
    case 'wave':
      return `wave(${listed(item.parts.join('>'), item.plane)})`
    case 'hand':
      return `hand(${handWords(item.hand)})`
    case 'roll': {
      const inner = listed(item.way, rateText(item.rate))
      return inner ? `roll(${inner})` : 'roll'
    }
    default:
      return item.verb
  }
}
