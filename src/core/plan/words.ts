import { facingWord } from '../body/facing'
import { otherSide, type Side, sideWord } from '../body/side'
import { cuesOfAll } from '../calling/together'
import { capital } from '../capital'
import type { DancerLevel } from '../combination/combination'
import { aloneFrom } from '../combination/dancing'
import { isOwnIn } from '../combination/partOf'
import type { Pass } from '../combination/passes'
import { lengthWords } from '../house/lengths'
import { stateAt, stateBefore } from '../simulate/simulate'
import { armReach } from '../space/space'
import { numberAt, numberOfCount, TICKS_PER_COUNT } from '../time/time'
import { HOLDS } from './coolDown'
import type { Drill, RunTask } from './drill'
import { type DrillRound, layersIn, type Material, type Materials, roundOf } from './material'
import { nameOfMoves } from './moveRounds'
import { CLASS_CAUTION, cautionsOf, notesOf, waysOut } from './notes'
import type { PlanWishes } from './plan'
import { postureOf, shortPostureOf } from './posture'
import { firstPasses } from './teaching'
import { agreedFirst } from './touching'
import { sameFeetBefore } from './ways'

/** What is said before a step, and what who can't may dance instead. */
export interface StepWords {
  readonly say: readonly string[]
  readonly easier: readonly string[]
  /** Written by hand, not worked out. */
  readonly isOwn: boolean
}

/** The steps of a class, and whom it is for: what their words hang on. */
export interface Told {
  readonly drills: readonly Drill[]
  readonly wishes: Pick<PlanWishes, 'combinations' | 'level'>
}

/** Dancers over which a class changes its rows at each pause. */
const MANY_DANCERS = 16

const TASK_WORDS: Readonly<Record<RunTask, string>> = {
  weight: 'Say where the weight is on every close and touch.',
  'turned-away': 'Turn away from the mirror: the other wall is front now.',
  names: 'Listen for the names, and let the numbers go.',
  breath: 'Breathe out on the long moves; the face dances too.',
  size: 'Small and clear first, then as large as the room.',
  harder: 'Who wants more takes it; who stays keeps it as written.',
  halves: 'One half dances, the other looks for one thing it likes; then change.',
  silent: 'No word is called: the last rounds are yours.',
  'last-showing': 'Last time: for somebody who has never seen it.',
}

/** Alone, standing, before it goes on the feet. */
const ALONE_WORDS = {
  feet: 'Hips quiet; quick steps stay under the shoulders.',
  legs: 'From the hip, the knee over the toes; on the ball, or with the weight off it.',
  hips: 'Feet still, knees soft; hips alone, the ribs stay level.',
  torso: 'Feet and hips still; only what is named moves.',
  arms: 'Feet still; the path matters as much as the place.',
  head: 'Feet still; small and slow, stop if it makes anyone dizzy.',
} as const

/**
 * What is said before each step of a class, by its id: what was written by hand, else what follows
 * from the dance. A slip and an easier form are said where they are met first, and only there (teaching 8.1).
 */
export function wordsOfPlan(plan: Told, materials: Materials): ReadonlyMap<string, StepWords> {
  const said = new Set<string>()
  const fresh = (lines: readonly string[]) =>
    lines.filter((line) => {
      const isFirst = !said.has(line)
      said.add(line)
      return isFirst
    })
  return new Map(
    plan.drills.map((drill): [string, StepWords] => {
      const notes = drill.isNew ? notesOf(drill, materials) : undefined
      const easier = drill.isNew ? fresh(waysOut(drill, materials)) : []
      if (drill.say) return [drill.id, { say: drill.say, easier, isOwn: true }]
      const round = roundOf(drill, materials)
      const watch = fresh(notes?.watch.slice(0, 1) ?? [])
      const marked = drill.marked ? [markedWords(drill.marked)] : []
      const remarks = drill.isNew && round ? fresh(remarksIn(round, drill)) : []
      // Who is only shown it is not told yet.
      const together = round && drill.kind !== 'show' ? fresh(togetherWords(round)) : []
      const say = [
        ...together,
        ...computed(drill, round, plan, materials),
        ...marked,
        ...watch,
        ...remarks,
      ]
      return [drill.id, { say: say.filter((line) => line !== ''), easier, isOwn: false }]
    }),
  )
}

