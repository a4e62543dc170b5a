import type { ClassEntry } from '../diary/diary'
import { listed } from '../plan/drill'
import { type Course, columnOf } from './course'
import type { Series } from './series'
import type { SeriesUnit } from './units'

/** What a unit is called where its combination is seen: its phrase, and which half of it. */
export const shortName = ({ name, half }: Pick<SeriesUnit, 'name' | 'half'>): string =>
  half === 'feet' ? `${name} feet` : half === 'on' ? `${name} on the feet` : name

/** The same where it is not. */
export const unitName = (unit: Pick<SeriesUnit, 'name' | 'half' | 'of'>): string =>
  unit.of ? `${shortName(unit)} of ${unit.of}` : shortName(unit)

const minutesMore = (seconds: number): number => Math.max(1, Math.ceil(seconds / 60))

/** Minutes a class would have to be longer for what has no room. */
export function lackOf({ columns, left }: Course): number {
  const [first] = left
  if (!first) return 0
  const most = Math.max(
    0,
    ...columns
      .filter(({ isPast }) => !isPast)
      .map(({ room, units }) => room - units.reduce((sum, { seconds }) => sum + seconds, 0)),
  )
  return minutesMore(first.seconds - most)
}

/**
 * What a change has moved, in one sentence.
 * @param dayWords how a day is said
 */
export function changeWords(
  before: Course,
  after: Course,
  dayWords: (day: string) => string,
): string {
  const said: string[] = []
  for (const unit of after.units) {
    const [was, is] = [columnOf(before, unit.id), columnOf(after, unit.id)]
    if (!was || was.day.id === is?.day.id || was.isPast) continue
    if (is && !is.isPast) said.push(`${unitName(unit)} moves to ${dayWords(is.day.day)}`)
  }
  const without = after.left.filter((one) => !before.left.some(({ id }) => id === one.id))
  if (without.length > 0)
    said.push(
      `${listed(without.map(unitName))} ${without.length === 1 ? 'has' : 'have'} no room: leave ${without.length === 1 ? 'it' : 'them'} out, or add ${lackOf(after)} minutes to a class`,
    )
  const back = before.left.filter(
    (one) =>
      after.units.some(({ id }) => id === one.id) && !after.left.some(({ id }) => id === one.id),
  )
  if (back.length > 0)
    said.push(`${listed(back.map(unitName))} ${back.length === 1 ? 'has' : 'have'} room`)
  const most = said.slice(0, 4)
  const more = said.length - most.length
  return most.length === 0
    ? 'Nothing else moves.'
    : `${most.join('; ')}${more > 0 ? `; ${more} more move` : ''}.`
}

/** How a series stands: `on plan`, `C late`, `ahead: D`. */
export function standingWords({ late, ahead, left }: Course): string {
  const said = [
    late.length > 0 && `${listed(late.map(unitName))} late`,
    late.length === 0 && ahead.length > 0 && `ahead: ${listed(ahead.map(unitName))}`,
    left.length > 0 && `no room for ${listed(left.map(unitName))}`,
  ].filter(Boolean)
  return said.length > 0 ? said.join(', ') : 'on plan'
}

/** What to offer a group that is ahead of its plan; nothing where it is not. */
export function addOnWords({ ahead, next }: Course): string | undefined {
  if (ahead.length === 0 || !next) return undefined
  const coming = next.units[0]
  return coming
    ? `They are ahead: a harder form or a flourish, or the first 4 counts of ${unitName(coming)}.`
    : 'They are ahead: a harder form, or a flourish.'
}

/** Days on which the group has a class of another series too. */
export function clashesWith(
  series: Series,
  all: readonly Series[],
  dayWords: (day: string) => string,
): readonly string[] {
  if (!series.group) return []
  return all
    .filter((one) => one.id !== series.id && one.group === series.group)
    .flatMap((one) =>
      series.days
        .filter(
          ({ day, off }) =>
            off === undefined &&
            one.days.some((other) => other.off === undefined && other.day === day),
        )
        .map(
          ({ day }) =>
            `${series.title || 'This'} and ${one.title || 'another series'} are both on ${dayWords(day)}: move one, or give each half of the time.`,
        ),
    )
}

/** What a class of a series is called: `Lantern, 2 of 5`. */
export const classTitle = ({ title }: Series, { columns }: Course, index: number): string =>
  `${title || 'Series'}, ${index + 1} of ${columns.length}`

/** Rounds that were danced of a class, for a glance. */
export const roundsIn = (entry: ClassEntry | undefined): number =>
  (entry?.danced ?? []).reduce((sum, { rounds }) => sum + rounds.R + rounds.L, 0)
