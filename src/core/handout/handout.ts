import { onceRound } from '../body/facing'
import { LAYERS } from '../body/layers'
import { sideWord } from '../body/side'
import type { Combination } from '../combination/combination'
import { bothOf, type Dancing } from '../combination/dancing'
import type { Pass } from '../combination/passes'
import { ruleWords } from '../combination/rules'
import type { PartId } from '../combination/whose'
import type { DancerLook } from '../house/dancerLook'
import { layerWord } from '../moves/vocabulary'
import { keyPosesOfAll, posesByCount } from '../pose/countPoses'
import type { Pose } from '../pose/joints'
import type { Company } from '../simulate/company'
import type { Danced } from '../simulate/danced'
import { type Simulation, stateBefore } from '../simulate/simulate'
import { poseSvg } from '../skin/posesSvg'
import { type CountWords, pickedWords, pickupTitle, sayPass, sayPickup } from '../teaching/say'
import { factsOf } from '../teaching/sayProps'
import {
  type CountTogether,
  metOnCounts,
  type Say,
  sayOptionsWhoever,
  sayWhoever,
  type WhoseWords,
} from '../teaching/sayTogether'
import { endOf } from '../time/time'
import { type Across, acrossOf, heightOf } from './across'
import { type Markup, made, markup } from './markup'

/** What is printed: danced from both sides. */
interface Printed extends Pick<Danced, 'from' | 'company'> {
  readonly combination: Combination
}

/** How it is to be printed. */
export interface HandoutWishes {
  /** Of several dancers only this one's page. */
  readonly part?: PartId | undefined
  /** Only these phrases; all where none is named. */
  readonly phrases?: readonly string[] | undefined
  /** Counts downwards, in letters of 18 points. */
  readonly isLarge?: boolean | undefined
  /** Whose poses stand on it. */
  readonly look: DancerLook
}

const ALL = new Set(LAYERS)
/** Pictures of a phrase whose counts stand beside each other. */
const POSES_ACROSS = 4

const saidOf: Say = (simulation, pass) => sayPass(simulation, pass, ALL, simulation.vocabulary)
const pickupOf: Say = (simulation, pass) => sayPickup(simulation, pass, ALL, simulation.vocabulary)

/** What a handout is called: its combination, and whose page it is. */
export function handoutTitle({ title, parts = [] }: Combination, part: PartId | undefined): string {
  const name = parts.find(({ id }) => id === part)?.name
  return [title || 'Combination', name].filter(Boolean).join(' · ')
}

/** A combination on paper: each side, its phrases with their key poses; of several dancers all of them, or one. */
export function handoutBody(printed: Printed, wishes: HandoutWishes): string {
  const { combination } = printed
  const { part } = wishes
  return bothOf(combination, part)
    .map((dancing) => sideOf(printed, dancing, wishes).html)
    .join('')
}

function sideOf(
  { combination, from, company: companyOf }: Printed,
  dancing: Dancing,
  wishes: HandoutWishes,
): Markup {
  const { part } = wishes
  const simulation = from(dancing)
  const company = companyOf?.(dancing)
  const name = combination.parts?.find(({ id }) => id === part)?.name
  const facts = [
    name,
    `${sideWord[dancing.side]} side`,
    `${combination.tempo} counts a minute`,
    combination.rules?.map(ruleWords).join(', '),
  ]
  const { phrases } = wishes
  const passes = simulation.passes.filter(({ phrase }) => !phrases || phrases.includes(phrase.id))
  const tables = new Map(
    // Of several, and in large print, all of it is written downwards.
    company || wishes.isLarge
      ? []
      : passes.map((pass) => [pass, acrossOf(pass, saidOf(simulation, pass), simulation)]),
  )
  const page = { combination, simulation, passes, company, wishes, tables }
  return markup`<section class="side${isTight(page) && ' tight'}"><h1>${combination.title} <span>${facts.filter(Boolean).join(' · ')}</span></h1>${factsOf(
    combination,
    part,
  ).map((line) => markup`<p>${line}</p>`)}${passes.map((pass) => phraseOf(pass, page))}</section>`
}