function computed(
  drill: Drill,
  round: DrillRound | undefined,
  plan: Told,
  materials: Materials,
): readonly string[] {
  const { wishes } = plan
  const all = wishes.combinations.flatMap((id) => materials.find(id) ?? [])
  const { dancers } = materials.house
  switch (drill.kind) {
    case 'hello':
      return [
        ...all.map((one) => helloWords(one, wishes.level, plan)),
        todayWords(plan, materials),
        'Everything may be smaller, slower or left out.',
        ...all.map((one) => roomWords(one)),
        ...cautionsOf(plan.drills, materials),
        CLASS_CAUTION,
      ]
    case 'show':
      return ['Once facing them, once with the back to them; nobody dances yet.']
    case 'warm-up':
      return drill.stage === 'posture' || !drill.moves
        ? all.slice(0, 1).map(({ combination }) => postureOf(combination))
        : [stageWords(drill, materials)]
    case 'cool-down':
      return drill.holds
        ? [
            ...drill.holds.flatMap((id) => {
              const hold = HOLDS.find((one) => one.id === id)
              return hold
                ? [
                    `${hold.name}: ${hold.words}${hold.sides === 2 ? ' Both sides.' : ''} ${hold.caution}`,
                  ]
                : []
            }),
            'Three breaths, shoulders down on each. Thank you.',
          ].slice(0, 9)
        : ['Sway slowly and let the pulse fall; smaller with each eight.']
    case 'pause':
      return [
        'Water; questions.',
        ...(dancers > MANY_DANCERS ? ['The front row goes to the back.'] : []),
      ]
    case 'recap':
      return recapWords(plan, materials)
    case 'open':
      return ['Free: a phrase more, another dance that is due, or an early end.']
    case 'technique':
      return (drill.focus ?? []).map((line, i) => `Minute ${i + 1}: ${line}`)
    case 'walk':
      return round
        ? [
            ...(drill.changed ?? []).map((line) => `Changed since last time. ${line}`),
            `${weightWords(round)}${feetAs(round, drill)}`,
            countWords(drill, round),
          ]
        : []
    case 'alone':
      return [
        ...drill.layers.map((layer) => ALONE_WORDS[layer]),
        round ? countWords(drill, round) : '',
      ]
    case 'walls':
      return round ? [wallWords(round)] : []
    case 'other-side':
      return round ? [otherWords(drill, round)] : []
    case 'switch-practice':
      return round ? [switchWords(round.material)] : []
    case 'run':
      return [
        ...(isFirstMusic(drill, plan)
          ? [
              `Listen first: where is 1? Where the tune stops, hold or sway.`,
              ...all
                .filter(({ combination }) => combination.id === drill.combination)
                .map(({ combination }) => shortPostureOf(combination)),
            ]
          : []),
        drill.task ? TASK_WORDS[drill.task] : 'To the music; breathe.',
        ...(drill.option ? [`More: ${drill.option}.`] : []),
      ]
    case 'song':
      return plan.drills.find(({ kind }) => kind === 'song') === drill
        ? ['Listen first: where is 1? Where the tune stops, hold or sway.']
        : []
    case 'join':
    case 'sides':
    case 'free-run':
      return [round ? namesWords(round) : '']
    default:
      return round && !isWalked(drill, round, plan, materials)
        ? [`${weightWords(round)}${feetAs(round, drill)}`, countWords(drill, round)]
        : []
  }
}

const markedWords = (rounds: number): string =>
  `The last ${rounds === 1 ? 'round' : `${rounds} rounds`} small, or in the easier form.`

/** Whether its words were said with the walk of the same passes, be it in halves. */
const isWalked = (
  drill: Drill,
  { passes }: DrillRound,
  { drills }: Told,
  materials: Materials,
): boolean =>
  drills.some(
    (one) =>
      one.kind === 'walk' &&
      one.combination === drill.combination &&
      roundOf(one, materials)
        ?.passes.map(({ index }) => index)
        .join() === passes.map(({ index }) => index).join(),
  )

/** Whether this is where a combination meets its music. */
const isFirstMusic = ({ id, combination }: Drill, { drills }: Told): boolean =>
  drills.find(
    (one) => one.music && one.combination !== undefined && one.combination === combination,
  )?.id === id

const countsOf = ({ lead }: Material): number => lead.length / TICKS_PER_COUNT

