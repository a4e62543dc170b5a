import { useState } from 'react'
import type { Primitive } from '../../core/body/feet'
import type { Layer } from '../../core/body/layers'
import type { ArmPlace } from '../../core/body/places'
import { type Side, sideWord } from '../../core/body/side'
import type { DancedEvent } from '../../core/combination/lengths'
import { COUNT, type Tick } from '../../core/time/time'
import type { What } from '../../core/what/kinds'
import type { Offer } from '../../core/writing/search'
import { rewrite } from '../stores/editing'
import type { Session } from '../stores/session'
import { BodyUnder, FloorUnder, HeadUnder, Pad } from './Pad'
import { Choices } from './PlacedRow'
import { armSpots, COMPASS_SPOTS, floorFor, GAZE_SPOTS, STEPS_SOMEWHERE, stepTo } from './pads'
import classes from './placing.module.css'

interface PadOfLayerProps {
  readonly session: Session
  readonly layer: Layer
  /** The side that is meant: of the feet the free one. */
  readonly side: Side
  /** Single steps that go nowhere. */
  readonly steps: readonly Offer[]
  /** There is no count left on this layer. */
  readonly isFull: boolean
  /** What stands there already. */
  readonly event: DancedEvent | undefined
  readonly place: (what: What, length: Tick) => void
}

const FEW_STEPS = 12

type Arm = 'both' | Side

/** Places of a layer as a picture of what moves: the floor, a small body, a face. */
export function PadOfLayer(props: PadOfLayerProps) {
  const { session, layer, side, steps, isFull, event, place } = props
  const [primitive, setPrimitive] = useState<Primitive>('step')
  const [arm, setArm] = useState<Arm>('both')
  const placeArm = (where: ArmPlace) => {
    // The other arm of what stands there already has its place with it.
    if (arm !== 'both' && event?.what.kind === 'arms' && !event.what[arm])
      return rewrite(session, event, { what: { ...event.what, [arm]: where } })
    place({ kind: 'arms', ...(arm === 'both' ? { R: where, L: where } : { [arm]: where }) }, COUNT)
  }
  return (
    <>
      {layer === 'feet' && (
        <div>
          <Choices
            label="Step"
            options={STEPS_SOMEWHERE.map((value) => ({ value, word: value }))}
            value={primitive}
            onPick={setPrimitive}
          />
          <Pad
            label={`${primitive}, ${sideWord[side]} foot, to`}
            spots={floorFor(side)}
            disabled={isFull}
            onPick={(way) => place({ kind: 'foot', action: stepTo(primitive, side, way) }, COUNT)}
          >
            <FloorUnder />
          </Pad>
          <div className={classes.steps} role="group" aria-label="Steps that stay">
            {steps.slice(0, FEW_STEPS).map(({ id, name, what, length }) => (
              <button key={id} type="button" disabled={isFull} onClick={() => place(what, length)}>
                {name}
              </button>
            ))}
          </div>
        </div>
      )}
      {(layer === 'hips' || layer === 'torso') && (
        <Pad
          label={layer === 'hips' ? 'Hips to' : 'Ribs to'}
          spots={COMPASS_SPOTS}
          disabled={isFull}
          onPick={(to) => place({ kind: 'at', place: to }, COUNT)}
        >
          <FloorUnder />
        </Pad>
      )}
      {layer === 'arms' && (
        <div>
          <Choices
            label="Which arm"
            options={[
              { value: 'L', word: 'left' },
              { value: 'both', word: 'both' },
              { value: 'R', word: 'right' },
            ]}
            value={arm}
            onPick={(value: Arm) => setArm(value)}
          />
          <Pad
            label={arm === 'both' ? 'Both arms to' : `${sideWord[arm]} arm to`}
            spots={armSpots(arm === 'L' ? 'L' : 'R')}
            disabled={isFull && arm === 'both'}
            onPick={placeArm}
          >
            <BodyUnder isLeft={arm === 'L'} />
          </Pad>
        </div>
      )}
      {layer === 'head' && (
        <Pad
          label="Look to"
          spots={GAZE_SPOTS}
          disabled={isFull}
          onPick={(gaze) => place({ kind: 'look', gaze }, COUNT)}
        >
          <HeadUnder />
        </Pad>
      )}
    </>
  )
}
