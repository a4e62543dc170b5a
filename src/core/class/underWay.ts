import { z } from 'zod'
import { otherSide, type Side, sideWord } from '../body/side'
import { DancerLevel } from '../combination/combination'
import { type ClassEntry, DancedDrill, type Verdict } from '../diary/diary'
import { atRate, Drill } from '../plan/drill'
import { saidUnit } from '../plan/frame'
import { type Materials, roundOf, secondsOf } from '../plan/material'
import { notesOf } from '../plan/notes'
import type { Plan } from '../plan/plan'
import { MOST_RISE } from '../plan/tempoSteps'
import { type StepWords, wordsOfPlan } from '../plan/words'
import { type Upgrade, upgrade } from '../record/upgrade'
import { RATE_STEP } from '../song/rate'
import { clampTempo, type Tempo } from '../time/tempo'
import { dancedRow } from './dancedRow'

const FLOOR_VERSION = 4

/** A class while it is given: what is to come, where it is, and what was danced so far. */
export const UnderWay = z
  .object({
    kind: z.literal('floor'),
    schemaVersion: z.literal(FLOOR_VERSION),
    /** Id of the class. */
    id: z.string().min(1),
    plan: z.string().min(1),
    title: z.string(),
    minutes: z.int().min(1),
    tempoNow: z.int(),
    tempoTarget: z.int(),
    /** Milliseconds since 1970; absent until the first drill. */
    startedAt: z.number().optional(),
    drills: z.array(Drill).readonly(),
    index: z.int().min(0),
    /** `asking` after a drill: was it clean? */
    phase: z.enum(['ready', 'dancing', 'paused', 'asking', 'over']),
    /** Rounds of this attempt that were danced to their end. */
    rounds: z.object({ R: z.int().min(0), L: z.int().min(0) }).readonly(),
    danced: z.array(DancedDrill).readonly(),
    /** Who it is planned for, where that was known. */
    level: DancerLevel.optional(),
    /** Counts of a walk that are behind it. */
    walked: z.int().min(0),
  })
  .readonly()
export type UnderWay = z.infer<typeof UnderWay>

/** Version 2 knows steps without a count; before it nobody walked. 3 knows how phrases were taught, 4 songs. */
const UPGRADES: readonly Upgrade[] = [
  { from: 1, up: (session) => ({ ...session, walked: 0 }) },
  { from: 2, up: (session) => session },
  { from: 3, up: (session) => session },
]

/**
 * Reads a class that was under way.
 * @throws UserError or ZodError when it is of a newer version, or damaged.
 */
export const readUnderWay = (record: Record<string, unknown>): UnderWay =>
  UnderWay.parse(upgrade(record, FLOOR_VERSION, UPGRADES))

/** What a key or a touch can ask for, and what the music reports. */
export type ClassAction =
  | { readonly kind: 'start'; readonly now: number }
  | { readonly kind: 'round'; readonly side: Side }
  | { readonly kind: 'finished' }
  | { readonly kind: 'next' | 'again' | 'slower' | 'faster' | 'other-side' | 'pause' }
  | { readonly kind: 'verdict'; readonly verdict: Verdict }
  | { readonly kind: 'go'; readonly index: number }
  /** Its song from another of its moments on, in milliseconds. */
  | { readonly kind: 'from'; readonly ms: number }
  /** One count on in a walk. */
  | { readonly kind: 'walk' }
  /** A pause now, whatever was planned; and on to what is run. */
  | { readonly kind: 'water' | 'to-runs' }
  /** So many seconds less, in the order in which it is least missed. */
  | { readonly kind: 'cut'; readonly seconds: number }

/** One press slower or faster. */
const TEMPO_PRESS = 1.06
/** So much slower, of its own speed, is danced with a song what was not yet clean. */
const RATE_BELOW = 2 * RATE_STEP
const NONE = { R: 0, L: 0 } as const

export const beginClass = (
  plan: Plan,
  { id, title, danced }: Pick<ClassEntry, 'id' | 'title' | 'danced'>,
): UnderWay => ({
  kind: 'floor',
  schemaVersion: FLOOR_VERSION,
  id,
  plan: plan.id,
  title,
  minutes: plan.wishes.minutes,
  level: plan.wishes.level,
  tempoNow: plan.wishes.tempoNow,
  tempoTarget: plan.wishes.tempoTarget,
  drills: plan.drills,
  index: 0,
  phase: 'ready',
  rounds: NONE,
  // A class that is taken up again keeps what it had.
  danced,
  walked: 0,
})

