import { LAYERS, type Layer } from '../body/layers'
import type { Meeting } from '../combination/between'
import type { Combination } from '../combination/combination'
import { partIds, partOf, phraseOf } from '../combination/partOf'
import type { PartId } from '../combination/whose'
import { clampTempo } from '../time/tempo'
import type { Drill } from './drill'
import { layersIn, type Materials, materialsOf } from './material'
import { teachSteps } from './teachSteps'
import { agreedFirst, isTouching } from './touching'

/** How dancers come to dance something with each other: one after the other, without hands, with them. */
type Meets = 'in-turn' | 'apart' | 'with'

/** A step of teaching a piece. */
export interface TeachStep {
  readonly drill: Drill
  /** Whose it is; of all of them where it is not said. */
  readonly part?: PartId
  readonly meets?: Meets
}

/** The steps in which a phrase is learned, before it stands among the others. */
const BY_PHRASE: ReadonlySet<Drill['kind']> = new Set(['walk', 'alone', 'feet', 'all', 'walls'])

/** What is looked at where one dancer learns what is hers. */
export const materialsOfPart = (materials: Materials, combination: Combination, part: PartId) =>
  materialsOf([partOf(combination, part)], materials.vocabulary, materials.house)

/**
 * The steps of teaching a piece: what all share once, for all. What differs is taught to each alone,
 * then in turn, then together without hands, then with them and slower; what somebody leans on or
 * is led through comes last, when all know their own.
 */
export function teachTogether(
  combination: Combination,
  materials: Materials,
): readonly TeachStep[] {
  const parts = partIds(combination)
  const each = parts.map((part) => {
    const own = materialsOfPart(materials, combination, part)
    const material = own.find(combination.id)
    const drills = material ? teachSteps(material, own).drills : []
    return {
      part,
      layers: material ? layersIn(material.lead.passes) : [],
      drills: drills.map((drill) => ({ ...drill, id: `${part} ${drill.id}` })),
    }
  })
  const [first] = each
  if (!first) return []
  const isShared = sharedBy(combination)
  const steps: TeachStep[] = []
  const last: TeachStep[] = []
  const done = new Set<string>()
  const learn = ({ phrases }: Drill) => {
    const key = phrases.join()
    if (done.has(key)) return
    done.add(key)
    const own = each.map(({ part, drills }) => ({
      part,
      drills: drills.filter((one) => BY_PHRASE.has(one.kind) && one.phrases.join() === key),
    }))
    if (isShared(phrases)) {
      steps.push(...(own[0]?.drills ?? []).map((drill) => ({ drill })))
      return
    }
    for (const { part, drills } of own) steps.push(...drills.map((drill) => ({ drill, part })))
    const whole = own.flatMap(({ drills }) => drills.findLast(({ kind }) => kind === 'all') ?? [])
    const [template] = whole
    if (!template) return
    for (const { part, drills } of own) {
      const drill = drills.findLast(({ kind }) => kind === 'all')
      if (drill)
        steps.push({
          drill: { ...drill, id: `turn ${drill.id}`, repeats: 1 },
          part,
          meets: 'in-turn',
        })
    }
    const layers = [...new Set(whole.flatMap((drill) => drill.layers))]
    const { isNew: _, ...known } = template
    const all = { ...known, layers }
    const met = meetingsIn(combination, phrases)
    if (!met.some(isTouching)) {
      steps.push({ drill: { ...all, id: `all ${template.id}` }, meets: 'with' })
      return
    }
    steps.push({ drill: { ...all, id: `apart ${template.id}` }, meets: 'apart' })
    const share = materials.house.limits['pair.contactTempo']
    const tempo = clampTempo(Math.min(template.tempo, Math.round(combination.tempo * share)))
    const touching = { drill: { ...all, id: `with ${template.id}`, tempo }, meets: 'with' as const }
    if (met.some(({ kind }) => kind === 'support' || kind === 'led')) last.push(touching)
    else steps.push(touching)
  }
  const [learned, whole] = [
    each.flatMap(({ drills }) => drills.filter(({ kind }) => BY_PHRASE.has(kind))),
    first.drills.filter(({ kind }) => !BY_PHRASE.has(kind)),
  ]
  for (const drill of learned) learn(drill)
  return [...steps, ...last, ...whole.map((drill) => ({ drill: withAllOf(drill, each) }))]
}

/** A drill with all layers of what the first one dances, with those that only another one dances too. */
function withAllOf(drill: Drill, each: readonly { readonly layers: readonly Layer[] }[]): Drill {
  const [first, ...others] = each
  if (!first?.layers.every((layer) => drill.layers.includes(layer))) return drill
  const more = others.flatMap(({ layers }) => layers)
  return {
    ...drill,
    layers: LAYERS.filter((one) => drill.layers.includes(one) || more.includes(one)),
  }
}

/** Whether all dance some phrases alike; all of them where none is named. */
function sharedBy(combination: Combination): (phrases: readonly string[]) => boolean {
  const { parts = [], phrases: all } = combination
  const shared = new Set(
    all
      .filter((phrase) => new Set(parts.map((part) => phraseOf(phrase, part, parts))).size === 1)
      .filter(({ between = [] }) => between.length === 0)
      .map(({ id }) => id),
  )
  return (phrases) =>
    (phrases.length > 0 ? phrases : all.map(({ id }) => id)).every((id) => shared.has(id))
}

const meetingsIn = (
  { phrases: all }: Pick<Combination, 'phrases'>,
  phrases: readonly string[],
): readonly Meeting[] =>
  all
    .filter(({ id }) => phrases.length === 0 || phrases.includes(id))
    .flatMap(({ between = [] }) => between.map(({ what }) => what))

/** What is said of who dances a step of a piece, and how. */
export function whoWords(
  { parts = [], phrases, swapRoles }: Combination,
  { part, meets, drill }: TeachStep,
): readonly string[] {
  const name = parts.find(({ id }) => id === part)?.name ?? ''
  const others = parts.filter(({ id }) => id !== part).map((one) => one.name)
  const theOthers = others.join(' and ')
  const many = others.length > 1
  switch (meets) {
    case 'in-turn':
      return [`${name} dances, ${theOthers} ${many ? 'count' : 'counts'} aloud; then change.`]
    case 'apart':
      return ['Together with the hands off: each on her own way, nobody touches.']
    case 'with': {
      const met = meetingsIn({ phrases }, drill.phrases)
      return met.some(isTouching)
        ? ['Now with each other.', ...agreedFirst(met)]
        : ['Now all of them together.']
    }
    default:
      if (!name) return []
      return swapRoles
        ? [`${name}’s part, for both: on the other side you swap.`]
        : [`${name} dances it; ${theOthers} ${many ? 'mark' : 'marks'} it.`]
  }
}

/** Whose a step is, in front of its title. */
export function whoTitle(
  { parts = [] }: Combination,
  { part, meets }: Pick<TeachStep, 'part' | 'meets'>,
): string {
  const name = parts.find(({ id }) => id === part)?.name ?? ''
  switch (meets) {
    case 'in-turn':
      return `${name} in turn · `
    case 'apart':
      return 'Hands off · '
    case 'with':
      return 'Together · '
    default:
      return name ? `${name} · ` : ''
  }
}
