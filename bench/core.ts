import { drillPerformance } from '../src/core/class/drillDance'
import { Combination } from '../src/core/combination/combination'
import { mirror } from '../src/core/combination/mirror'
import { moveEvents } from '../src/core/edits/edits'
import { checkCombination } from '../src/core/findings/check'
import { matches, summaryOf } from '../src/core/findings/summary'
import { tempoRoom } from '../src/core/findings/tempoLimits'
import { levelForm } from '../src/core/forms/levels'
import { USUAL_HOUSE } from '../src/core/house/house'
import { vocabulary } from '../src/core/moves/vocabulary'
import { materialsOf, roundOf } from '../src/core/plan/material'
import { NOTHING_KNOWN, type PlanWishes } from '../src/core/plan/plan'
import { planClass } from '../src/core/plan/planner'
import { spreadOver } from '../src/core/plan/spread'
import { dancerOf } from '../src/core/pose/dancer'
import { newPose } from '../src/core/pose/joints'
import { repairFeet } from '../src/core/repair/feet'
import { repairsFor } from '../src/core/repair/offers'
import { readSheet } from '../src/core/sheet/readSheet'
import { readCombination, readSwayJson, writeSwayJson } from '../src/core/sheet/swayJson'
import { writeSheet } from '../src/core/sheet/writeSheet'
import { simulate } from '../src/core/simulate/simulate'
import { findOffers } from '../src/core/writing/search'
import demo from '../src/storage/demo/demo.json'
import { benchIdeas } from './ideas'
import { finish, microseconds, row, say } from './measure'
import { benchPieces } from './pieces'
import { benchProps } from './props'

const lantern = demo.map(readCombination).find(({ id }) => id.includes('lantern'))
if (!lantern) throw new Error('the demo has lost its lantern')

/** The demo's five-layer combination of 32 counts, written again and again as phrases of its own. */
function ofCounts(counts: number): Combination {
  const { phrases, ...rest } = lantern as Combination
  const copies = Array.from({ length: counts / 32 }, (_, i) =>
    phrases.map((phrase) => ({
      ...phrase,
      id: `${phrase.id}${i}`,
      name: `${phrase.name}${i}`,
      events: phrase.events.map((event) => ({ ...event, id: `${event.id}-${i}` })),
    })),
  ).flat()
  const order = copies.map(({ id }) => ({ phrase: id, mirrored: false }))
  return Combination.parse({ ...rest, phrases: copies, order })
}

const [c32, c64, c256] = [32, 64, 256].map(ofCounts) as [Combination, Combination, Combination]
const dragged = c64.phrases[3]?.events[0]?.id ?? ''
let by = 0
const recheck = (c: Combination) => {
  by = by === 6 ? -6 : 6
  return checkCombination(moveEvents([dragged], by)(c), vocabulary)
}

/** The same combination as new objects, as if it had just been read. */
const cold = () => JSON.parse(JSON.stringify(c64)) as Combination

/** Three steps onto the foot that has the weight, in three phrases. */
function withSlips(combination: Combination): Combination {
  let slips = 0
  return {
    ...combination,
    phrases: combination.phrases.map((phrase) => {
      const first = phrase.events.find(
        ({ what }) => what.kind === 'foot' && what.action.primitive === 'touch',
      )
      if (first?.what.kind !== 'foot' || slips === 3) return phrase
      slips++
      const foot = first.what.action.foot === 'R' ? 'L' : 'R'
      const what = { ...first.what, action: { ...first.what.action, foot } as const }
      return {
        ...phrase,
        events: phrase.events.map((one) => (one === first ? { ...one, what } : one)),
      }
    }),
  }
}

