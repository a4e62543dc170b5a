import { type Drill, isCounted } from './drill'
import { type Materials, roundOf } from './material'
import type { PlanWishes } from './plan'
import { planClass } from './planner'
import { layersOf, taughtKey } from './teaching'

/** One class of several, when all that is to be taught does not fit into one. */
export interface SpreadClass {
  readonly drills: readonly Drill[]
  /** What is new in it. */
  readonly taught: readonly Drill[]
}

const MOST_CLASSES = 24

/**
 * Spreads what does not fit over several classes like this one, each of which begins with a
 * review of the one before it.
 */
export function spreadOver(wishes: PlanWishes, materials: Materials): readonly SpreadClass[] {
  const classes: SpreadClass[] = []
  let now = wishes
  while (classes.length < MOST_CLASSES) {
    const { drills, left } = planClass(now, materials)
    const taught = drills.filter(({ kind }) => NEW_KINDS.has(kind))
    classes.push({ drills, taught })
    if (left.length === 0 || taught.length === 0) break
    const next = afterClass(now, drills, materials)
    // A class too short to put anything new on the feet would be given again and again.
    if (next.known.taught.length === now.known.taught.length) break
    now = next
  }
  return classes
}

const NEW_KINDS: ReadonlySet<Drill['kind']> = new Set(['feet', 'alone', 'all'])

/** What dances together what was taught. */
const TOGETHER: ReadonlySet<Drill['kind']> = new Set(['sides', 'run', 'join', 'all'])

/** The wishes for the class that follows one in which some drills were danced. */
function afterClass(
  wishes: PlanWishes,
  drills: readonly Drill[],
  materials: Materials,
): PlanWishes {
  const danced = drills.filter((drill) => drill.combination !== undefined && isCounted(drill))
  const taught = danced
    .filter(({ kind }) => kind !== 'show' && kind !== 'switch-practice')
    .flatMap((drill) => taughtIn(drill, materials))
  // What was danced together last, of each combination.
  const closing = [
    ...new Map(
      danced
        .filter(({ kind }) => TOGETHER.has(kind))
        .map((drill) => [drill.combination, { ...drill, tempo: wishes.tempoNow }]),
    ).values(),
  ]
  return {
    ...wishes,
    known: {
      ...wishes.known,
      taught: [...new Set([...wishes.known.taught, ...taught])],
      reviews: closing.map(({ combination = '', phrases, layers, tempo }) => ({
        combination,
        phrases,
        layers,
        tempo,
        because: 'danced in the class before',
      })),
    },
  }
}

/** What a drill has taught: its layers on the feet, or standing where there are no feet. */
function taughtIn(drill: Drill, materials: Materials): readonly string[] {
  const { combination = '', layers } = drill
  const round = roundOf(drill, materials)
  if (!round) return []
  return round.passes.flatMap((pass) =>
    layers.includes('feet') || !layersOf([pass], round.material).includes('feet')
      ? layers.map((layer) => taughtKey(combination, pass.phrase.id, layer))
      : [],
  )
}
