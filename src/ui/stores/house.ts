import { dequal } from 'dequal'
import { createStore } from 'zustand/vanilla'
import { type House, type HouseRules, houseOf, USUAL_RULES } from '../../core/house/house'
import type { HouseStore } from '../../storage/house'
import { tell } from './trouble'

/** The house rules as this studio has them, and with every figure filled in. */
interface KnownHouse {
  readonly rules: HouseRules
  readonly house: House
}

const of = (rules: HouseRules): KnownHouse => ({ rules, house: houseOf(rules) })

export const houseNow = createStore<KnownHouse>(() => of(USUAL_RULES))

/** As they were last read or stored. */
let stored = USUAL_RULES
/** How many changes are under way: what is read meanwhile is older than what is shown. */
let writing = 0

function takeOn(rules: HouseRules): void {
  stored = rules
  if (!dequal(houseNow.getState().rules, rules)) houseNow.setState(of(rules))
}

/** Keeps the house in step with what is stored, here and in other windows. */
export async function followHouse(store: HouseStore): Promise<() => void> {
  const read = async () => {
    const { rules, problem } = await store.get()
    tell('house', problem)
    if (writing === 0) takeOn(rules)
  }
  await read()
  return store.watch(() => void read())
}

/** Shown at once, and stored behind, with all that could not be stored before. */
export function changeHouse(store: HouseStore, change: (rules: HouseRules) => HouseRules): void {
  const before = stored
  const after = change(houseNow.getState().rules)
  houseNow.setState(of(after))
  writing++
  store.change(before, after).then(
    (rules) => {
      writing--
      stored = rules
      if (writing === 0) takeOn(rules)
    },
    // What went wrong has been told; the rules stay as they are here until they can be stored.
    () => {
      writing--
    },
  )
}
