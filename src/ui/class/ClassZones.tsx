import type { UnderWay } from '../../core/class/underWay'
import { type Drill, isCounted, speedText } from '../../core/plan/drill'
import classes from './class.module.css'
import { type Asked, capFor } from './classKeys'

interface ClassZonesProps {
  readonly phase: UnderWay['phase']
  readonly drill: Drill
  /** Whether there is a run to go on to. */
  readonly hasRuns: boolean
  /** What the next drill is called. */
  readonly after: string | undefined
  readonly onPress: (asked: Asked) => void
}

/** Zones large enough for a hand that does not look, each with its key. */
export function ClassZones({ phase, drill, hasRuns, after, onPress }: ClassZonesProps) {
  const isDancing = phase === 'dancing'
  const isSaid = !isCounted(drill)
  const begun = isSaid ? (drill.kind === 'walk' ? 'Next count' : 'On') : 'Pause'
  const zone = (asked: Asked, label: string, more = '') => (
    <button type="button" className={classes.zone} data-zone={asked} onClick={() => onPress(asked)}>
      <b>{label}</b>
      {more && <span>{more}</span>}
      <kbd>{capFor(asked)}</kbd>
    </button>
  )
  return (
    <nav className={classes.zones} aria-label="Class">
      {!isSaid && (
        <>
          {zone('again', 'Again')}
          {zone('slower', 'Slower')}
          <p className={`display counts ${classes.tempo}`} data-tempo>
            {speedText(drill)}
          </p>
          {zone('faster', 'Faster')}
          {zone('other-side', 'Other side')}
        </>
      )}
      {drill.kind !== 'pause' && zone('water', 'Water now')}
      {hasRuns && zone('to-runs', 'To the runs')}
      {zone('go', isDancing ? begun : phase === 'paused' ? 'Go on' : 'Begin')}
      {zone('skip', 'Next drill', after)}
    </nav>
  )
}
