import { Modal } from '@mantine/core'
import { scaleLinear } from 'd3-scale'
import { area, curveStepAfter, line } from 'd3-shape'
import type { Combination } from '../../core/combination/combination'
import { Risk } from '../../core/moves/move'
import { minutesText, RISK_WORDS } from '../../core/plan/totals'
import type { Laid } from '../../core/routine/laid'
import type { Routine } from '../../core/routine/routine'
import { type SongSums, songSums } from '../../core/routine/sums'
import { LOST } from '../../core/routine/words'
import type { Danced } from '../../core/simulate/danced'
import type { Song } from '../../core/song/song'
import classes from './routine.module.css'

const WIDTH = 860
const HEIGHT = 120
const [TOP, BOTTOM] = [6, 20]
const MOST_ENERGY = 5
/** Labels of sections that are no longer than this have room for their letters, about. */
const LETTER = 7

export interface SumsModalProps {
  readonly routine: Routine
  readonly song: Song
  readonly laid: Laid
  readonly dance: Danced
  readonly combinations: readonly Combination[]
  readonly opened: boolean
  readonly onClose: () => void
}

/** What a routine comes to: by section, by combination, how hard it is where the song is loud, and what is danced often. */
export function SumsModal({
  routine,
  song,
  laid,
  dance,
  combinations,
  opened,
  onClose,
}: SumsModalProps) {
  const sums = songSums(routine, song, laid, dance)
  const strained = Risk.options.filter((risk) => sums.risks[risk] > 0)
  return (
    <Modal opened={opened} onClose={onClose} title="Totals" size={920} centered>
      <LoadChart sums={sums} />
      <div className={classes.sumsTables}>
        <table>
          <caption>By section</caption>
          <thead>
            <tr>
              <th scope="col">Section</th>
              <th scope="col">Minutes</th>
              <th scope="col">Danced</th>
              <th scope="col">At rest</th>
              <th scope="col">Left</th>
              <th scope="col">R</th>
              <th scope="col">L</th>
              <th scope="col">Load</th>
            </tr>
          </thead>
          <tbody>
            {sums.sections.map(({ section, seconds, danced, rest, left, sides, load }) => (
              <tr key={section.id}>
                <th scope="row">{section.label}</th>
                <td>{minutesText(seconds)}</td>
                <td>{danced}</td>
                <td>{rest}</td>
                <td>{left}</td>
                <td>{sides.R}</td>
                <td>{sides.L}</td>
                <td>{danced > 0 ? load.toFixed(1) : ''}</td>
              </tr>
            ))}
          </tbody>
        </table>
        <table>
          <caption>By combination</caption>
          <thead>
            <tr>
              <th scope="col">Combination</th>
              <th scope="col">Times</th>
              <th scope="col">Counts</th>
              <th scope="col">R</th>
              <th scope="col">L</th>
            </tr>
          </thead>
          <tbody>
            {sums.combinations.map(({ id, pieces, counts, sides }) => (
              <tr key={id}>
                <th scope="row">{combinations.find((one) => one.id === id)?.title ?? LOST}</th>
                <td>{pieces}</td>
                <td>{counts}</td>
                <td>{sides.R}</td>
                <td>{sides.L}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {strained.length > 0 && (
        <p>
          Once through:{' '}
          {strained.map((risk) => `${sums.risks[risk]} ${RISK_WORDS[risk]}`).join(', ')}. Warm up
          first, and take the easier form when you dance it many times.
        </p>
      )}
    </Modal>
  )
}

/** The load of each count, and over it how loud each section is. */
function LoadChart({ sums: { loads, sections } }: { readonly sums: SongSums }) {
  const from = loads[0]?.at ?? 0
  const to = (loads.at(-1)?.at ?? 0) + 1
  const most = Math.max(1, ...loads.map(({ load }) => load))
  const x = scaleLinear([from, to], [0, WIDTH])
  const y = scaleLinear([0, most], [HEIGHT - BOTTOM, TOP])
  const loud = scaleLinear([0, MOST_ENERGY], [HEIGHT - BOTTOM, TOP])
  const at = [...loads, { at: to, load: loads.at(-1)?.load ?? 0 }]
  const shape = area<(typeof at)[number]>()
    .x((one) => x(one.at))
    .y0(y(0))
    .y1(({ load }) => y(load))
    .curve(curveStepAfter)
  const steps = [
    ...sections.map(({ section }) => ({ at: Math.max(from, section.at), energy: section.energy })),
    { at: to, energy: sections.at(-1)?.section.energy ?? 0 },
  ]
  const energy = line<(typeof steps)[number]>()
    .x((one) => x(one.at))
    .y((one) => loud(one.energy))
    .curve(curveStepAfter)
  const said = sections
    .map(
      ({ section, load }) => `${section.label}: load ${load.toFixed(1)}, energy ${section.energy}`,
    )
    .join('; ')
  return (
    <figure className={classes.loadChart}>
      <figcaption>
        <span className={classes.loadKey}>Load of each count</span>
        <span className={classes.energyKey}>How loud the song is</span>
      </figcaption>
      <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} role="img" aria-label={said}>
        <path className={classes.load} d={shape(at) ?? ''} />
        {sections.map(({ section, counts }) => (
          <g key={section.id}>
            <line
              className={classes.border}
              x1={x(Math.max(from, section.at))}
              x2={x(Math.max(from, section.at))}
              y1={TOP}
              y2={HEIGHT}
            />
            {section.label.length * LETTER < x(from + counts) && (
              <text x={x(Math.max(from, section.at)) + 4} y={HEIGHT - 5}>
                {section.label}
              </text>
            )}
          </g>
        ))}
        <path className={classes.energy} d={energy(steps) ?? ''} />
      </svg>
    </figure>
  )
}
