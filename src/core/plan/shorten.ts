import type { Unit } from './teaching'

/** The steps of a class between its beginning and its end. */
export interface Parts {
  readonly show: readonly Unit[]
  readonly due: readonly Unit[]
  readonly loops: readonly Unit[]
  readonly each: readonly Unit[]
  readonly runs: readonly Unit[]
}

type Shorter = (parts: Parts) => Parts

const LEAST_TALK = 5

const rounds = (most: number): Shorter => {
  const fewer = (unit: Unit) => ({ ...unit, repeats: Math.min(most, unit.repeats) })
  return (parts) => ({ ...parts, each: parts.each.map(fewer), runs: parts.runs.map(fewer) })
}
const without = (kinds: readonly Unit['kind'][]): Shorter => {
  const stays = ({ kind }: Unit) => !kinds.includes(kind)
  return (parts) => ({ ...parts, each: parts.each.filter(stays), runs: parts.runs.filter(stays) })
}
const talk: Shorter = (parts) => {
  const less = (unit: Unit) => ({
    ...unit,
    talk: Math.min(unit.talk, Math.max(LEAST_TALK, Math.round(unit.talk / 2))),
  })
  return { ...parts, each: parts.each.map(less), runs: parts.runs.map(less) }
}

/** What is left out where time is too short, in this order (teaching 2.6). */
const STEPS: readonly Shorter[] = [
  (parts) => ({ ...parts, show: [], each: parts.each.filter(({ kind }) => kind !== 'show') }),
  (parts) => ({ ...parts, runs: parts.runs.slice(-1) }),
  (parts) => ({ ...parts, loops: parts.loops.slice(0, 1) }),
  rounds(2),
  (parts) => ({
    ...parts,
    each: parts.each.filter(({ kind, layers }) => kind !== 'other-side' || layers.length > 1),
  }),
  without(['walls', 'feet']),
  (parts) => ({ ...parts, due: [] }),
  talk,
  without(['join']),
  without(['run', 'sides']),
  talk,
  (parts) => ({ ...parts, loops: [] }),
  without(['other-side']),
  rounds(1),
  without(['walk', 'alone']),
  (parts) => ({ ...parts, each: parts.each.filter(({ kind }) => kind === 'all').slice(0, 1) }),
  (parts) => ({ ...parts, each: parts.each.map((unit) => ({ ...unit, talk: 0 })) }),
  (parts) => ({ ...parts, each: [] }),
]

/** As much of a class as some seconds take. */
export function shortened(parts: Parts, seconds: number, lasts: (unit: Unit) => number): Parts {
  let now = parts
  const fits = () =>
    [...now.show, ...now.due, ...now.loops, ...now.each, ...now.runs].reduce(
      (sum, unit) => sum + lasts(unit),
      0,
    ) <= seconds
  for (const step of STEPS) {
    if (fits()) return now
    now = step(now)
  }
  return now
}
