import { createDrum } from '../../audio/sounds'
import type { Side } from '../../core/body/side'
import type { Combination } from '../../core/combination/combination'
import { type View, viewFacts } from '../../core/pose/views'
import { type Reel, reelOf } from '../../core/teaching/reel'
import { secondsOfTicks, type Tempo, ticksOfSeconds } from '../../core/time/tempo'
import { tick } from '../../core/time/time'
import { createFrames, type Dancers, seamBefore, trailJoints } from '../../dancer/frames'
import type { Stage, StageColours } from '../../dancer/stage'
import { loadStage } from './loadStage'

/** What the instructor chose for a practice video. */
export interface VideoWish {
  /** The sides, one after the other. */
  readonly sides: readonly Side[]
  /** The other side is danced beside it, in step. */
  readonly beside: boolean
  readonly view: View
  readonly tempo: Tempo
  readonly size: 'large' | 'small'
}

const SIZES = { large: [1280, 720], small: [640, 360] } as const
const FRAMES = 25
const RATE = 48_000
/** The last count still sounds and is looked at for a moment. */
const AFTER_SECONDS = 0.6

/**
 * Films a combination with its counts and cues.
 * @param told is told the share that is done, 0 to 1.
 */
export async function filmPractice(
  combination: Combination,
  dancers: Dancers,
  wish: VideoWish,
  colours: StageColours,
  told: (share: number) => void,
  signal: AbortSignal,
): Promise<Blob | undefined> {
  const [{ createStage }, { writeFilm }] = await Promise.all([
    loadStage(),
    import('../../dancer/video'),
  ])
  const [width, height] = SIZES[wish.size]
  const reel = reelOf(combination, wish.sides)
  const seconds = secondsOfTicks(reel.length, wish.tempo) + AFTER_SECONDS
  const source = document.createElement('canvas')
  const stage = createStage(source, colours)
  try {
    stage.setView(wish.view)
    stage.resize(width, height, 1)
    const canvas = document.createElement('canvas')
    canvas.width = width
    canvas.height = height
    const draw = frameDrawer(canvas, source, stage, { reel, dancers, wish, colours, combination })
    const sound = await soundOf(reel, wish.tempo, seconds)
    return await writeFilm({ canvas, seconds, framesASecond: FRAMES, draw, sound }, told, signal)
  } finally {
    stage.dispose()
  }
}

interface Filmed {
  readonly reel: Reel
  readonly dancers: Dancers
  readonly wish: VideoWish
  readonly colours: StageColours
  readonly combination: Combination
}

/** Draws the figure, and over it the count, the phrase, the side and the cue. */
function frameDrawer(
  canvas: HTMLCanvasElement,
  source: HTMLCanvasElement,
  stage: Stage,
  { reel, dancers, wish, colours, combination }: Filmed,
): (seconds: number) => void {
  const pen = canvas.getContext('2d')
  const frames = createFrames(dancers, trailJoints(undefined))
  const choice = { view: wish.view, both: wish.beside, trails: false, next: false }
  const unit = canvas.height / 36
  return (seconds) => {
    const when = Math.min(reel.length, ticksOfSeconds(seconds, wish.tempo))
    const now = reel.at(when)
    stage.draw(frames.at(now.side, now.tick, choice, seamAt(reel, when)))
    if (!pen) return
    pen.drawImage(source, 0, 0)
    const write = (text: string, size: number, x: number, y: number, bold = 700) => {
      pen.font = `${bold} ${size * unit}px Figtree, sans-serif`
      pen.fillText(text, x * unit, y * unit)
    }
    pen.fillStyle = colours.ink
    pen.textAlign = 'left'
    write(now.count, 9, 2, 10, 800)
    write(now.phrase, 2, 2, 13.5)
    write(`${now.side === 'R' ? 'Right' : 'Left'} side · ${wish.tempo}`, 1.6, 2, 16)
    write(combination.title, 1.6, 2, 33)
    write(viewFacts[wish.view].whose, 1.3, 2, 34.8, 500)
    pen.textAlign = 'center'
    pen.fillStyle = colours.body.layers.hips
    write(now.cue, 3, canvas.width / 2 / unit, 32)
  }
}

/** Where one side is over and the other is counted in soon. */
function seamAt(reel: Reel, tick: number) {
  const next = reel.nextSide(tick)
  return next && seamBefore(next.at - tick, next.side, next.tick)
}

/** The counts as they sound, rendered in one go. */
async function soundOf(reel: Reel, tempo: Tempo, seconds: number): Promise<AudioBuffer> {
  const context = new OfflineAudioContext(1, Math.ceil(seconds * RATE), RATE)
  const drum = createDrum(context)
  for (const { at, isFirst } of reel.counts)
    drum.book({ at: tick(at), kind: isFirst ? 'phrase' : 'count' }, secondsOfTicks(at, tempo))
  return context.startRendering()
}
