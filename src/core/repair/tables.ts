import type { FootAction } from '../body/feet'
import { type Combination, lengthOf } from '../combination/combination'
import { dancedIn } from '../combination/lengths'
import { mirror } from '../combination/mirror'
import { pickupTicks, roundPickup } from '../combination/passes'
import { twinsOf } from '../combination/twins'
import type { House } from '../house/house'
import { readPattern } from '../moves/pattern'
import type { Vocabulary } from '../moves/vocabulary'
import { settlingIn } from '../simulate/settling'
import { startState } from '../simulate/start'
import { steady } from '../time/timeMap'
import {
  type Behaviour,
  behavioursOf,
  type Closeness,
  type Entry,
  keyOfEntry,
  type PhrasePlaces,
} from './behaviours'
import { type Allows, placesOf } from './phraseOptions'
import { createStances, FALLEN, type Stance, type Stances } from './stances'

export const NO_END = Number.POSITIVE_INFINITY
/** A phrase that is danced with all that leads into it. */
export const NO_BEGIN = Number.NEGATIVE_INFINITY
/** One phrase with its ways to be changed, for all entries met so far. */
interface Table extends PhrasePlaces {
  entries: Entry[]
  index: Map<string, number>
  behaviours: readonly Behaviour[]
}

export interface Search {
  readonly combination: Combination
  readonly house: House
  readonly stances: Stances
  readonly close: Closeness
  readonly tables: ReadonlyMap<string, Table>
  readonly missing: Map<string, Map<string, Entry>>
  readonly hasKept: boolean
  /** Of each pass its mirror twin, where the order dances both sides of everything. */
  readonly twins: ReadonlyMap<number, number>
  readonly start: Stance
  readonly otherStart: Stance
  /** By pass and stance; forgotten when new entries are known. */
  readonly least: Map<number, number>
}

export function prepare(
  combination: Combination,
  vocabulary: Vocabulary,
  house: House,
  allows?: Allows,
): Search {
  const stances = createStances()
  const time = steady(combination.tempo)
  const ticksIn = (seconds: number) => time.tickAt(seconds) - 1e-9
  const close = {
    sameFoot: ticksIn(house.limits['quick.sameFoot']),
    eitherFoot: ticksIn(house.limits['quick.eitherFoot']),
  }
  const tables = new Map(
    combination.phrases.map((phrase): [string, Table] => [
      phrase.id,
      {
        places: placesOf(phrase, vocabulary, house, allows),
        settling: settlingIn(dancedIn(phrase, vocabulary), vocabulary),
        end: lengthOf(phrase),
        entries: [],
        index: new Map(),
        behaviours: [],
      },
    ]),
  )
  const search: Search = {
    combination,
    house,
    stances,
    close,
    tables,
    missing: new Map(),
    least: new Map(),
    hasKept: combination.phrases.some(({ events }) => events.some(({ kept }) => kept)),
    twins: twinsOf(combination),
    start: stances.of(startState(combination.start)),
    otherStart: stances.of(startState(mirror(combination).start)),
  }
  const usual = usualStances(search.start, stances)
  for (const { id, events } of combination.phrases) {
    const from = combination.order[0]?.phrase === id ? -pickupTicks(combination) : NO_BEGIN
    const entries = usual.flatMap((stance) =>
      [false, true].map((mirrored) => ({ stance, mirrored, opening: false, from, to: NO_END })),
    )
    // What follows begins with the first phrase, from any of these.
    const isFirst = combination.order[0]?.phrase === id
    const begins = 0 - roundPickup(combination, 'feet')
    const openings = entries.map((entry) => ({ ...entry, from: begins, opening: true }))
    if (events.length > 0) addEntries(search, id, isFirst ? [...entries, ...openings] : entries)
  }
  return search
}

/** The ways most phrases are come into: on either foot, the other one flat, touching or in the air, or on both. */
function usualStances(start: Stance, stances: Stances): readonly Stance[] {
  const from = (...steps: string[]) => {
    const actions = readPattern(steps.map((step, i) => `${i + 1} ${step}`).join(';'))
    return through(
      stances,
      start,
      actions.map(({ action }) => action),
    )
  }
  const both = from('centre')
  const made = [both, from('centre', 'step R', 'touch L'), from('centre', 'step L', 'touch R')]
  const standing = [from('centre', 'step R'), from('centre', 'step L')]
  return [...new Set([start, ...made, ...standing])].filter((stance) => stance >= 0)
}

export function addEntries(search: Search, phrase: string, entries: readonly Entry[]): void {
  const table = search.tables.get(phrase)
  if (!table) return
  for (const entry of entries) {
    const key = keyOfEntry(entry)
    if (table.index.has(key)) continue
    table.index.set(key, table.entries.length)
    table.entries.push(entry)
  }
  table.behaviours = behavioursOf(table, table.entries, search.stances, search.close)
}

/** Where a behaviour leads from an entry; falls, and is noted, where nobody has looked yet. */
export function endOf(
  search: Search,
  phrase: string,
  behaviour: Behaviour | undefined,
  entry: Entry,
): Stance {
  const place = search.tables.get(phrase)?.index.get(keyOfEntry(entry))
  if (place !== undefined) return behaviour?.ends[place] ?? FALLEN
  const missing = search.missing.get(phrase) ?? new Map<string, Entry>()
  missing.set(keyOfEntry(entry), entry)
  search.missing.set(phrase, missing)
  return FALLEN
}

export const through = (stances: Stances, from: Stance, actions: readonly FootAction[]): Stance =>
  actions.reduce((stance, action) => stances.after(stance, action), from)