/** What it is, for whom, and on which sides. */
function helloWords(one: Material, level: DancerLevel, { drills }: Told): string {
  const { title, id, lead } = one.combination
  const isBoth = drills.some(
    ({ combination, sides }) => combination === id && sides.includes(otherSide[lead]),
  )
  return `${title || 'This one'}: ${countsOf(one)} counts, ${isBoth ? 'both sides' : `the ${sideWord[lead]} side`}, for ${LEVEL_WORDS[level]}.`
}

const LEVEL_WORDS: Readonly<Record<DancerLevel, string>> = {
  new: 'new dancers',
  improver: 'improvers',
  intermediate: 'intermediate dancers',
  advanced: 'advanced dancers',
}

/** What the class gets to. */
function todayWords({ drills }: Told, materials: Materials): string {
  const names = drills
    .filter(({ kind }) => kind === 'all')
    .flatMap((drill) => roundOf(drill, materials)?.passes ?? [])
    .map(({ phrase }) => nameOf(phrase))
  return names.length > 0 ? `Today: ${[...new Set(names)].join(', ')}.` : ''
}

const nameOf = ({ name, title }: Pass['phrase']): string => title || `phrase ${name}`

/** Clearance of the arms, as the house tells lengths. */
function roomWords({ lead, each }: Material): string {
  const sideways = Math.max(...each().map((dance) => armReach(dance).sideways))
  return `The arms take ${lengthWords(sideways, lead.house.units)} to each side.`
}

function stageWords({ stage, moves }: Drill, { vocabulary }: Materials): string {
  const names = [...new Set(moves ?? [])]
    .map((id) => nameOfMoves(id, vocabulary))
    .filter((name) => name !== '')
  const way =
    stage === 'pulse'
      ? 'Small first, then as large as the room'
      : stage === 'joints'
        ? 'Change the music; from the top down, easily'
        : 'From the plainest up'
  return `${way}: ${names.join(', ')}, eight counts to each side.`
}

/** The foot that can go where one of them carries: `the left foot is free`. */
const freeFoot = (weight: Side): string => `the ${sideWord[otherSide[weight]]} foot is free`

/** Where the weight is as a round begins, and which foot is free. */
function weightWords({ material, from }: DrillRound): string {
  const { weight } = stateBefore(material.lead, from)
  return weight === 'both'
    ? 'Weight on both feet.'
    : `Weight on the ${sideWord[weight]}, ${freeFoot(weight)}.`
}

/** The phrase whose feet these are. */
function feetAs({ passes, material }: DrillRound, { layers }: Drill): string {
  const [pass] = passes
  const same = pass && layers.includes('feet') ? sameFeetBefore(pass, material) : undefined
  return same && passes.length === 1 ? ` Feet as in ${same.phrase.name}.` : ''
}

/** What is noted in the sheet beside what is danced, with its count. */
function remarksIn({ passes, from, to }: DrillRound, { layers }: Drill): readonly string[] {
  const counted = (pass: Pass, at: number, text: string) =>
    `On ${Math.max(0, Math.floor(at / TICKS_PER_COUNT)) + 1}${passes.length > 1 ? ` of ${nameOf(pass.phrase)}` : ''}: ${text}`
  const isHere = (pass: Pass, at: number) => pass.at + at >= from && pass.at + at < to
  return passes.flatMap((pass) => [
    ...pass.remarks
      .filter(({ kind, at }) => kind === 'note' && isHere(pass, at))
      .map(({ at, text }) => counted(pass, at, text)),
    ...pass.events.flatMap(({ layer, at, note }) =>
      note !== undefined && layers.includes(layer) && isHere(pass, at)
        ? [counted(pass, at, note)]
        : [],
    ),
  ])
}

/** What a class is told before it dances something for several: who dances what, and to ask before a touch. */
function togetherWords({ material, passes }: DrillRound): readonly string[] {
  const { parts = [], phrases, swapRoles } = material.combination
  if (parts.length === 0) return []
  const here = new Set(passes.map(({ phrase }) => phrase.id))
  const written = phrases.filter(({ id }) => here.has(id))
  const met = written.flatMap(({ between = [] }) => between.map(({ what }) => what))
  const differs = written.some((phrase) => parts.some(({ id }) => isOwnIn(phrase, id)))
  const names = parts.map(({ name }) => name).join(', ')
  return [
    ...(differs
      ? [
          `Each takes a part: ${names}. ${swapRoles ? 'On the other side you swap' : 'Swap after a while'}, so that all know both.`,
        ]
      : []),
    ...agreedFirst(met),
  ]
}

