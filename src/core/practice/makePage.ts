import type { FloorPoint } from '../body/places'
import { SIDES } from '../body/side'
import type { Combination } from '../combination/combination'
import { partOf, partWith } from '../combination/partOf'
import type { PartId } from '../combination/whose'
import type { HouseRules } from '../house/house'
import { danceRules, houseOf } from '../house/house'
import type { Vocabulary } from '../moves/vocabulary'
import { listed } from '../plan/drill'
import { materialsOf } from '../plan/material'
import { cautionsOf, notesOf } from '../plan/notes'
import { teachingSteps } from '../plan/teachingSteps'
import { stableText } from '../record/stable'
import type { Simulation } from '../simulate/simulate'
import { chunksOf } from './chunks'
import { movesUsedBy } from './movesUsed'
import { markOf, type PageData, type PageSong } from './pageData'

/** What an instructor decides of a practice page. */
export interface PageWishes {
  /** The day it is made. */
  readonly made: string
  readonly by?: string | undefined
  readonly note?: string | undefined
  readonly next?: string | undefined
  /** Whose page it is, where several dance; the first's where it is not said. */
  readonly part?: PartId | undefined
  /** A song it is danced to, where it lies whole on one. */
  readonly song?: PageSong | undefined
  /** Which part of a series it is, from 1. */
  readonly inSeries?: PageData['inSeries']
  /** Only these phrases are learned on it; all where none is named. */
  readonly phrases?: readonly string[] | undefined
  /** The lead side alone, though both could be danced. */
  readonly sides?: 'both' | 'lead' | undefined
}

const MOST_WATCHED = 2

/** The room a dance takes round where it begins, in steps: `Keep 2 steps free to the right and 1 in front.` */
function spaceWords({ start, danced, house: { landing } }: Simulation): string {
  const places = danced.flatMap(({ after }) => SIDES.map((side) => after.feet[side].place))
  const from = SIDES.map((side) => start.feet[side].place)
  const most = (of: (place: FloorPoint) => number) =>
    Math.ceil(
      (Math.max(...places.map(of), ...from.map(of)) - Math.max(...from.map(of))) / landing.side -
        0.2,
    )
  const ways = [
    [most(({ right }) => right), 'to the right'],
    [most(({ right }) => -right), 'to the left'],
    [most(({ forward }) => forward), 'in front'],
    [most(({ forward }) => -forward), 'behind'],
  ] as const
  const said = ways.flatMap(([steps, where]) =>
    steps > 0 ? [`${steps} ${steps === 1 ? 'step' : 'steps'} ${where}`] : [],
  )
  if (said.length === 0) return 'It stays on its spot; keep an arm’s length free all round.'
  return `Keep ${listed(said)} free, and an arm’s length all round.`
}

/** Makes what a practice page knows of a combination: the same each time from the same. */
export function pageDataOf(
  combination: Combination,
  base: Vocabulary,
  rules: HouseRules,
  { made, by, note, next, part, phrases = [], sides, inSeries, song }: PageWishes,
): PageData {
  // Of several each has a page of her own, the first one where nobody is named.
  const hers = part ?? combination.parts?.[0]?.id
  const own = hers === undefined ? combination : partOf(combination, hers)
  const materials = materialsOf([own], base, houseOf(rules))
  const material = materials.find(own.id)
  if (!material) throw new Error('a combination is its own material')
  const taught = teachingSteps(material, materials)
  const all = chunksOf(material, taught)
  const chosen = all.filter(({ id }) => phrases.length === 0 || phrases.includes(id))
  const drills = taught.steps.map(({ drill }) => drill)
  const whose = hers === undefined ? undefined : partWith(combination, hers)?.name
  const isBoth =
    sides !== 'lead' && all.some(({ stops }) => stops.some((one) => one.do === 'other-side'))
  const page: Omit<PageData, 'id'> = {
    kind: 'practice-page',
    v: 1,
    title: own.title,
    ...(by && { by }),
    ...(whose && { whose }),
    made,
    combination,
    ...(hers !== undefined && { part: hers }),
    lead: own.lead,
    moves: movesUsedBy(combination, base),
    house: danceRules(rules),
    chunks: isBoth
      ? chosen
      : chosen.map((chunk) => ({
          ...chunk,
          stops: chunk.stops.filter((one) => one.do !== 'other-side'),
        })),
    sides: isBoth ? 'both' : 'lead',
    tempo: own.tempo,
    space: spaceWords(material.lead),
    care: cautionsOf(drills, materials),
    watch: [...new Set(drills.flatMap((drill) => notesOf(drill, materials).watch))].slice(
      0,
      MOST_WATCHED,
    ),
    ...(song && { song }),
    ...(inSeries && { inSeries }),
    ...(note && { note }),
    ...(next && { next }),
  }
  return { ...page, id: markOf(stableText(page)) }
}
