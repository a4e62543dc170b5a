import { NativeSelect } from '@mantine/core'
import { useReducedMotion } from '@mantine/hooks'
import { useMemo, useState } from 'react'
import type { Layer } from '../../core/body/layers'
import { aloneFrom } from '../../core/combination/dancing'
import { whatOf } from '../../core/combination/whatOf'
import type { Move } from '../../core/moves/move'
import type { Vocabulary } from '../../core/moves/vocabulary'
import { VIEWS, type View, viewFacts } from '../../core/pose/views'
import { DancerPicture, type PictureChoice } from './DancerPicture'
import { pictureWords } from './pictureWords'
import { SeeingPicks } from './SeeingPicks'
import classes from './stage.module.css'
import { sidesInPicture, useMoveSides } from './useMoveSides'

/** How many phases of a move are laid side by side. */
const PHASES = 8
/** How large isolations are shown to who learns them. */
const CLEARER_HERE: Readonly<Partial<Record<Layer, number>>> = { hips: 1.3, torso: 1.3 }
const SPEEDS = [
  { value: '0.25', label: 'quarter speed' },
  { value: '0.5', label: 'half speed' },
  { value: '1', label: 'at 76 a minute' },
]

/** A move danced by itself, large: both its sides, slow, from where it is seen best, and its phases. */
export function MoveStage({ move, vocabulary }: { move: Move; vocabulary: Vocabulary }) {
  const { layer } = move
  const isStill = useReducedMotion() ?? false
  const [{ ghost, clearer }, setSeeing] = useState(() => ({
    ghost: 'none' as PictureChoice['ghost'],
    clearer: CLEARER_HERE[layer] ?? 1,
  }))
  const see = (change: Partial<{ ghost: PictureChoice['ghost']; clearer: number }>) =>
    setSeeing((now) => ({ ...now, ...change }))
  const [speed, setSpeed] = useState(0.5)
  const [wanted, setWanted] = useState<View>()
  // A step is the whole body's.
  const [isWhole, setWhole] = useState(layer === 'feet')
  const [trails, setTrails] = useState(layer !== 'feet')
  const [held, setHeld] = useState<number>()
  const written = useMemo(() => ({ layer, what: whatOf(move) }), [layer, move])
  const sides = useMoveSides(written, 'R', vocabulary, clearer)
  const { loop, dancers, best } = sides
  const view = wanted ?? best.view
  const isRaised = best.isRaised && !isWhole
  const frame = isWhole ? 'all' : sides.frame
  const only = isWhole || layer === 'feet' ? undefined : layer
  const phase = (i: number) => (i * loop.length) / PHASES
  const dancing = aloneFrom('R')
  const moment = useMemo(() => sides.moment(speed, isStill), [sides, speed, isStill])
  const both = sides.isSided && held === undefined
  const choice: PictureChoice = {
    both,
    trails,
    ghost,
    held: held === undefined ? undefined : phase(held),
    apart: isWhole ? undefined : sides.apart,
  }
  const names = both
    ? sidesInPicture(dancers, 'R', choice, view)
    : held === undefined
      ? []
      : ['moving', `held at phase ${held + 1}`]
  const { whose } = viewFacts[view]
  return (
    <section className={classes.moveStage} aria-label={`${move.name}, danced`}>
      <div className={classes.moveBox}>
        <DancerPicture
          className={classes.moveCanvas}
          label={`${move.name}, danced. ${whose}`}
          dancers={dancers}
          families={move.families}
          view={view}
          choice={choice}
          only={only}
          frame={frame}
          isRaised={isRaised}
          isMoving={!isStill}
          moment={moment}
        />
        <p className={classes.whose}>{pictureWords(view, loop.dancer)}</p>
        {names.length > 0 && (
          <p className={classes.names}>
            {names.map((name) => (
              <span key={name}>{name}</span>
            ))}
          </p>
        )}
      </div>
      <ol className={classes.phases}>
        {Array.from({ length: PHASES }, (_, i) => (
          <li key={phase(i)}>
            <button
              type="button"
              aria-pressed={held === i}
              aria-label={`Hold phase ${i + 1} beside it`}
              onClick={() => setHeld(held === i ? undefined : i)}
            >
              <DancerPicture
                label={`Phase ${i + 1}`}
                dancers={dancers}
                families={move.families}
                view={view}
                only={only}
                frame={frame}
                isRaised={isRaised}
                isMoving={false}
                moment={() => ({ dancing, tick: phase(i), seam: undefined })}
                isSmall
              />
              <span className="counts">{i + 1}</span>
            </button>
          </li>
        ))}
      </ol>
      <div className={classes.choices}>
        <NativeSelect
          size="xs"
          aria-label="Seen from"
          value={view}
          onChange={({ currentTarget }) => setWanted(currentTarget.value as View)}
          data={VIEWS.map((one) => ({
            value: one,
            label: `${viewFacts[one].name}${one === best.view ? ', best' : ''}`,
          }))}
        />
        <NativeSelect
          size="xs"
          aria-label="How fast it is danced"
          value={String(speed)}
          onChange={({ currentTarget }) => setSpeed(Number(currentTarget.value))}
          data={SPEEDS}
        />
        <SeeingPicks ghost={ghost} clearer={clearer} onChange={see} />
        <button
          type="button"
          className={classes.choice}
          aria-pressed={trails}
          onClick={() => setTrails(!trails)}
        >
          Trails
        </button>
        <button
          type="button"
          className={classes.choice}
          aria-pressed={isWhole}
          onClick={() => setWhole(!isWhole)}
        >
          Whole body
        </button>
      </div>
    </section>
  )
}
