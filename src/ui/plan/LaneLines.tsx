import type { Lanes } from '../../core/plan/lanes'

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
