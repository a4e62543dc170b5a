import { useReducedMotion } from '@mantine/hooks'
import {
  type PointerEvent,
  useCallback,
  useEffect,
  useLayoutEffect,
  useMemo,
  useRef,
  useState,
} from 'react'
import { useStore } from 'zustand'
import type { Layer } from '../../core/body/layers'
import type { Family } from '../../core/moves/move'
import type { DanceMoment } from '../../core/performance/performance'
import type { Dancers } from '../../core/pose/dancers'
import { placeOfJoint } from '../../core/pose/joints'
import type { View } from '../../core/pose/views'
import type { Dressed } from '../../core/skin/dress'
import { dressFor } from '../../core/skin/outfits'
import { poseSvg } from '../../core/skin/posesSvg'
import { TICKS_PER_COUNT } from '../../core/time/time'
import type { Frame } from '../../dancer/camera'
import {
  type Beside,
  createFrames,
  type FrameChoice,
  standingOf,
  trailJoints,
} from '../../dancer/frames'
import type { OnStage } from '../../dancer/onStage'
import { eachFrame, eachFrameAtEase } from '../parts/eachFrame'
import { usePressed } from '../parts/usePressed'
import { dancerNow } from '../stores/dancer'
import { FlatStage } from './FlatFigure'
import { drawFlat } from './flatDrawing'
import { openStage, type StageOn, shareStage } from './openStage'
import { useDressed } from './useDressed'

/** What is in the picture, and who stands beside the dancer. */
export type PictureChoice = FrameChoice & Beside

interface DancerPictureProps {
  /** What it is, for those who don't see it. */
  readonly label: string
  readonly className?: string | undefined
  readonly dancers: Dancers
  /** Of the dance: the dancer is dressed for it. */
  readonly families: readonly Family[]
  readonly view: View
  readonly choice?: PictureChoice
  /** What fills the picture; all of the dancer where it is not said. */
  readonly frame?: Frame | undefined
  /** From a little above. */
  readonly isRaised?: boolean
  /** The only layer that is coloured. */
  readonly only?: Layer | undefined
  /** Whether it moves; else it is drawn again when something else is to be seen. */
  readonly isMoving: boolean
  /** What is to be seen now; asked for each picture. */
  readonly moment: () => DanceMoment
  /** Calls when there is something else to be seen though nothing moves. */
  readonly onLook?: ((look: () => void) => () => void) | undefined
  /** One of many small pictures, which share what draws them. */
  readonly isSmall?: boolean
  /** Something else goes first: it is drawn less often where drawing is slow. */
  readonly isAtEase?: boolean
  readonly onTouch?: ((layer: Layer) => void) | undefined
  /** There is nothing here to draw it in space with: it is drawn flat. */
  readonly onFlat?: (() => void) | undefined
}

const ALONE: PictureChoice = { both: false, trails: false, ghost: 'none' }

/** While edits follow one another so fast, in milliseconds, the braid has the frames. */
const REST_MS = 140

