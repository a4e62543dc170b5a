import type { Channel, Motion } from '../moves/motion'
import { TICKS_PER_COUNT } from '../time/time'
import { secondsBetween, type TimeMap, ticksFrom } from '../time/timeMap'
import { acrossOf, at, scaleOf } from './channels'
import { type DancedRepeat, partOf, sharesOf } from './repeats'
import type { Swing } from './swings'

/** An accent gets to its peak in so many seconds, and back (figure's brief). */
const SHARP_SECONDS = 0.12
const SHARP_BACK_SECONDS = 0.24
const SOFT_SECONDS = 0.4
/** How far a wave carries each part: metres forward or to the side, and degrees (house figures). */
const WAVE: Readonly<Record<string, readonly (readonly [Channel, number])[]>> = {
  head: [['head.nod', -10]],
  ribs: [
    ['ribs.forward', 0.045],
    ['ribs.arch', 13],
  ],
  waist: [['waist.out', 0.035]],
  pelvis: [
    ['pelvis.forward', 0.05],
    ['pelvis.tuck', 13],
  ],
}
/** A part takes so long for the whole of its push. */
const WAVE_SECONDS = 0.4
const WAVE_ASIDE: Readonly<Record<string, readonly (readonly [Channel, number])[]>> = {
  head: [['head.tilt', 8]],
  ribs: [
    ['ribs.side', 0.05],
    ['ribs.tilt', -8],
  ],
  pelvis: [
    ['pelvis.side', 0.055],
    ['pelvis.tilt', 6],
  ],
}
/** Accents, oscillations and waves of a move, on the side it is danced. */
export function addSwingsOf(danced: DancedRepeat, swings: Swing[]): void {
  const { move, left, by } = danced
  const onSide = (channel: Channel, amount: number) => {
    const across = left ? acrossOf(channel) : { channel, sign: 1 as const }
    return { channel: at[across.channel], amount: amount * scaleOf(channel) * across.sign * by }
  }
  for (const item of move.motion) {
    if (item.verb === 'osc')
      swings.push(oscillation(item, danced, onSide(item.channel, item.amount)))
    else if (item.verb === 'wave') addWave(item, danced, swings)
  }
  const parts = new Set(move.motion.map(partOf))
  for (const part of parts) {
    const own = move.motion.filter(
      (item) => partOf(item) === part || (part === 'pelvis' && item.verb === 'arc'),
    )
    for (const { item, start, end } of sharesOf(own, danced))
      if (item.verb === 'peak')
        swings.push(
          peak(
            { ...onSide(item.channel, item.amount), at: start, until: end, sharp: item.sharp },
            danced.time,
          ),
        )
  }
}

/** An accent with its peak on a tick; it has until another one to be gone. */
export function peak(
  one: { channel: number; amount: number; at: number; until: number; sharp: boolean },
  time: TimeMap,
): Swing {
  const ticks = (seconds: number) => 0 - ticksFrom(time, one.at, -seconds)
  const rise = Math.min(ticks(one.sharp ? SHARP_SECONDS : SOFT_SECONDS), TICKS_PER_COUNT)
  const room = Math.max(1.5, one.until - one.at)
  const back = one.sharp
    ? Math.min(ticks(SHARP_BACK_SECONDS), Math.max(room, rise))
    : Math.max(room, ticks(SOFT_SECONDS))
  return {
    channel: one.channel,
    amount: one.amount,
    start: one.at - rise,
    end: one.at + back,
    shape: { kind: 'peak', peak: one.at },
  }
}

function oscillation(
  item: Extract<Motion, { verb: 'osc' }>,
  { start, end, run, rate, move, time }: DancedRepeat,
  onSide: { channel: number; amount: number },
): Swing {
  const { cycles, per } = item.rate
  const isTexture = move.kind === 'texture'
  const perTick =
    rate !== undefined && isTexture
      ? rate / TICKS_PER_COUNT
      : per === 'count'
        ? cycles / TICKS_PER_COUNT
        : cycles / (end - start)
  const ahead = (item.phase ?? 0) / 360
  const whole = Number.isInteger((end - start) * perTick * 2) && ahead % 0.5 === 0
  const length = isTexture ? run.event.length : end - start
  const ramp = whole && !isTexture ? 0 : Math.min(length / 4, ticksFrom(time, start, 0.15))
  return { ...onSide, start, end, shape: { kind: 'oscillation', perTick, ahead, ramp } }
}

/** A pulse that runs through the body, each part a quarter of it after the one before. */
function addWave(
  { parts, plane }: Extract<Motion, { verb: 'wave' }>,
  { start, end, left, by, time, headElsewhere }: DancedRepeat,
  swings: Swing[],
): void {
  const table = plane === 'side' ? WAVE_ASIDE : WAVE
  const long = (end - start) / (1 + (parts.length - 1) / 4)
  // A body has no time to go all the way: a hurried wave is a small one.
  const room = Math.min(1, secondsBetween(time, start, start + long) / WAVE_SECONDS)
  for (const [i, part] of parts.entries()) {
    if (part === 'head' && headElsewhere) continue
    for (const [channel, amount] of table[part] ?? []) {
      const sign = left ? acrossOf(channel).sign : 1
      const begins = start + (i * long) / 4
      swings.push({
        channel: at[channel],
        amount: amount * sign * by * room,
        start: begins,
        end: begins + long,
        shape: { kind: 'pulse' },
      })
    }
  }
}
