import { NativeSelect } from '@mantine/core'
import { useCallback, useMemo, useRef, useState } from 'react'
import { useStore } from 'zustand'
import { LAYERS, type Layer } from '../../core/body/layers'
import { sideWord } from '../../core/body/side'
import { type Combination, usesLayer } from '../../core/combination/combination'
import type { Dancing } from '../../core/combination/dancing'
import { layerWord } from '../../core/moves/vocabulary'
import type { DanceMoment } from '../../core/performance/performance'
import { type Dancers, dancersOf } from '../../core/pose/dancers'
import { VIEWS, type View, viewFacts } from '../../core/pose/views'
import type { Simulation } from '../../core/simulate/simulate'
import { simulationFrom } from '../stores/checked'
import { dancerNow } from '../stores/dancer'
import type { PlayDeck } from '../stores/deck'
import { scrubbed } from '../stores/scrub'
import { DancerPicture } from './DancerPicture'
import { coloursOf } from './openStage'
import { pictureWords } from './pictureWords'
import { SaveMenu } from './SaveMenu'
import { SeeingPicks } from './SeeingPicks'
import classes from './stage.module.css'
import { stageChoice } from './stageChoice'
import type { SongToFilm } from './VideoForm'

interface DanceStageProps {
  readonly combination: Combination
  /** How it is danced, where it is not by its own tempo. */
  readonly from?: (dancing: Dancing) => Simulation
  readonly dancing: Dancing
  /** Shown while nothing plays: ticks from the start of the combination. */
  readonly at: number
  readonly layers: ReadonlySet<Layer>
  readonly only: Layer | undefined
  readonly onOnly: (layer: Layer | undefined) => void
  readonly deck: PlayDeck
  /** What is filmed, where it is danced with a song. */
  readonly withSong?: SongToFilm
}

/** The dancing figure: touch a part, and only that layer and the feet are shown, heard and danced. */
export function DanceStage(props: DanceStageProps) {
  const { combination, from, dancing, at, layers, only, onOnly, deck, withSong } = props
  const choice = useStore(stageChoice, (s) => s)
  const { scale } = useStore(dancerNow, (s) => s)
  const dancersAt = useMemo(() => {
    const known = new Map<number, Dancers>()
    return (clearer: number) => {
      const made =
        known.get(clearer) ??
        dancersOf(
          from ?? ((one) => simulationFrom(combination, one)),
          { layers, scale, clearer },
          combination,
        )
      known.set(clearer, made)
      return made
    }
  }, [combination, from, layers, scale])
  const { clearer } = choice
  const box = useRef<HTMLDivElement>(null)
  const [isFlat, setFlat] = useState(false)
  const isPlaying = useStore(deck, (is) => is)
  const moment = useCallback(
    (): DanceMoment =>
      deck.moment() ?? { seam: undefined, ...(scrubbed.getState() ?? { dancing, tick: at }) },
    [deck, dancing, at],
  )
  const pickable = LAYERS.toReversed().filter(
    (layer) => layer !== 'legs' || only === layer || usesLayer(combination, layer),
  )
  const choose = (layer: Layer) => onOnly(only === layer ? undefined : layer)
  const hasPartner = combination.parts !== undefined && !isFlat
  // Who dances alone is seen by nobody's eyes but yours.
  const view = choice.view === 'partner' && !hasPartner ? 'facing' : choice.view
  const whose = viewFacts[view].whose
  return (
    <section className={classes.stage} aria-label="Dancing figure">
      <div className={classes.box} data-stage-box ref={box}>
        <DancerPicture
          className={classes.canvas}
          label={`The figure, ${choice.both && !isFlat ? 'both sides' : `${sideWord[dancing.side]} side`}. ${whose}`}
          dancers={dancersAt(clearer)}
          families={combination.families}
          view={view}
          choice={choice}
          only={only}
          frame={choice.close ? only : undefined}
          isMoving={isPlaying}
          moment={moment}
          onLook={scrubbed.subscribe}
          onTouch={choose}
          onFlat={() => setFlat(true)}
        />
        <p className={classes.whose}>
          {pictureWords(view, dancersAt(clearer)(dancing), hasPartner)}
        </p>
        <NativeSelect
          size="xs"
          className={classes.view}
          aria-label="Seen from"
          value={view}
          onChange={({ currentTarget }) =>
            stageChoice.setState((s) => ({ ...s, view: currentTarget.value as View }))
          }
          data={[...VIEWS, ...(hasPartner ? (['partner'] as const) : [])].map((one) => ({
            value: one,
            label: viewFacts[one].name,
          }))}
        />
      </div>
      <div className={classes.choices}>
        {(
          [
            ['both', 'Beside', 'The other side beside it, in step'],
            ['trails', 'Trails', 'The way of hips and hands over the last counts'],
            ['close', 'Near', 'What is looked at alone fills the picture'],
          ] as const
        ).map(([key, label, title]) => (
          <button
            key={key}
            type="button"
            className={classes.choice}
            aria-pressed={choice[key]}
            title={title}
            // Nothing is looked at alone that could fill it.
            disabled={key === 'close' && only === undefined}
            onClick={() => stageChoice.setState((s) => ({ [key]: !s[key] }))}
          >
            {label}
          </button>
        ))}
        <SaveMenu
          combination={combination}
          dancersAt={dancersAt}
          dancing={dancing}
          at={at}
          colours={() => coloursOf(box.current ?? document.documentElement)}
          withSong={withSong}
          inSpace={!isFlat}
        />
      </div>
      <div className={classes.picks}>
        <SeeingPicks {...choice} onChange={(change) => stageChoice.setState(change)} />
      </div>
      <div className={classes.layers}>
        {pickable.map((layer) => (
          <button
            key={layer}
            type="button"
            className={`${classes.layer} layer-${layer}`}
            aria-pressed={only === layer}
            aria-label={
              layer === 'feet'
                ? 'Only the feet'
                : `Only the ${layerWord[layer].toLowerCase()} on the feet`
            }
            onClick={() => choose(layer)}
          >
            {layerWord[layer]}
          </button>
        ))}
      </div>
    </section>
  )
}
