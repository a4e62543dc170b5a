import type { Material, Materials } from './material'
import { least } from './outline'
import { firstPasses, layersOf, type Planning, type Unit, unitOf } from './units'

/** What is danced together at the end of a class that came so far: all from the top, or as much of it as is no longer than half the class. */
export function closingOf(
  material: Material,
  units: readonly Unit[],
  teaching: Planning,
  room: number,
  materials: Materials,
): Unit | undefined {
  const { lead, combination } = material
  const own = units.filter((unit) => unit.combination === combination.id)
  if (own.length === 0) return undefined
  const firsts = firstPasses(lead.passes)
  const touched = firsts.filter(({ phrase }) =>
    own.some(({ phrases }) => phrases.length === 0 || phrases.includes(phrase.id)),
  )
  const last = touched.at(-1)
  if (!last) return undefined
  const isFull = last === firsts.at(-1)
  const passes = isFull ? lead.passes : lead.passes.slice(0, last.index + 1)
  // A layer is danced to the end where every phrase that has it was taught it.
  const layers = layersOf(passes).filter((layer) =>
    firsts
      .filter(({ index }) => index <= last.index)
      .every(
        (pass) =>
          !pass.events.some((event) => event.layer === layer) ||
          teaching.isTaught(pass.phrase.id, layer) ||
          own.some(
            (unit) =>
              unit.layers.includes(layer) &&
              // Danced alone it is not yet on the feet.
              (unit.kind !== 'alone' || !layersOf([pass]).includes('feet')) &&
              (unit.phrases.length === 0 || unit.phrases.includes(pass.phrase.id)),
          ),
      ),
  )
  for (let from = 0; from < passes.length; from++) {
    const unit = unitOf(material, teaching, {
      kind: 'sides',
      passes: passes.slice(from),
      layers: layers.length > 0 ? layers : layersOf(passes).slice(0, 1),
    })
    if (least(unit, materials) <= room || from === passes.length - 1) return unit
  }
  return undefined
}