// The first figure must not pay for the compiler.
for (let i = 0; i < 2000; i++) recheck(c64)
const check32 = row('One edit and its full re-check on both sides, 32 counts', () => recheck(c32))
const check64 = row('… 64 counts', () => recheck(c64))
const check256 = row('… 256 counts', () => recheck(c256))
say(
  '… a count, 32 / 64 / 256 counts',
  [check32 / 32, check64 / 64, check256 / 256].map(microseconds).join(' / '),
)
say('… 256 counts against 64 (linear is 4.0)', `× ${(check256 / check64).toFixed(1)}`)
row('Simulating 64 counts, one side', () => simulate(c64, vocabulary))
row('Copying and checking 64 counts nothing is known of yet, both sides', () =>
  checkCombination(cold(), vocabulary),
)
const slipped = withSlips(c64)
for (const goal of ['faults', 'switch', 'repeat'] as const)
  row(`Repairing the feet of 64 counts with three slips, for ${goal}`, () =>
    repairFeet(slipped, goal, vocabulary),
  )
const slip = checkCombination(slipped, vocabulary).findings[0]
if (slip)
  row('The repairs of one finding, each tried', () =>
    repairsFor(slipped, slip, vocabulary, USUAL_HOUSE, () => 'new'),
  )
row('The version of 64 counts for new dancers', () =>
  levelForm(c64, 'new', vocabulary, USUAL_HOUSE),
)
row('How fast 64 counts can go, and what limits it', () =>
  tempoRoom(checkCombination(c64, vocabulary)),
)
row('Mirroring 64 counts', () => mirror(c64))
const danced = simulate(c64, vocabulary)
const figure = dancerOf(danced)
const pose = newPose()
// It is asked for sixty times a second: what counts is what it costs once it is warm.
for (let i = 0; i < 30_000; i++) figure.poseAt((i * 7.37) % 768, pose)
let at = 0
row('A pose of the figure, five layers, 64 counts', () => {
  at = (at + 7.37) % 768
  return figure.poseAt(at, pose)
})
row('A figure made ready to dance 64 counts', () => dancerOf(danced))
const wanted = { layer: 'feet' as const, side: 'R' as const, families: ['belly' as const] }
row('Finding moves for “st f”', () => findOffers('st f', wanted, vocabulary))
const sheet64 = writeSheet(c64, vocabulary)
const sheet256 = writeSheet(c256, vocabulary)
row('Reading a count sheet of 64 counts', () => readSheet(sheet64, vocabulary))
row('Reading a count sheet of 256 counts', () => readSheet(sheet256, vocabulary))
row('Writing a count sheet of 256 counts', () => writeSheet(c256, vocabulary))
const shelf = Array.from({ length: 2000 }, (_, i) => ({
  ...summaryOf(c32, vocabulary),
  words: `copper lantern ${i} belly intermediate`,
}))
row('Searching 2,000 summaries', () =>
  shelf.filter((one) => matches(one, { text: 'lantern 19', switches: true })),
)
const materials = () => materialsOf([c64], vocabulary, USUAL_HOUSE)
const wishes: PlanWishes = {
  combinations: [c64.id],
  minutes: 60,
  level: 'improver',
  tempoNow: 64,
  tempoTarget: 96,
  way: 'propose',
  type: 'drop-in',
  sides: 'propose',
  seen: 'none',
  known: NOTHING_KNOWN,
}
row('Planning a class of 64 counts, nothing known of it yet', () => planClass(wishes, materials()))
const known = materials()
row('Planning it again after a change by hand', () => planClass(wishes, known))
row('Spreading it over classes of half an hour', () =>
  spreadOver({ ...wishes, minutes: 30 }, known),
)
const drill = planClass(wishes, known).drills.find(({ kind }) => kind === 'sides')
const round = drill && roundOf(drill, known)
if (drill && round)
  row('Calling a drill of 64 counts', () =>
    drillPerformance(drill, round, { rhythm: undefined, call: 'rounds', speech: () => 0.25 }),
  )
benchIdeas(c64)
benchPieces(c64, check64)
benchProps(c64)
const text = writeSwayJson(c64)
row('Reading and checking a file of 64 counts', () => readSwayJson(text))

finish()