/** The dancing body, in space or flat: the only picture of it that moves. */
export function DancerPicture(props: DancerPictureProps) {
  const { label, className, dancers, view, choice = ALONE, only, isMoving, isSmall = false } = props
  const { families, moment, onLook, isAtEase = isSmall, frame, isRaised = false } = props
  const { build, scale, look } = useStore(dancerNow, (s) => s)
  const isStill = useReducedMotion()
  const canvas = useRef<HTMLCanvasElement>(null)
  const flat = useRef<SVGGElement>(null)
  const [stage, setStage] = useState<StageOn>()
  const [isFlat, setFlat] = useState(false)
  const frames = useMemo(() => createFrames(trailJoints(only)), [only])
  const stands = useMemo(() => standingOf(dancers), [dancers])
  const onFlat = useRef(props.onFlat)
  onFlat.current = props.onFlat
  const goFlat = useCallback(() => {
    setFlat(true)
    onFlat.current?.()
  }, [])
  const wanted = useDressed(families, !isFlat, goFlat)
  const dressed = usePrepared(stage, wanted, goFlat)

  const draw = useCallback(() => {
    const element = stage ? canvas.current : flat.current
    if (!element || (stage && !dressed)) return
    const begun = performance.now()
    const { dancing, tick: at, seam } = moment()
    // Who wants no motion sees the poses of the counts.
    const isCounted = isMoving && isStill
    const tick = isCounted ? Math.floor(at / TICKS_PER_COUNT) * TICKS_PER_COUNT : at
    const now = { dancing, tick, seam: isCounted ? undefined : seam }
    // Drawn flat there is one dancer, and nothing beside it.
    const beside = stage ? choice : ALONE
    const shown = frames.at(stands(now, beside), beside)
    if (stage && dressed) stage.draw(shown, { dressed, view, build, scale, only, frame, isRaised })
    else if (flat.current && shown[0])
      drawFlat(flat.current, shown[0], view, dressFor(look, families))
    element.dataset.shown = shownText(now, shown)
    element.dataset.took = (performance.now() - begun).toFixed(2)
  }, [
    stage,
    dressed,
    frames,
    stands,
    moment,
    choice,
    view,
    build,
    scale,
    look,
    families,
    only,
    frame,
    isRaised,
    isMoving,
    isStill,
  ])
  const latest = useRef(draw)
  latest.current = draw

  useEffect(() => {
    const element = canvas.current
    if (!element || isFlat) return
    return (isSmall ? shareStage : openStage)(element, {
      onOpen: setStage,
      onResize: () => latest.current(),
      onFail: goFlat,
      onClose: () => setStage(undefined),
    })
  }, [isFlat, isSmall, goFlat])
  // There at once when there is something to draw on; what changes later comes behind the edit.
  useEffect(() => {
    if ((stage && dressed) || isFlat) latest.current()
  }, [stage, dressed, isFlat])
  // What draws her is still being loaded and made: until then she is there as a flat drawing.
  const isThere = stage !== undefined && dressed !== undefined
  const wantedNow = useRef({ moment, dancers, view, look, families })
  wantedNow.current = { moment, dancers, view, look, families }
  useLayoutEffect(() => {
    const element = canvas.current
    if (!element || isThere || isSmall || frame !== undefined) return
    const { moment, dancers, view, look, families } = wantedNow.current
    const { dancing, tick } = moment()
    const svg = poseSvg(dancers(dancing).poseAt(tick), view, { look, families })
    const url = URL.createObjectURL(new Blob([svg], { type: 'image/svg+xml' }))
    element.style.background = `url("${url}") center / contain no-repeat`
    // What is drawn then lies over it.
    return () => URL.revokeObjectURL(url)
  }, [isThere, isSmall, frame])
  const isPressed = usePressed()
  useEffect(() => {
    if (isMoving) return
    let soon = setTimeout(function later() {
      if (isPressed.current) soon = setTimeout(later, REST_MS)
      else draw()
    }, REST_MS)
    return () => clearTimeout(soon)
  }, [draw, isMoving, isPressed])
  useEffect(() => {
    if (!isMoving) return
    return (isAtEase ? eachFrameAtEase : eachFrame)(() => latest.current())
  }, [isMoving, isAtEase])
  useEffect(() => onLook?.(() => latest.current()), [onLook])

  const touch = ({ currentTarget, clientX, clientY }: PointerEvent<HTMLCanvasElement>) => {
    const box = currentTarget.getBoundingClientRect()
    const layer = stage?.partAt(
      ((clientX - box.left) / box.width) * 2 - 1,
      1 - ((clientY - box.top) / box.height) * 2,
    )
    if (layer) props.onTouch?.(layer)
  }
  return isFlat ? (
    <FlatStage group={flat} view={view} label={label} />
  ) : (
    <canvas
      ref={canvas}
      className={className}
      role="img"
      aria-label={label}
      onPointerUp={props.onTouch && touch}
    />
  )
}

/** A dancer once a stage is ready to draw her. */
function usePrepared(
  stage: StageOn | undefined,
  wanted: Dressed | undefined,
  onFail: () => void,
): Dressed | undefined {
  const [prepared, setPrepared] = useState<Dressed>()
  useEffect(() => {
    let isGone = false
    if (stage && wanted)
      stage.prepare(wanted).then(
        () => isGone || setPrepared(wanted),
        () => isGone || onFail(),
      )
    return () => {
      isGone = true
    }
  }, [stage, wanted, onFail])
  return prepared
}

/** What is drawn, for whoever asks: its side, its tick, where the right palm is. */
function shownText({ dancing, tick }: DanceMoment, [first]: readonly OnStage[]): string {
  const palm = [0, 1, 2].map((i) => (first?.pose.joints[placeOfJoint.palmR + i] ?? 0).toFixed(5))
  return [dancing.side, tick.toFixed(3), ...palm].join(' ')
}
