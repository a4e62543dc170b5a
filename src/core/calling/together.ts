import type { Layer } from '../body/layers'
import type { Meeting, Relation } from '../combination/between'
import type { Pass } from '../combination/passes'
import type { PartId } from '../combination/whose'
import { folded } from '../record/folded'
import type { Companion, Company } from '../simulate/company'
import type { Simulation } from '../simulate/simulate'
import type { Range } from '../time/time'
import { type Cue, cuesOf } from './cues'
import { NUMBERS } from './numbers'

const ORDINALS = ['first', 'second', 'third', 'fourth', 'fifth', 'sixth', 'seventh', 'eighth']

/** What a dancer is called by: her name, but never a number, which would be heard as a count. */
function spokenName({ dancers }: Pick<Company, 'dancers'>, { part, name }: Companion): string {
  const isNumber = /^\p{N}+$/u.test(name) || NUMBERS.some((word) => word === folded(name))
  const i = dancers.findIndex((one) => one.part === part)
  return isNumber ? (ORDINALS[i] ?? name) : name
}

/** Something that is said to some of those who dance. */
interface ToSome {
  readonly at: number
  readonly text: string
}

/**
 * What is said to each, told to all of them: what all are told once, the rest with the names it is for.
 * @param named what becomes of something that is only for some, who are named
 */
export function toldTogether<T extends ToSome>(
  company: Company,
  say: (dancer: Companion) => readonly T[],
  named: (one: T, names: string) => T,
): readonly T[] {
  const { dancers } = company
  const told = new Map<string, { readonly one: T; readonly to: Companion[] }>()
  for (const dancer of dancers) {
    const times = new Map<string, number>()
    for (const one of say(dancer)) {
      const what = `${one.at} ${one.text}`
      const time = times.get(what) ?? 0
      times.set(what, time + 1)
      // Who is told something twice is told it twice.
      const key = `${time} ${what}`
      const known = told.get(key)
      if (known) known.to.push(dancer)
      else told.set(key, { one, to: [dancer] })
    }
  }
  return [...told.values()].map(({ one, to }) =>
    to.length === dancers.length
      ? one
      : named(one, to.map((dancer) => spokenName(company, dancer)).join(' and ')),
  )
}

/** The cues of a pass, of whoever dances it: of several each with whom it is for. */
export const cuesOfAll = (
  company: Company | undefined,
  simulation: Simulation,
  pass: Pass,
  layers: readonly Layer[],
): readonly Cue[] =>
  company
    ? toldTogether(
        company,
        (dancer) => {
          const own = dancer.simulation.passes[pass.index]
          return own ? cuesOf(dancer.simulation, own, layers) : []
        },
        cueTo,
      )
    : cuesOf(simulation, pass, layers)

/** A cue for some of them: their names, then its words; the words alone where the voice has no such name. */
const cueTo = (cue: Cue, names: string): Cue => ({
  ...cue,
  text: `${names}: ${cue.text}`,
  or: [cue.text, ...(cue.or ?? [])],
})

const RELATION_WORDS: Readonly<Record<Relation, string>> = {
  behind: 'behind',
  before: 'in front',
  left: 'left',
  right: 'right',
  facing: 'front',
  'back-to-back': 'back',
}

/** What a meeting is called by, and whom it is said to; to all where it is both of theirs. */
function meetingCall(what: Meeting): { readonly text: string; readonly to: readonly PartId[] } {
  switch (what.kind) {
    case 'hold':
    case 'touch':
      return { text: 'on' in what.to ? `${what.kind} ${what.to.on}` : `${what.kind} hands`, to: [] }
    case 'place':
      return { text: RELATION_WORDS[what.rel], to: [what.of] }
    case 'orbit':
      return { text: 'round', to: [what.of] }
    case 'support':
      return { text: 'lean', to: [what.of] }
    case 'led':
      return { text: 'turn', to: [what.of] }
    case 'look':
      return { text: 'look', to: what.oneWay ? [what.a] : [] }
    case 'pass':
      return { text: 'pass it', to: [] }
    case 'wait':
      return { text: 'wait', to: what.of }
  }
}

/** What dancers do with each other over some ticks, each called where it begins. */
export const meetingCues = (company: Company, { from, to }: Range): readonly Cue[] =>
  company.meetings
    .filter((one) => one.from >= from && one.from < to)
    .map(({ meeting, from: at }): Cue => {
      const call = meetingCall(meeting.what)
      const cue: Cue = { at, kind: 'meeting', text: meeting.cue ?? call.text }
      const names = company.dancers
        .filter(({ part }) => call.to.includes(part))
        .map((dancer) => spokenName(company, dancer))
      return names.length === 0 || meeting.cue ? cue : cueTo(cue, names.join(' and '))
    })