/** What is said before each of its steps, by their ids. */
export const wordsOfClass = (
  { drills, level }: Pick<UnderWay, 'drills' | 'level'>,
  materials: Materials,
): ReadonlyMap<string, StepWords> =>
  wordsOfPlan(
    {
      drills,
      wishes: {
        combinations: [...new Set(drills.flatMap(({ combination }) => combination ?? []))],
        level: level ?? materials.house.level,
      },
    },
    materials,
  )

export const drillOf = ({ drills, index }: UnderWay): Drill | undefined => drills[index]

/**
 * What is to be danced next of the drill: all of it, or after a pause what is left. Where the
 * sides have not the same left, the one that is behind goes first, alone. Undefined where
 * nothing is left.
 */
export function restOf(session: UnderWay): Drill | undefined {
  const drill = drillOf(session)
  if (!drill) return undefined
  const left = drill.sides.map((side) => ({
    side,
    rounds: Math.max(0, drill.repeats - session.rounds[side]),
  }))
  const most = Math.max(...left.map(({ rounds }) => rounds))
  if (most === 0) return undefined
  if (left.every(({ rounds }) => rounds === most)) return { ...drill, repeats: most }
  const { inTurn, ...once } = drill
  // In turn, one round is owed; one side after the other, the rest of the first comes first.
  const fewest = Math.min(...left.map(({ rounds }) => rounds))
  const next = left.find(({ rounds }) => (inTurn ? rounds === most : rounds > 0))
  if (!next) return undefined
  return { ...once, sides: [next.side], repeats: inTurn ? most - fewest : next.rounds }
}

/** Writes down what was danced of the drill; nothing where no round was finished. */
function recorded(session: UnderWay, materials: Materials): readonly DancedDrill[] {
  const drill = drillOf(session)
  const { rounds, danced } = session
  // Who only looked has danced nothing.
  if (!drill || drill.kind === 'show' || rounds.R + rounds.L === 0) return danced
  return [...danced, dancedRow(drill, rounds, freshId(session), materials)]
}

/** Rows may have been taken out of the diary by hand, so their number says nothing. */
function freshId({ id, danced }: UnderWay): string {
  const used = new Set(danced.map((one) => one.id))
  let n = danced.length + 1
  while (used.has(`${id} ${n}`)) n++
  return `${id} ${n}`
}

/** What a class is after a key, a touch, or a report of the music. */
export function afterAction(
  session: UnderWay,
  action: ClassAction,
  materials: Materials,
): UnderWay {
  const drill = drillOf(session)
  if (!drill && action.kind !== 'go') return session
  const written = () => recorded(session, materials)
  switch (action.kind) {
    case 'start':
      if (session.phase === 'dancing') return session
      return {
        ...session,
        phase: 'dancing',
        startedAt: session.startedAt ?? action.now,
        ...(session.phase === 'asking' && { rounds: NONE }),
      }
    case 'round':
      return {
        ...session,
        rounds: { ...session.rounds, [action.side]: session.rounds[action.side] + 1 },
      }
    case 'finished': {
      // What was left of one side is danced; the rest of the drill follows.
      if (restOf(session)) return session
      const danced = written()
      // Nobody is asked whether a warm-up was clean, or what was only shown.
      if (drill?.moves || drill?.kind === 'show') return onTo(session, session.index + 1, danced)
      return { ...session, danced, rounds: NONE, phase: 'asking' }
    }
    case 'pause':
      return session.phase === 'dancing' ? { ...session, phase: 'paused' } : session
    case 'next':
      return onTo(session, session.index + 1, written())
    case 'again':
      return { ...session, danced: written(), rounds: NONE, phase: 'ready' }
    case 'slower':
    case 'faster':
      return withDrill(session, (one) =>
        one.song
          ? atRate(
              one,
              one.song,
              one.song.rate + (action.kind === 'faster' ? RATE_STEP : -RATE_STEP),
            )
          : {
              ...one,
              tempo: clampTempo(
                action.kind === 'faster' ? one.tempo * TEMPO_PRESS : one.tempo / TEMPO_PRESS,
              ),
            },
      )
    case 'other-side':
      return {
        ...withDrill({ ...session, danced: written() }, flipped),
        rounds: NONE,
        phase: 'ready',
      }
    case 'from':
      if (!drill?.song || action.ms >= drill.song.to) return session
      return {
        ...withDrill({ ...session, danced: written() }, ({ song, ...one }) => ({
          ...one,
          ...(song && { song: { ...song, from: action.ms } }),
        })),
        rounds: NONE,
        phase: 'ready',
      }
    case 'verdict':
      return judged(session, action.verdict, written(), materials)
    case 'go':
      return onTo(session, action.index, written())
    case 'walk': {
      const counts = (drill && roundOf(drill, materials)?.counts) ?? 0
      const walked = session.walked + 1
      return walked < counts
        ? { ...session, walked }
        : onTo(session, session.index + 1, session.danced)
    }
    case 'water':
      return {
        ...onTo(session, session.index, written()),
        drills: session.drills.toSpliced(session.index, 0, waterNow(session, materials)),
        phase: 'dancing',
      }
    case 'to-runs': {
      const to = nextRun(session)
      return to === undefined ? session : onTo(session, to, written())
    }
    case 'cut':
      return { ...session, drills: cutBy(session, action.seconds, materials).drills }
  }
}

