import { dequal } from 'dequal'
import { partsIn } from '../combination/between'
import type { Pass } from '../combination/passes'
import { ONLY_PART, type PartId } from '../combination/whose'
import type { Companion, Company, DancedMeeting } from '../simulate/company'
import type { Simulation } from '../simulate/simulate'
import { labelIn, labelOfSpan, TICKS_PER_COUNT } from '../time/time'
import { meetingWords } from './meetingWords'
import { type CountWords, type OptionWords, sayOptions } from './say'

/** What one dancer does on a count, or several who do the same. */
export interface WhoseWords extends CountWords {
  /** Their names; empty where all of them do it. */
  readonly whose: string
  readonly parts: readonly PartId[]
}

/** What to do on one count in a piece. */
export interface CountTogether {
  readonly count: number
  readonly each: readonly WhoseWords[]
  /** Where the weight of all of them is, by name where it is not the same. */
  readonly weight: string
  /** What begins between them on this count. */
  readonly meetings: readonly string[]
}

interface Who {
  readonly part: PartId
  readonly name: string
}

/** What one dancer is told of a dancing of a phrase, count by count. */
export type Say = (simulation: Simulation, pass: Pass) => readonly CountWords[]

/**
 * What to do on each count of one dancing of a phrase, by all: what they share once, what differs
 * by name, and what they do with each other.
 * @param pass which dancing of a phrase, from 0
 */
export function sayTogether(company: Company, pass: number, say: Say): readonly CountTogether[] {
  const each = eachIn(company, pass, say)
  const met = metOnCounts(company, pass)
  return (each[0]?.said ?? []).map(({ count }, i) => {
    const told = each.flatMap(({ said: own, ...who }) =>
      own[i] ? [{ ...who, words: own[i] }] : [],
    )
    return { count, each: together(told), weight: weightOf(told), meetings: met.get(count) ?? [] }
  })
}

/** The same of whoever dances: of one alone all of it is hers. */
export const sayWhoever = (
  company: Company | undefined,
  simulation: Simulation,
  pass: Pass,
  say: Say,
): readonly CountTogether[] =>
  company
    ? sayTogether(company, pass.index, say)
    : say(simulation, pass).map((words) => ({
        count: words.count,
        each: [{ ...words, whose: '', parts: [ONLY_PART] }],
        weight: words.weight,
        meetings: [],
      }))

/** The counts of one dancing of a phrase as one list for all: what is not everybody's with the names it is for. */
export const sayNamed = (company: Company, pass: number, say: Say): readonly CountWords[] =>
  sayTogether(company, pass, say).map(({ count, each, weight }) => {
    const named = (text: string, whose: string) => (whose ? `${whose}: ${text}` : text)
    const texts = (key: 'cues' | 'asides') =>
      each.flatMap((row) => row[key].map((text) => named(text, row.whose)))
    return {
      count,
      weight,
      feet: each.flatMap(({ feet, whose }) =>
        // Her name is said once.
        whose && feet.length > 0 ? [named(feet.join('. '), whose)] : feet,
      ),
      layers: each.flatMap(({ layers, whose }) =>
        layers.map(({ layer, text }) => ({ layer, text: named(text, whose) })),
      ),
      cues: texts('cues'),
      asides: texts('asides'),
    }
  })

/** What some may dance otherwise in a phrase. */
interface OptionsOf {
  /** Her name; empty where all of them may. */
  readonly whose: string
  readonly options: readonly OptionWords[]
}

/** What may be danced otherwise in one dancing of a phrase, by whoever dances it: once where it is everybody's. */
export function sayOptionsWhoever(
  company: Company | undefined,
  simulation: Simulation,
  pass: Pass,
): readonly OptionsOf[] {
  const optionsIn = (one: Simulation, own: Pass) => sayOptions(own, one.vocabulary)
  if (!company) return [{ whose: '', options: optionsIn(simulation, pass) }]
  const each = eachIn(company, pass.index, optionsIn)
  const [first] = each
  return each.every(({ said }) => dequal(said, first?.said))
    ? [{ whose: '', options: first?.said ?? [] }]
    : each.flatMap(({ name, said }) => (said.length > 0 ? [{ whose: name, options: said }] : []))
}

