import type { UnderWay } from '../../core/class/underWay'
import classes from './class.module.css'
import type { ScreenKey } from './classKeys'

interface ClassZonesProps {
  readonly phase: UnderWay['phase']
  readonly tempo: number
  /** What the next drill is called. */
  readonly after: string | undefined
  readonly onPress: (key: ScreenKey) => void
}

/** Zones large enough for a hand that does not look, each with its key. */
export function ClassZones({ phase, tempo, after, onPress }: ClassZonesProps) {
  const isDancing = phase === 'dancing'
  const zone = (key: ScreenKey, label: string, hint: string, more = '') => (
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
