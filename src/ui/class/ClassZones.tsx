import type { FloorSession } from '../../core/class/underWay'
import classes from './class.module.css'
import type { FloorKey } from './classKeys'

interface FloorZonesProps {
  readonly phase: FloorSession['phase']
  readonly tempo: number
  /** What the next drill is called. */
  readonly after: string | undefined
  readonly onPress: (key: FloorKey) => void
}

/** Zones large enough for a hand that does not look, each with its key. */
export function FloorZones({ phase, tempo, after, onPress }: FloorZonesProps) {
  const isDancing = phase === 'dancing'
  const zone = (key: FloorKey, label: string, hint: string, more = '') => (
    <button type="button" className={classes.zone} data-zone={key} onClick={() => onPress(key)}>
      <b>{label}</b>
      {more && <span>{more}</span>}
      <kbd>{hint}</kbd>
    </button>
  )
  return (
    <nav className={classes.zones} aria-label="Class">
      {zone('again', 'Again', 'Page up')}
      {zone('slower', 'Slower', '↓')}
      <p className={`display counts ${classes.tempo}`}>{tempo}</p>
      {zone('faster', 'Faster', '↑')}
      {zone('other-side', 'Other side', 'S')}
      {zone('go', isDancing ? 'Pause' : phase === 'paused' ? 'Go on' : 'Begin', 'Space')}
      {zone('skip', 'Next drill', 'End', after)}
    </nav>
  )
}
