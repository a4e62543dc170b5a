import { LAYERS } from '../../core/body/layers'
import { sideWord } from '../../core/body/side'
import { bothOf } from '../../core/combination/dancing'
import { ruleWords } from '../../core/combination/rules'
import type { Family } from '../../core/moves/move'
import { layerWord } from '../../core/moves/vocabulary'
import type { Material } from '../../core/plan/material'
import type { Pose } from '../../core/pose/joints'
import {
  type CountWords,
  pickedWords,
  pickupTitle,
  sayOptions,
  sayPass,
  sayPickup,
} from '../../core/teaching/say'
import { FlatFigure } from '../stage/FlatFigure'
import { posesByCount } from '../teach/useKeyPoses'
import classes from './plan.module.css'

const ALL = new Set(LAYERS)

/** The count sheet of a combination on paper: each side, count by count, with its key poses. */
export function SheetPaper({ material }: { readonly material: Material }) {
  const { combination } = material
  return (
    <article className={classes.sheet} aria-hidden>
      {bothOf(combination).map((dancing) => {
        const { side } = dancing
        const simulation = material.from(dancing)
        return (
          <section key={side}>
            <h1 className="display">
              {combination.title}{' '}
              <span>
                {sideWord[side]} side · {combination.tempo} counts a minute
                {combination.rules && ` · ${combination.rules.map(ruleWords).join(', ')}`}
              </span>
            </h1>
            {simulation.passes.map((pass) => {
              const poses = posesByCount(simulation, pass, ALL)
              const pickup = sayPickup(simulation, pass, ALL, simulation.vocabulary)
              return (
                <section key={pass.index}>
                  {pickup.length > 0 && (
                    <>
                      <h3>{pickupTitle(simulation, pass)}</h3>
                      <ol>
                        {pickup.map((words) => (
                          <CountLine
                            key={words.count}
                            words={words}
                            pose={undefined}
                            families={combination.families}
                          />
                        ))}
                      </ol>
                    </>
                  )}
                  <h2>
                    {pass.phrase.name} {pass.phrase.title && `· ${pass.phrase.title}`}
                    {pass.options && `, ${pickedWords(pass)}`}
                    {pass.times > 1 && ` (${pass.time} of ${pass.times})`}
                  </h2>
                  <ol>
                    {sayPass(simulation, pass, ALL, simulation.vocabulary).map((words) => (
                      <CountLine
                        key={words.count}
                        words={words}
                        pose={poses.get(words.count)}
                        families={combination.families}
                      />
                    ))}
                  </ol>
                  {pass.time === 1 &&
                    !pass.options &&
                    sayOptions(pass, simulation.vocabulary).map(({ name, title, lines }) => (
                      <div key={name}>
                        <h3>{title}</h3>
                        <ul>
                          {lines.map(({ when, text }) => (
                            <li key={`${when} ${text}`}>
                              <b className="counts">{when}</b> {text}
                            </li>
                          ))}
                        </ul>
                      </div>
                    ))}
                </section>
              )
            })}
          </section>
        )
      })}
    </article>
  )
}

/** One count: its pose, what is danced and called, what stands beside it, and the weight after it. */
function CountLine({
  words: { count, feet, layers, weight, cues, asides },
  pose,
  families,
}: {
  readonly words: CountWords
  readonly pose: Pose | undefined
  readonly families: readonly Family[]
}) {
  return (
    <li>
      <b className="display counts">{count}</b>
      <div>
        {pose && (
          <FlatFigure pose={pose} view="behind" label={`Pose on ${count}`} families={families} />
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
        {asides.length > 0 && <small>({asides.join('; ')})</small>}
      </p>
      <i>{weight}</i>
    </li>
  )
}
