import { newPose } from '../../core/pose/joints'
import type { MoveLoop } from '../../core/pose/moveLoop'
import type { View } from '../../core/pose/views'
import { ticksOfSeconds } from '../../core/time/tempo'
import type { Stage } from '../../dancer/stage'
import { loadStage } from './loadStage'
import { coloursOf } from './openStage'

/** A small picture in which a move is danced again and again. */
export interface LoopPicture {
  readonly canvas: HTMLCanvasElement
  readonly loop: MoveLoop
  readonly view: View
  /** One still pose, for those who want no motion. */
  readonly still: boolean
}

const WIDTH = 150
const HEIGHT = 200
const FRAME_MS = 40
/** Where a still picture is taken: most moves are well under way there. */
const STILL_SHARE = 3 / 8

const pictures = new Set<LoopPicture>()
let shared: Promise<{ stage: Stage; canvas: HTMLCanvasElement }> | undefined
let frame = 0

/** One stage draws all small pictures, one after the other. */
function sharedStage() {
  shared ??= loadStage().then(({ createStage }) => {
    const canvas = document.createElement('canvas')
    const stage = createStage(canvas, coloursOf(document.documentElement))
    // Drawn finer than it is shown, so that its edges are smooth.
    stage.resize(WIDTH, HEIGHT, 2)
    new MutationObserver(() => stage.setColours(coloursOf(document.documentElement))).observe(
      document.documentElement,
      { attributeFilter: ['data-mantine-color-scheme'] },
    )
    return { stage, canvas }
  })
  return shared
}

const pose = newPose()

function drawInto(
  { canvas, loop, view, still }: LoopPicture,
  { stage, canvas: source }: { stage: Stage; canvas: HTMLCanvasElement },
): void {
  const seconds = performance.now() / 1000
  const tick = still ? loop.length * STILL_SHARE : ticksOfSeconds(seconds, loop.tempo) % loop.length
  loop.dancer.poseAt(tick, pose)
  stage.setView(view)
  stage.draw([{ pose, aside: 0, trails: [], ghost: undefined }])
  canvas.width = source.width
  canvas.height = source.height
  canvas.getContext('2d')?.drawImage(source, 0, 0)
  canvas.dataset.tick = tick.toFixed(2)
}

/** Shows a loop until the returned stop is called; says whether it could not be drawn. */
export function showLoop(picture: LoopPicture, onFail: () => void): () => void {
  pictures.add(picture)
  void sharedStage().then((drawer) => {
    if (!pictures.has(picture)) return
    drawInto(picture, drawer)
    if (frame === 0) run(drawer)
  }, onFail)
  return () => {
    pictures.delete(picture)
  }
}

/** Draws for as long as there is a picture that moves; the browser stops it on a hidden page. */
function run(drawer: { stage: Stage; canvas: HTMLCanvasElement }): void {
  let last = 0
  const next = (now: number) => {
    const moving = [...pictures].filter(({ still }) => !still)
    frame = moving.length > 0 ? requestAnimationFrame(next) : 0
    if (now - last < FRAME_MS) return
    last = now
    for (const one of moving) drawInto(one, drawer)
  }
  frame = requestAnimationFrame(next)
}
