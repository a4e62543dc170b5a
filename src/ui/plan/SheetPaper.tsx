import { LAYERS } from '../../core/body/layers'
import { sideWord } from '../../core/body/side'
import { bothOf } from '../../core/combination/dancing'
import { partOf } from '../../core/combination/partOf'
import type { Pass } from '../../core/combination/passes'
import { ruleWords } from '../../core/combination/rules'
import type { PartId } from '../../core/combination/whose'
import type { Family } from '../../core/moves/move'
import { layerWord, type Vocabulary } from '../../core/moves/vocabulary'
import { dancedPiece } from '../../core/piece/piece'
import type { Material } from '../../core/plan/material'
import type { Pose } from '../../core/pose/joints'
import type { Simulation } from '../../core/simulate/simulate'
import {
  type CountWords,
  pickedWords,
  pickupTitle,
  sayOptions,
  sayPass,
  sayPickup,
} from '../../core/teaching/say'
import { metOnCounts, type SaidPiece, type Say, sayTogether } from '../../core/teaching/sayTogether'
import { FlatFigure } from '../stage/FlatFigure'
import { posesByCount } from '../teach/useKeyPoses'
import classes from './plan.module.css'

const ALL = new Set(LAYERS)

const saidOf: Say = (simulation, pass) => sayPass(simulation, pass, ALL, simulation.vocabulary)

interface SheetPaperProps {
  readonly material: Material
  /** Of several dancers only this one's page. */
  readonly part: PartId | undefined
  readonly vocabulary: Vocabulary
}

/**
 * The count sheet of a combination on paper: each side, count by count, with its key poses. Of several
 * dancers all of them, or one.
 */
export function SheetPaper({ material, part, vocabulary }: SheetPaperProps) {
  const { combination } = material
  const { house } = material.lead
  const piece = combination.parts && dancedPiece(combination, vocabulary, house)
  const name = combination.parts?.find(({ id }) => id === part)?.name
  const dance = part === undefined ? undefined : piece?.of(part)
  const own = part === undefined ? combination : partOf(combination, part)
  return (
    <article className={classes.sheet} aria-hidden>
      {bothOf(own).map((dancing) => {
        const { side } = dancing
        const simulation = dance?.from(dancing) ?? material.from(dancing)
        const isOther = side !== own.lead
        const said = piece && { combination, piece: isOther ? piece.other : piece.lead, isOther }
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
            {simulation.passes.map((pass) => {
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
                            line={{ words, count: words.count }}
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
                    {(said && part === undefined
                      ? linesTogether(said, pass)
                      : linesAlone(simulation, pass, said && metOnCounts(said, pass.index, part))
                    ).map((line) => (
                      <CountLine
                        key={`${line.words.count} ${line.whose}`}
                        line={line}
                        families={combination.families}
                      />
                    ))}
                  </ol>
                  {pass.time === 1 &&
                    !pass.options &&
                    sayOptions(pass, simulation.vocabulary).map(({ name: of, title, lines }) => (
                      <div key={of}>
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

/** A line of the paper. */
interface Line {
  readonly words: CountWords
  /** Shown with the first line of each count. */
  readonly count?: number
  /** Whose it is, where not all dance it. */
  readonly whose?: string
  readonly pose?: Pose | undefined
  /** What dancers do with each other from this count on. */
  readonly met?: readonly string[] | undefined
}

function linesAlone(
  simulation: Simulation,
  pass: Pass,
  met: ReadonlyMap<number, readonly string[]> | undefined,
): readonly Line[] {
  const poses = posesByCount(simulation, pass, ALL)
  return saidOf(simulation, pass).map((words) => ({
    words,
    count: words.count,
    pose: poses.get(words.count),
    met: met?.get(words.count),
  }))
}

/** What all dance once, and what differs by name; each with the pose of the first who does it. */
function linesTogether(said: SaidPiece, { index }: Pass): readonly Line[] {
  const poses = new Map(
    said.piece.placed.flatMap(({ part, simulation }) => {
      const own = simulation.passes[index]
      return own ? [[part.id, posesByCount(simulation, own, ALL)]] : []
    }),
  )
  return sayTogether(said, index, saidOf).flatMap(({ count, each, meetings }) =>
    each.map((words, i) => ({
      words,
      ...(i === 0 && { count }),
      whose: words.whose,
      pose: poses.get(words.parts[0] ?? '')?.get(count),
      ...(i === each.length - 1 && { met: meetings }),
    })),
  )
}

/** One count: its pose, what is danced and called, what stands beside it, and the weight after it. */
function CountLine({
  line: {
    words: { count, feet, layers, weight, cues, asides },
    count: shown,
    whose,
    pose,
    met = [],
  },
  families,
}: {
  readonly line: Line
  readonly families: readonly Family[]
}) {
  return (
    <li>
      <b className="display counts">{shown}</b>
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
