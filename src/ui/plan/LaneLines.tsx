import type { Drill } from '../../core/plan/drill'
import type { Lanes } from '../../core/plan/lanes'
import { type Materials, roundOf } from '../../core/plan/material'

/** The lanes of a step: of the phrase that is danced whole in it. */
export function lanesFor(
  drill: Drill,
  lanes: ReadonlyMap<string, Lanes>,
  materials: Materials,
): Lanes | undefined {
  if (drill.kind !== 'all') return undefined
  const [pass] = roundOf(drill, materials)?.passes ?? []
  return pass && lanes.get(`${drill.combination}|${pass.phrase.id}`)
}

/** Beside what is written: plain, and more. */
export function LaneLines({ lanes }: { readonly lanes: Lanes }) {
  return (
    <>
      {lanes.plain.length > 0 && (
        <span>
          <b>Plain</b> {lanes.plain.join('; ')}{' '}
        </span>
      )}
      {lanes.more.length > 0 && (
        <span>
          <b>More</b> {lanes.more.join('; ')}
        </span>
      )}
    </>
  )
}
