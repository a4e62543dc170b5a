import { otherSide, sideWord } from '../../core/body/side'
import { LAYERS } from '../../core/moves/move'
import { layerWord } from '../../core/moves/vocabulary'
import type { Material } from '../../core/plan/material'
import { sayPass } from '../../core/teaching/say'
import { FlatFigure } from '../stage/FlatFigure'
import { posesByCount } from '../teach/useKeyPoses'
import classes from './plan.module.css'

const ALL = new Set(LAYERS)

/** The count sheet of a combination on paper: each side, count by count, with its key poses. */
export function SheetPaper({ material }: { readonly material: Material }) {
  const { combination } = material
  return (
    <article className={classes.sheet} aria-hidden>
      {[combination.lead, otherSide[combination.lead]].map((side) => {
        const simulation = material.from(side)
        return (
          <section key={side}>
            <h1 className="display">
              {combination.title}{' '}
              <span>
                {sideWord[side]} side · {combination.tempo} counts a minute
              </span>
            </h1>
            {simulation.passes.map((pass) => {
              const poses = posesByCount(simulation, pass, ALL)
              return (
                <section key={pass.index}>
                  <h2>
                    {pass.phrase.name} {pass.phrase.title && `· ${pass.phrase.title}`}
                    {pass.times > 1 && ` (${pass.time} of ${pass.times})`}
                  </h2>
                  <ol>
                    {sayPass(simulation, pass, ALL, simulation.vocabulary).map(
                      ({ count, feet, layers, weight, cues }) => {
                        const pose = poses.get(count)
                        return (
                          <li key={count}>
                            <b className="display counts">{count}</b>
                            <div>
                              {pose && (
                                <FlatFigure pose={pose} view="behind" label={`Pose on ${count}`} />
                              )}
                            </div>
                            <p>
                              {feet.length > 0 && <span>{feet.join('. ')}. </span>}
                              {layers.map(({ layer, text }) => (
                                <span key={layer + text}>
                                  <b>{layerWord[layer]}</b> {text}.{' '}
                                </span>
                              ))}
                              {cues.map((cue) => (
                                <em key={cue}>“{cue}” </em>
                              ))}
                            </p>
                            <i>{weight}</i>
                          </li>
                        )
                      },
                    )}
                  </ol>
                </section>
              )
            })}
          </section>
        )
      })}
    </article>
  )
}
