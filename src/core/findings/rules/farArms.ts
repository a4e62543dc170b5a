import { type ArmPlace, type Palms, palmAt, viaPlace } from '../../body/places'
import { otherSide, SIDES, type Side } from '../../body/side'
import { nameOf } from '../../combination/names'
import { MODEL_HEIGHT } from '../../house/house'
import { palmWay, type Run } from '../../simulate/course'
import { secondsOfTicks, tempoFor } from '../../time/tempo'
import { passByPass } from '../passByPass'
import { spotOf } from '../rule'
import { canBeFound, type TempoLimit, type TempoRule } from '../tempoRule'

/** Arms that are sent farther than a palm gets in the time (model 8). */
export const farArms: TempoRule = {
  id: 'far-arms',
  tempoLimits: (danceable) => farIn(danceable).found,
}

/** Carries when the arms were last on their way. */
const farIn = passByPass<number, TempoLimit>(0, ({ course, house, vocabulary }, carried) => {
  const most = house.limits['reach.armSpeed']
  const tall = house.heights.tallest / MODEL_HEIGHT
  const found: TempoLimit[] = []
  let lastEnd = carried
  for (const run of course.runs) {
    if (run.event.layer !== 'arms') continue
    const { event } = run
    // What is already there on its tick was on its way before.
    const ticksOf = (side: Side) =>
      event.on ? Math.max(1, run.at - lastEnd) : (event.ways?.[side] ?? timeOf(run))
    const ways = SIDES.map((side) => ({
      metres: wayOf(run, side, house.palms) * tall,
      ticks: ticksOf(side),
    }))
    const { metres, ticks } = ways.reduce((a, b) =>
      b.metres / b.ticks > a.metres / a.ticks ? b : a,
    )
    lastEnd = Math.max(lastEnd, run.end)
    const limit = tempoFor(ticks, metres / most)
    if (metres > 0 && canBeFound(limit))
      found.push({
        at: run.at,
        most: limit,
        found: (tempo) => ({
          code: 'arms.far',
          name: nameOf(event, vocabulary),
          metres,
          seconds: secondsOfTicks(ticks, tempo),
          most,
          spot: spotOf(run.pass, event),
          events: [event.id],
        }),
      })
  }
  return { found, carry: lastEnd }
})

const timeOf = ({ event }: Run): number =>
  (event.what.kind === 'move' && event.what.every) || event.length

/** The places a palm goes through, the last one being where it stays. */
function palmStops({ event, move }: Pick<Run, 'event' | 'move'>, arm: Side): readonly ArmPlace[] {
  const { what } = event
  if (what.kind === 'arms') {
    const place = what[arm]
    return place ? [...(what.via ? [viaPlace[what.via]] : []), place] : []
  }
  if (what.kind !== 'move' || !move || (what.arm && what.arm !== arm)) return []
  const written = what.side === 'L' ? otherSide[arm] : arm
  const stops: ArmPlace[] = []
  for (const item of move.motion) {
    if (!('arm' in item) || (item.arm !== 'both' && item.arm !== written)) continue
    if (item.verb === 'via') stops.push(viaPlace[item.way])
    else if (item.verb === 'to') {
      if (what.via && stops.length === 0) stops.push(viaPlace[what.via])
      stops.push(item.place as ArmPlace)
    }
  }
  return stops
}

function wayOf(run: Run, arm: Side, palms: Palms): number {
  let from = palmAt(arm, run.before.arms[arm], palms)
  let metres = 0
  for (const stop of palmStops(run, arm)) {
    const to = palmAt(arm, stop, palms)
    metres += palmWay(from, to)
    from = to
  }
  return metres
}