interface Page {
  readonly combination: Combination
  readonly simulation: Simulation
  /** What of it is printed. */
  readonly passes: readonly Pass[]
  readonly company: Company | undefined
  readonly wishes: HandoutWishes
  /** The dancings of phrases that can be tables. */
  readonly tables: ReadonlyMap<Pass, Across | undefined>
}

/** A page is so high inside its margins, in millimetres, the lower of both papers; its title takes some of it. */
const PAGE = 249 - 14
/** Pictures are so high, and small ones. */
const PICTURE = 22
const SMALL_PICTURE = 18

/** Whether a side comes to one page with small pictures, and to two with others. */
function isTight(page: Page): boolean {
  const heights = page.passes.map((pass) => {
    if (beforeOf(pass, page)) return 10
    const across = page.tables.get(pass)
    return across ? heightOf(across) : Number.POSITIVE_INFINITY
  })
  const pictures = heights.filter((height) => height > 10).length
  const words = heights.reduce((sum, height) => sum + height, 0)
  return words + pictures * PICTURE > PAGE && words + pictures * SMALL_PICTURE <= PAGE
}

/** The dancing of the same phrase before, where it is the very same. */
const beforeOf = (pass: Pass, { simulation }: Page): Pass | undefined =>
  simulation.passes.find(
    (one) =>
      one.index < pass.index &&
      one.phrase.id === pass.phrase.id &&
      one.mirrored === pass.mirrored &&
      one.options?.join() === pass.options?.join(),
  )

/** One dancing of a phrase, which is on one page; where it is danced as before it only says so. */
function phraseOf(pass: Pass, page: Page): Markup {
  const { simulation, company, wishes } = page
  const told = wishes.part === undefined ? company : undefined
  const { name, title } = pass.phrase
  const again = pass.times > 1 ? ` (${pass.time} of ${pass.times})` : ''
  const heading = markup`<h2>${[name, title].filter(Boolean).join(' · ')}${pass.options ? `, ${pickedWords(pass)}` : ''}${again} <span class="way">${arrow(simulation, pass.at)}</span></h2>`
  const pickup = sayWhoever(told, simulation, pass, pickupOf)
  const before = beforeOf(pass, page)
  if (before && pickup.length === 0 && !told)
    return markup`<section class="phrase again">${heading}<p>As before.${endWords(simulation, pass)}</p></section>`
  const across = page.tables.get(pass)
  const met =
    company && wishes.part !== undefined ? metOnCounts(company, pass.index, wishes.part) : undefined
  return markup`${
    pickup.length > 0 &&
    markup`<section class="phrase"><h3>${pickupTitle(simulation, pass)}</h3>${lines(pickup, page)}</section>`
  }<section class="phrase ${across ? 'across' : 'down'}">${heading}${
    across
      ? [table(across, pass, simulation, page), asides(saidOf(simulation, pass))]
      : lines(
          sayWhoever(told, simulation, pass, saidOf),
          page,
          keyPosesOfAll(told, simulation, pass, ALL),
          met,
        )
  }${endWords(simulation, pass)}${options(told, simulation, pass)}</section>`
}

const ARROWS = ['↑', '↗', '→', '↘', '↓', '↙', '←', '↖']

/** Where she faces at a tick, as seen from above: up is the front. */
const arrow = (simulation: Simulation, at: number): string =>
  ARROWS[Math.round(onceRound(stateBefore(simulation, at).facing) / 45) % ARROWS.length] ?? ''

/** The weight at the end of a phrase, which foot is free then, and where she faces. */
function endWords(simulation: Simulation, pass: Pass): Markup {
  const { weight } = stateBefore(simulation, endOf(pass))
  const stands =
    weight === 'both'
      ? 'on both feet'
      : `on the ${sideWord[weight]} foot, the ${weight === 'R' ? 'left' : 'right'} one free`
  return markup`<p class="end">Ends ${stands} <span class="way">${arrow(simulation, endOf(pass))}</span></p>`
}

