import { LAYERS } from '../../core/body/layers'
import { sideWord } from '../../core/body/side'
import { bothOf } from '../../core/combination/dancing'
import { ruleWords } from '../../core/combination/rules'
import type { PartId } from '../../core/combination/whose'
import type { Family } from '../../core/moves/move'
import { layerWord } from '../../core/moves/vocabulary'
import type { Material } from '../../core/plan/material'
import type { Pose } from '../../core/pose/joints'
import { pickedWords, pickupTitle, sayPass, sayPickup } from '../../core/teaching/say'
import { factsOf } from '../../core/teaching/sayProps'
import {
  type CountTogether,
  metOnCounts,
  type Say,
  sayOptionsWhoever,
  sayWhoever,
  type WhoseWords,
} from '../../core/teaching/sayTogether'
import { FlatFigure } from '../stage/FlatFigure'
import { type KeyPoses, keyPoses } from '../teach/useKeyPoses'
import classes from './plan.module.css'

const ALL = new Set(LAYERS)

const saidOf: Say = (simulation, pass) => sayPass(simulation, pass, ALL, simulation.vocabulary)
const pickupOf: Say = (simulation, pass) => sayPickup(simulation, pass, ALL, simulation.vocabulary)

interface SheetPaperProps {
  readonly material: Material
  /** Of several dancers only this one's page. */
  readonly part: PartId | undefined
}

/**
 * The count sheet of a combination on paper: each side, count by count, with its key poses. Of several
 * dancers all of them, or one.
 */
export function SheetPaper({ material, part }: SheetPaperProps) {
  const { combination } = material
  const name = combination.parts?.find(({ id }) => id === part)?.name
  const facts = factsOf(combination, part)
  return (
    <article className={classes.sheet} aria-hidden>
      {bothOf(combination, part).map((dancing) => {
        const { side } = dancing
        const simulation = material.from(dancing)
        const company = material.company?.(dancing)
        /** All of them, or her alone. */
        const told = part === undefined ? company : undefined
        return (
          <section key={side}>
            <h1 className="display">
              {combination.title}{' '}
              <span>
                {name && `${name} · `}
                {sideWord[side]} side · {combination.tempo} counts a minute
                {combination.rules && ` · ${combination.rules.map(ruleWords).join(', ')}`}
              </span>
            </h1>
            {facts.map((line) => (
              <p key={line}>{line}</p>
            ))}
            {simulation.passes.map((pass) => {
              const pickup = sayWhoever(told, simulation, pass, pickupOf)
              const poses = keyPoses(told, simulation, pass, ALL)
              const met =
                company && part !== undefined ? metOnCounts(company, pass.index, part) : undefined
              return (
                <section key={pass.index}>
                  {pickup.length > 0 && (
                    <>
                      <h3>{pickupTitle(simulation, pass)}</h3>
                      <Lines rows={pickup} families={combination.families} />
                    </>
                  )}
                  <h2>
                    {pass.phrase.name} {pass.phrase.title && `· ${pass.phrase.title}`}
                    {pass.options && `, ${pickedWords(pass)}`}
                    {pass.times > 1 && ` (${pass.time} of ${pass.times})`}
                  </h2>
                  <Lines
                    rows={sayWhoever(told, simulation, pass, saidOf)}
                    poses={poses}
                    met={met}
                    families={combination.families}
                  />
                  {pass.time === 1 &&
                    !pass.options &&
                    sayOptionsWhoever(told, simulation, pass).flatMap(({ whose, options }) =>
                      options.map(({ name: of, title, lines }) => (
                        <div key={`${whose} ${of}`}>
                          <h3>{whose ? `${whose}: ${title}` : title}</h3>
                          <ul>
                            {lines.map(({ when, text }) => (
                              <li key={`${when} ${text}`}>
                                <b className="counts">{when}</b> {text}
                              </li>
                            ))}
                          </ul>
                        </div>
                      )),
                    )}
                </section>
              )
            })}
          </section>
        )
      })}
    </article>
  )
}

/** Counts one below the other: what all do first, then who does something else. */
function Lines({
  rows,
  poses,
  met,
  families,
}: {
  readonly rows: readonly CountTogether[]
  readonly poses?: KeyPoses
  /** What one dancer does with the others, where it is her own page. */
  readonly met?: ReadonlyMap<number, readonly string[]> | undefined
  readonly families: readonly Family[]
}) {
  return (
    <ol>
      {rows.flatMap(({ count, each, meetings }) =>
        each.map((words, i) => (
          <CountLine
            key={`${count} ${words.whose}`}
            words={words}
            isFirst={i === 0}
            pose={poses?.get(words.parts[0] ?? '')?.get(count)}
            met={i === each.length - 1 ? (met?.get(count) ?? meetings) : []}
            families={families}
          />
        )),
      )}
    </ol>
  )
}

/** One count: its pose, what is danced and called, what stands beside it, and the weight after it. */
function CountLine({
  words: { count, feet, layers, weight, cues, asides, whose },
  isFirst,
  pose,
  met,
  families,
}: {
  readonly words: WhoseWords
  /** The number stands with the first line of a count. */
  readonly isFirst: boolean
  readonly pose: Pose | undefined
  readonly met: readonly string[]
  readonly families: readonly Family[]
}) {
  return (
    <li>
      <b className="display counts">{isFirst && count}</b>
      <div>
        {pose && (
          <FlatFigure pose={pose} view="behind" label={`Pose on ${count}`} families={families} />
        )}
      </div>
      <p>
        {whose && <b>{whose}: </b>}
        {feet.length > 0 && <span>{feet.join('. ')}. </span>}
        {layers.map(({ layer, text }) => (
          <span key={layer + text}>
            <b>{layerWord[layer]}</b> {text}.{' '}
          </span>
        ))}
        {cues.map((cue) => (
          <em key={cue}>“{cue}” </em>
        ))}
        {asides.length > 0 && <small>({asides.join('; ')}) </small>}
        {met.map((words) => (
          <span key={words}>
            <b>together</b> {words}.{' '}
          </span>
        ))}
      </p>
      <i>{weight}</i>
    </li>
  )
}
