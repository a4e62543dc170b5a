import type { Between, Hand, Meeting } from '../src/core/combination/between'
import {
  ActId,
  Drape,
  FEATURES_OF,
  type Prop,
  PropAct,
  PropKind,
  USUAL_PROP,
} from '../src/core/combination/carried'
import type { Combination, Phrase } from '../src/core/combination/combination'
import { SOLO, type Who } from '../src/core/combination/whose'
import { tick } from '../src/core/time/time'

/** What is drawn by lot for one thing that is done. */
export type ActPicks = readonly [number, number, number, number]

/** A combination in which something is carried and done with, by lot. */
export function withProps(
  combination: Combination,
  { things, acts }: { readonly things: readonly number[]; readonly acts: readonly ActPicks[] },
): Combination {
  if (things.length === 0) return combination
  const ids = combination.parts?.map(({ id }) => id) ?? []
  const carried = things.map((pick, i): Prop => {
    const kind = PropKind.options[pick % PropKind.options.length] ?? 'veil'
    const { size, start } = USUAL_PROP[kind]
    const [first] = FEATURES_OF[kind]
    const part = ids[pick % (ids.length + 2)]
    return {
      id: i === 0 ? kind : `${kind}-${i + 1}`,
      kind,
      name: ['Silk', 'Reed', 'Dusk "1"'][i % 3] ?? '',
      size: { long: size.long, deep: pick % 4 === 0 ? 0.7 : size.deep },
      start: {
        ...start,
        ...(pick % 3 === 0 && first && { hands: { L: { at: [first], grip: 'hook' as const } } }),
        ...(pick % 7 === 0 && { hands: {} }),
        drape: Drape.options[pick % Drape.options.length] ?? 'none',
        open: pick % 5 !== 0,
        wound: pick % 6 === 0 ? 1 : 0,
        ready: pick % 2 === 0 ? ['hair-in'] : [],
      },
      ...(part !== undefined && { part }),
      ...(pick % 9 === 0 && { keepHand: true as const }),
    }
  })
  return {
    ...combination,
    carried,
    phrases: combination.phrases.map((phrase, i): Phrase => {
      const props = acts
        .filter((_, k) => k % combination.phrases.length === i)
        .map((picks, k) => actBy(picks, phrase, { carried, ids, id: `${phrase.id}a${k}` }))
      const [a, b] = ids
      const passed = props.filter((_, k) => acts[k] && acts[k][3] % 5 === 0)
      const between = passed.flatMap(({ at, length, prop }, k): readonly Between[] => {
        if (a === undefined || b === undefined) return []
        const hands = [
          { part: a, side: 'R' as const },
          { part: b, side: 'L' as const },
        ] as const
        const [from, to] = k % 2 === 0 ? hands : hands.toReversed()
        const what: Meeting = { kind: 'pass', prop, from: from as Hand, to: to as Hand }
        return [{ id: `${phrase.id}b${k}`, at, length, what }]
      })
      const made = props.length > 0 ? { ...phrase, props } : phrase
      return between.length > 0
        ? { ...made, between: [...(phrase.between ?? []), ...between] }
        : made
    }),
  }
}

interface Around {
  readonly carried: readonly Prop[]
  readonly ids: readonly string[]
  readonly id: string
}

function actBy([what, when, how, more]: ActPicks, { counts }: Phrase, around: Around): PropAct {
  const { carried, ids, id } = around
  const prop = carried[more % carried.length] as Prop
  const at = (when * 6) % (counts * 12)
  const act = ActId.options[what % ActId.options.length] ?? 'carry'
  const features = FEATURES_OF[prop.kind]
  const named: Who = more % 4 === 0 ? [SOLO] : [ids[more % ids.length] ?? '']
  const who = ids.length > 0 && more % 3 === 0 ? { who: named } : {}
  return PropAct.parse({
    id,
    at: tick(at),
    length: tick(Math.min(1 + ((how * 6) % 36), counts * 12 - at)),
    prop: prop.id,
    act,
    ...(how % 3 > 0 && { hand: how % 3 === 1 ? 'R' : 'L' }),
    ...(act === 'ready' && { ready: how % 2 === 0 ? 'hair-in' : 'elbow-in' }),
    ...(how % 5 === 0 && { to: features[how % features.length] }),
    ...(how % 5 === 1 && { to: Drape.options[how % Drape.options.length] }),
    ...who,
    ...(more % 11 === 0 && { kept: true }),
    ...(more % 7 === 0 && { cue: 'now', note: 'the R corner' }),
    ...(more % 8 === 0 && { optional: true }),
  })
}