/** The other side first; a drill of one side changes to the other. */
const flipped = (drill: Drill): Drill => ({
  ...drill,
  sides:
    drill.sides.length === 2
      ? drill.sides.toReversed()
      : drill.sides.map((side) => otherSide[side]),
})

const withDrill = (session: UnderWay, change: (drill: Drill) => Drill): UnderWay => ({
  ...session,
  drills: session.drills.map((drill, i) => (i === session.index ? change(drill) : drill)),
})

function onTo(session: UnderWay, index: number, danced: readonly DancedDrill[]): UnderWay {
  const to = Math.max(0, Math.min(session.drills.length, index))
  return {
    ...session,
    danced,
    index: to,
    rounds: NONE,
    walked: 0,
    phase: to >= session.drills.length ? 'over' : 'ready',
  }
}

/** Clean: on, as it is planned. Not yet: the same again a rung slower, then in its easier form (teaching 4.1). */
function judged(
  session: UnderWay,
  verdict: Verdict,
  danced: readonly DancedDrill[],
  materials: Materials,
): UnderWay {
  const drill = drillOf(session)
  const last = danced.at(-1)
  if (!drill || !last) return session
  const marked = [...danced.slice(0, -1), { ...last, verdict }]
  if (verdict === 'clean') return onTo(session, session.index + 1, marked)
  const again = easier(drill, rungBelow(session, drill), materials)
  return {
    ...onTo(session, session.index + 1, marked),
    drills: [
      ...session.drills.slice(0, session.index + 1),
      again,
      ...session.drills.slice(session.index + 1),
    ],
    phase: 'ready',
  }
}

const AGAIN = ' again'

/** The tempo before this one of the same dance, or a little less where there was none. */
function rungBelow({ drills, index }: UnderWay, drill: Drill): Tempo {
  const slower = drills
    .slice(0, index)
    .filter(({ combination, tempo }) => combination === drill.combination && tempo < drill.tempo)
    .map(({ tempo }) => tempo)
  return slower.length > 0 && !drill.moves
    ? Math.max(...slower)
    : clampTempo(drill.tempo / MOST_RISE)
}

/** The first time slower; the second time in easier forms, or the layer is left out and the feet stay. */
function easier(drill: Drill, slower: Tempo, materials: Materials): Drill {
  const again: Drill = {
    ...drill,
    id: `${drill.id}${AGAIN}`,
    repeats: Math.min(drill.repeats, 2),
    talk: 5,
  }
  if (drill.song) return atRate(again, drill.song, drill.song.rate - RATE_BELOW)
  if (!drill.id.endsWith(AGAIN)) return { ...again, tempo: slower }
  const forms = notesOf({ ...drill, eased: undefined }, materials).easier.map(({ event }) => event)
  const fresh = forms.filter((event) => !drill.eased?.includes(event))
  if (fresh.length > 0) return { ...again, eased: [...(drill.eased ?? []), ...fresh] }
  const above = drill.layers.filter((layer) => layer !== 'feet')
  if (drill.layers.includes('feet') && above.length > 0)
    return { ...again, layers: drill.layers.filter((layer) => layer !== above.at(-1)) }
  return { ...again, tempo: slower }
}

