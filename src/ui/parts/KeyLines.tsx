import classes from './keyLines.module.css'
import type { KeyLine } from './keys'

/** The lines of a help. */
export function KeyLines({
  lines,
  columns = 1,
}: {
  readonly lines: readonly KeyLine[]
  readonly columns?: number
}) {
  return (
    <dl className={classes.keys} data-columns={columns}>
      {lines.map(({ keys, does }) => (
        <div key={does}>
          <dt>
            <kbd>{keys || 'Ctrl K, then'}</kbd>
          </dt>
          <dd>{does}</dd>
        </div>
      ))}
    </dl>
  )
}