/** The counts as they are called: `slide, 2, 3, 4, front, 6, back, 8`. */
function countWords({ layers, half }: Drill, { material, passes }: DrillRound): string {
  const [pass] = passes
  if (!pass || passes.length > 1) return ''
  const company = material.company?.(aloneFrom(material.lead.combination.lead))
  const called = cuesOfAll(company, material.lead, pass, layers)
  const cues = new Map(
    called
      .filter(({ kind }) => kind !== 'phrase')
      .map(({ at, text }) => [Math.floor((at - pass.at) / TICKS_PER_COUNT) + 1, text]),
  )
  const counts = Array.from({ length: pass.phrase.counts }, (_, i) => i + 1).filter(
    (count) => !half || (count >= half.from && count <= half.to),
  )
  if (!counts.some((count) => cues.has(count))) return ''
  const said = (count: number) => cues.get(count) ?? String(numberOfCount(count, pass.phrase))
  return `${capital(counts.map(said).join(', '))}.`
}

function wallWords({ material, passes }: DrillRound): string {
  const walls = passes.flatMap((pass) =>
    material.lead.danced
      .filter((one) => one.pass.index === pass.index && one.action.turn)
      .map(
        ({ at }) =>
          `on ${numberAt(at - pass.at, pass.phrase)} ${facingWord(stateAt(material.lead, at).facing)}`,
      ),
  )
  return `Walk it and say the wall: ${walls.join(', ')}.`
}

/** What changes on the other side, and what is kept. */
function otherWords(drill: Drill, { passes, from, material }: DrillRound): string {
  const side = drill.sides[0] ?? 'L'
  const { weight } = stateBefore(material.from(aloneFrom(side)), from)
  const begins = weight === 'both' ? '' : `: ${freeFoot(weight)}`
  const kept = passes
    .flatMap(({ events }) => events)
    .filter(({ kept: stays, layer }) => stays && drill.layers.includes(layer))
    .map(({ layer }) => layer)
  const stays = layersIn(passes).filter((layer) => kept.includes(layer))
  const turns = material.combination.keepTurns ? ' The turns keep their way.' : ''
  return `${drill.layers.join() === 'feet' ? 'The feet' : 'All of it'} from the ${sideWord[side]} side${begins}.${stays.length > 0 ? ` As it was: ${stays.join(', ')}, where they are kept.` : ''}${turns}`
}

const namesWords = ({ passes }: DrillRound): string => {
  const names = passes.map(
    ({ phrase, mirrored }) => `${nameOf(phrase)}${mirrored ? ' on the other side' : ''}`,
  )
  return `${capital(names.join(', '))}.`
}

function switchWords({ lead, combination }: Material): string {
  const { weight } = lead.end
  const last = lead.passes.at(-1)
  return last
    ? `The last four counts of ${nameOf(last.phrase)}, then the first four from the other side: ${weight === 'both' ? 'the weight is on both feet' : `${freeFoot(weight)}${combination.lead === weight ? ', and begins' : ''}`}.`
    : ''
}

/** Phrases by name, the foot that is free at the end, two slips, and what to practise. */
function recapWords(plan: Told, materials: Materials): readonly string[] {
  const danced = plan.drills.filter(({ combination }) => combination !== undefined)
  const last = danced.findLast(
    ({ kind }) => kind === 'run' || kind === 'sides' || kind === 'join' || kind === 'all',
  )
  const round = last && roundOf(last, materials)
  const slips = [
    ...new Set(
      danced
        .filter(({ kind }) => kind === 'all')
        .flatMap((drill) => notesOf(drill, materials).watch),
    ),
  ].slice(0, 2)
  const left = plan.wishes.combinations
    .flatMap((id) => materials.find(id) ?? [])
    .flatMap((material) =>
      firstPasses(material.lead.passes).filter(
        ({ phrase }) =>
          !danced.some(
            ({ kind, phrases, combination }) =>
              kind === 'all' &&
              combination === material.combination.id &&
              (phrases.length === 0 || phrases.includes(phrase.id)),
          ),
      ),
    )
  const end = round && stateAt(round.material.lead, round.to - 1).weight
  return [
    round ? namesWords(round) : '',
    end === undefined || end === 'both' ? '' : `At the end ${freeFoot(end)}.`,
    ...slips.map((slip) => `Look at home: ${slip}`),
    left.length > 0 ? `Next time: ${left.map(({ phrase }) => nameOf(phrase)).join(', ')}.` : '',
  ]
}
