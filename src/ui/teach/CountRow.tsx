import type { Layer } from '../../core/body/layers'
import type { Family } from '../../core/moves/move'
import { layerWord } from '../../core/moves/vocabulary'
import type { KeyPoses } from '../../core/pose/countPoses'
import type { Pose } from '../../core/pose/joints'
import type { Companion } from '../../core/simulate/company'
import type { CountTogether, WhoseWords } from '../../core/teaching/sayTogether'
import { PartBadge } from '../parts/PartBadge'
import { FlatFigure } from '../stage/FlatFigure'
import classes from './teach.module.css'

/** One count: its pose, what is danced on it, what is called, and where the weight is. */
export function CountRow({
  row: { count, each, meetings },
  dancers,
  layers,
  poses,
  families,
  isLit,
}: {
  readonly row: CountTogether
  readonly dancers: readonly Companion[]
  readonly layers: ReadonlySet<Layer>
  readonly poses: KeyPoses
  readonly families: readonly Family[]
  readonly isLit: boolean
}) {
  return (
    <li data-row={count} data-lit={isLit} className={classes.row}>
      <b className={`display counts ${classes.count}`}>{count}</b>
      {each.map((one, i) => (
        <WhoseRow
          key={one.whose}
          row={one}
          dancers={dancers}
          layers={layers}
          pose={poses.get(one.parts[0] ?? '')?.get(count)}
          families={families}
          meetings={i === each.length - 1 ? meetings : []}
        />
      ))}
    </li>
  )
}

/** What one of them does on a count, or all. */
function WhoseRow({
  row: { count, feet, layers: others, weight, cues, whose, parts },
  dancers,
  layers,
  pose,
  families,
  meetings,
}: {
  readonly row: WhoseWords
  readonly dancers: readonly Companion[]
  readonly layers: ReadonlySet<Layer>
  readonly pose: Pose | undefined
  readonly families: readonly Family[]
  readonly meetings: readonly string[]
}) {
  return (
    <>
      <div className={classes.pose}>
        {pose && (
          <FlatFigure
            pose={pose}
            // Seen as the class sees its own.
            view="behind"
            label={`Pose${whose && ` of ${whose}`} on ${count}, from behind`}
            families={families}
          />
        )}
      </div>
      <div>
        {whose && (
          <p className={classes.whose}>
            {dancers.map(
              ({ part, name }, i) =>
                parts.includes(part) && <PartBadge key={part} index={i} name={name} />,
            )}
          </p>
        )}
        {feet.length > 0 && <p className="layer-feet">{feet.join('. ')}.</p>}
        {others.map(({ layer, text }) => (
          <p key={layer + text} className={`layer-${layer}`}>
            <b>{layerWord[layer]}</b> {text}
          </p>
        ))}
        {feet.length === 0 && others.length === 0 && !whose && (
          <p className={classes.goOn}>
            {layers.has('feet') ? 'Hold; the count still passes.' : 'Go on.'}
          </p>
        )}
        {meetings.map((words) => (
          <p key={words}>
            <b>together</b> {words}
          </p>
        ))}
      </div>
      <div className={classes.weight}>
        {cues.map((cue) => (
          <em key={cue}>“{cue}”</em>
        ))}
        {layers.has('feet') && <span>weight: {weight}</span>}
      </div>
    </>
  )
}