/** The last rows are still being written: the drill under way, and the one whose verdict is asked. */
const STILL_WRITTEN = 2

/**
 * What a class has in its diary after this much of it. What was corrected or taken out by
 * hand meanwhile stays so, and so does what another window has written.
 */
export function classAfter(entry: ClassEntry, session: UnderWay, materials: Materials): ClassEntry {
  const rows = recorded(session, materials)
  const written = rows.slice(-STILL_WRITTEN)
  const own = new Set(written.map(({ id }) => id))
  return { ...entry, danced: [...entry.danced.filter(({ id }) => !own.has(id)), ...written] }
}

/** A class that was left in the middle of a drill goes on from there by a key, not by itself. */
export const paused = (session: UnderWay): UnderWay =>
  session.phase === 'dancing' ? { ...session, phase: 'paused' } : session

/** Seconds the class has left by the clock. */
export const secondsLeft = ({ minutes, startedAt }: UnderWay, now: number): number =>
  startedAt === undefined ? minutes * 60 : Math.max(0, minutes * 60 - (now - startedAt) / 1000)

/** The next step that is a run; none where the class is past them. */
export const nextRun = ({ drills, index }: UnderWay): number | undefined => {
  const at = drills.findIndex(
    ({ kind, task }, i) =>
      i > index &&
      (kind === 'sides' ||
        kind === 'free-run' ||
        kind === 'song' ||
        (kind === 'run' && task !== undefined)),
  )
  return at < 0 ? undefined : at
}

/** A pause that nobody had planned. */
function waterNow({ drills, tempoNow }: UnderWay, { house }: Materials): Drill {
  const used = new Set(drills.map(({ id }) => id))
  let id = 'water now'
  for (let n = 2; used.has(id); n++) id = `water now ${n}`
  return { ...saidUnit('pause', Math.round(house.limits['plan.water']), tempoNow), id }
}

/** Seconds by which what is still planned is longer than what the class has left; below 0 where there is time. */
export const lateBy = (session: UnderWay, now: number, materials: Materials): number =>
  session.drills.slice(session.index).reduce((sum, drill) => sum + secondsOf(drill, materials), 0) -
  secondsLeft(session, now)

/** What is left out first where time runs short, and last; what is not named stays (teaching 2.6). */
function cutPlace({ kind, task }: Drill): number | undefined {
  if (kind === 'open') return 0
  if (kind === 'free-run') return 1
  if (kind === 'run')
    return task === 'halves' ? 2 : task === 'harder' ? 3 : task === 'last-showing' ? 8 : 5
  return kind === 'switch-practice' ? 4 : kind === 'walls' ? 6 : kind === 'sides' ? 7 : undefined
}

/** The shortest cool-down, in seconds. */
const LEAST_COOL_DOWN = 60

/** What is still to come without what is least missed, so that some seconds are saved; what that was, and how much it saves. */
export function cutBy(
  { drills, index }: UnderWay,
  seconds: number,
  materials: Materials,
): { readonly drills: readonly Drill[]; readonly cut: readonly Drill[]; readonly saved: number } {
  const cut: Drill[] = []
  let left = seconds
  const byPlace = drills
    .map((drill, i) => ({ drill, i, place: cutPlace(drill) }))
    .filter(({ i, place, drill }) => i > index && place !== undefined && !drill.locked)
    .sort((a, b) => (a.place ?? 0) - (b.place ?? 0) || b.i - a.i)
  for (const { drill } of byPlace) {
    if (left <= 0) break
    cut.push(drill)
    left -= secondsOf(drill, materials)
  }
  const kept = drills
    .filter((drill) => !cut.includes(drill))
    .map((drill, i) => {
      if (!drill.holds || drill.seconds === undefined || left <= 0 || i <= index) return drill
      const less = Math.min(left, Math.max(0, drill.seconds - LEAST_COOL_DOWN))
      left -= less
      return { ...drill, seconds: drill.seconds - less }
    })
  return { cut, drills: kept, saved: seconds - left }
}

/** The sides of a drill in words: `right, then left`. */
export const sidesWords = ({ sides, inTurn }: Pick<Drill, 'sides' | 'inTurn'>): string =>
  sides.map((side) => sideWord[side]).join(inTurn ? ' and ' : ', then ')
