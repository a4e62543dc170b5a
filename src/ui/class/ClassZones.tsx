import type { UnderWay } from '../../core/class/underWay'
import classes from './class.module.css'
import { type Asked, capFor } from './classKeys'

interface ClassZonesProps {
  readonly phase: UnderWay['phase']
  readonly tempo: number
  /** What the next drill is called. */
  readonly after: string | undefined
  readonly onPress: (asked: Asked) => void
}

/** Zones large enough for a hand that does not look, each with its key. */
export function ClassZones({ phase, tempo, after, onPress }: ClassZonesProps) {
  const isDancing = phase === 'dancing'
  const zone = (asked: Asked, label: string, more = '') => (
    <button type="button" className={classes.zone} data-zone={asked} onClick={() => onPress(asked)}>
      <b>{label}</b>
      {more && <span>{more}</span>}
      <kbd>{capFor(asked)}</kbd>
    </button>
  )
  return (
    <nav className={classes.zones} aria-label="Class">
      {zone('again', 'Again')}
      {zone('slower', 'Slower')}
      <p className={`display counts ${classes.tempo}`}>{tempo}</p>
      {zone('faster', 'Faster')}
      {zone('other-side', 'Other side')}
      {zone('go', isDancing ? 'Pause' : phase === 'paused' ? 'Go on' : 'Begin')}
      {zone('skip', 'Next drill', after)}
    </nav>
  )
}