const figure = (pose: Pose, { combination, wishes: { look } }: Page): Markup =>
  made(poseSvg(pose, 'behind', { look, families: combination.families }))

const ROW_WORDS = { ...layerWord, carried: 'Carried', say: 'Say' } as const

/** Counts beside each other, their key poses above them. */
function table({ rows }: Across, pass: Pass, simulation: Simulation, page: Page): Markup {
  const poses = posesByCount(simulation, pass, ALL, POSES_ACROSS)
  const counts = Array.from({ length: pass.phrase.counts }, (_, i) => i + 1)
  const from = pass.phrase.from ?? 1
  return markup`<table><thead><tr><td></td>${counts.map((count) => {
    const pose = poses.get(count)
    return markup`<td class="pose">${pose && figure(pose, page)}</td>`
  })}</tr><tr><td></td>${counts.map((count) => markup`<th scope="col">${count + from - 1}</th>`)}</tr></thead><tbody>${rows.map(
    ({ layer, cells }) =>
      markup`<tr class="${layer}"><th scope="row">${ROW_WORDS[layer]}</th>${cells.map((cell) => markup`<td>${cell}</td>`)}</tr>`,
  )}</tbody></table>`
}

/** What stands beside the counts. */
const asides = (words: readonly CountWords[]): Markup => {
  const own = words.filter((one) => one.asides.length > 0)
  return markup`${own.length > 0 && markup`<p class="notes">${own.map(({ count, asides: said }) => `${count}: ${said.join('; ')}`).join('. ')}.</p>`}`
}

/** Counts one below the other: what all do first, then who does something else. */
function lines(
  rows: readonly CountTogether[],
  page: Page,
  poses?: ReturnType<typeof keyPosesOfAll>,
  met?: ReadonlyMap<number, readonly string[]>,
): Markup {
  return markup`<ol>${rows.flatMap(({ count, each, meetings }) =>
    each.map((words, i) =>
      line(words, {
        page,
        isFirst: i === 0,
        pose: poses?.get(words.parts[0] ?? '')?.get(count),
        met: i === each.length - 1 ? (met?.get(count) ?? meetings) : [],
      }),
    ),
  )}</ol>`
}

interface Line {
  readonly page: Page
  /** The number stands with the first line of a count. */
  readonly isFirst: boolean
  readonly pose: Pose | undefined
  readonly met: readonly string[]
}

/** One count: its pose, what is danced and called, what stands beside it, and the weight after it. */
const line = (
  { count, feet, layers, weight, cues, asides: beside, whose }: WhoseWords,
  { page, isFirst, pose, met }: Line,
): Markup =>
  markup`<li><b>${isFirst && count}</b><div>${pose && figure(pose, page)}</div><p>${whose && markup`<b>${whose}: </b>`}${feet.length > 0 && `${feet.join('. ')}. `}${layers.map(({ layer, text }) => markup`<b>${layerWord[layer]}</b> ${text}. `)}${cues.map((cue) => markup`<em>“${cue}” </em>`)}${beside.length > 0 && markup`<small>(${beside.join('; ')}) </small>`}${met.map((words) => markup`<b>together</b> ${words}. `)}</p><i>${weight}</i></li>`

/** What may be danced otherwise, under the first dancing of its phrase. */
function options(told: Company | undefined, simulation: Simulation, pass: Pass): Markup {
  if (pass.time > 1 || pass.options) return markup``
  return markup`${sayOptionsWhoever(told, simulation, pass).flatMap(({ whose, options: own }) =>
    own.map(
      ({ title, lines: said }) =>
        markup`<h3>${whose ? `${whose}: ${title}` : title}</h3><ul>${said.map(({ when, text }) => markup`<li><b>${when}</b> ${text}</li>`)}</ul>`,
    ),
  )}`
}