/** What is said of each dancer in one dancing of a phrase, with her name. */
const eachIn = <T>(
  { dancers }: Pick<Company, 'dancers'>,
  pass: number,
  say: (simulation: Simulation, pass: Pass) => readonly T[],
): readonly (Who & { readonly said: readonly T[] })[] =>
  dancers.map(({ part, name, simulation }) => {
    const own = simulation.passes[pass]
    return { part, name, said: own ? say(simulation, own) : [] }
  })

/**
 * What dancers do with each other in one dancing of a phrase, by the count it begins on, from 1.
 * @param part only what this one has a share in
 */
export function metOnCounts(
  { dancers, meetings }: Company,
  pass: number,
  part?: PartId,
): ReadonlyMap<number, readonly string[]> {
  const counts = new Map<number, string[]>()
  for (const one of meetings) {
    const { what, at } = one.meeting
    if (one.pass.index !== pass || (part !== undefined && !partsIn(what).includes(part))) continue
    const count = Math.floor(at / TICKS_PER_COUNT) + 1
    counts.set(count, [...(counts.get(count) ?? []), meetingLine(dancers, one)])
  }
  return counts
}

/** `Amber’s right holds Blue’s left, by the fingers, low, until 4`. */
function meetingLine(dancers: readonly Companion[], { meeting, pass }: DancedMeeting): string {
  const { what, length, cue, note } = meeting
  const label = labelOfSpan(meeting, labelIn(pass.phrase))
  const parts = dancers.map(({ part: id, name }) => ({ id, name }))
  const until =
    length > TICKS_PER_COUNT
      ? `${what.kind === 'place' || what.kind === 'orbit' ? ', by' : ', until'} ${label.split(/[->]/).at(-1)}`
      : ''
  const beside = [cue && `“${cue}”`, note].filter(Boolean).join('; ')
  return `${meetingWords(what, parts)}${until}${beside && ` (${beside})`}`
}

/** What all of them do once, then what is left of each; the same rest of several is one. */
function together(all: readonly Told[]): readonly WhoseWords[] {
  const [first] = all
  if (!first) return []
  const every = all.map(({ words }) => words)
  const shared: CountWords = {
    ...first.words,
    weight: weightOf(all),
    feet: inAll(every.map(({ feet }) => feet)),
    layers: inAll(every.map(({ layers }) => layers)),
    cues: inAll(every.map(({ cues }) => cues)),
    asides: inAll(every.map(({ asides }) => asides)),
  }
  const groups: { readonly who: Told[]; readonly words: CountWords }[] = []
  for (const one of all) {
    const own = without(one.words, shared)
    if (isNothing(own)) continue
    const same = groups.find((group) => dequal(group.words, own))
    if (same) same.who.push(one)
    else groups.push({ who: [one], words: own })
  }
  const named = groups.map(({ who, words }) => ({
    ...words,
    whose: who.map(({ name }) => name).join(', '),
    parts: who.map(({ part }) => part),
  }))
  if (isNothing(shared) && named.length > 0) return named
  return [{ ...shared, whose: '', parts: all.map(({ part }) => part) }, ...named]
}

/** Where the weight of all of them is, by name where it is not the same. */
function weightOf(all: readonly Told[]): string {
  const weights = new Set(all.map(({ words }) => words.weight))
  if (weights.size < 2) return [...weights].join()
  return [...weights]
    .map((weight) => {
      const names = all.filter(({ words }) => words.weight === weight).map(({ name }) => name)
      return `${names.join(' and ')} ${weight}`
    })
    .join(', ')
}

interface Told extends Who {
  readonly words: CountWords
}

const isNothing = ({ feet, layers, cues, asides }: CountWords): boolean =>
  [feet, layers, cues, asides].every((list) => list.length === 0)

/** What is in all of some lists, as often as in the one that has it least. */
const inAll = <T>([first = [], ...others]: readonly (readonly T[])[]): readonly T[] =>
  others.reduce((left, list) => minus(left, minus(left, list)), first)

/** A list without what another one has, each as often as it stands there. */
function minus<T>(list: readonly T[], taken: readonly T[]): readonly T[] {
  const left = [...taken]
  return list.filter((one) => {
    const i = left.findIndex((other) => dequal(one, other))
    if (i < 0) return true
    left.splice(i, 1)
    return false
  })
}

const without = (words: CountWords, shared: CountWords): CountWords => ({
  ...words,
  feet: minus(words.feet, shared.feet),
  layers: minus(words.layers, shared.layers),
  cues: minus(words.cues, shared.cues),
  asides: minus(words.asides, shared.asides),
})
