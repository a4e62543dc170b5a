import type { HeldSound } from '../../audio/held'
import type { Combination } from '../../core/combination/combination'
import { type Hold, heldAt, heldSamples } from '../../core/lesson/lessonFilm'
import type { DanceMoment, Performance } from '../../core/performance/performance'
import type { Dancers } from '../../core/pose/dancers'
import type { View } from '../../core/pose/views'
import type { Dressed } from '../../core/skin/dress'
import { createFrames, standingOf, trailJoints } from '../../dancer/frames'
import type { StageColours } from '../../dancer/onStage'
import type { Stage } from '../../dancer/stage'
import { type Heard, renderedSound } from '../play/renderedSound'
import { dancerNow } from '../stores/dancer'
import { dressedNow, stageOn } from './loadStage'
import { pictureWords } from './pictureWords'

/** In pixels. */
export const SIZES = { large: [1280, 720], upright: [720, 1280], small: [640, 360] } as const

/** What the instructor chose for a practice video. */
export interface VideoWish {
  /** The other side is danced beside it, in step. */
  readonly beside: boolean
  readonly view: View
  readonly size: keyof typeof SIZES
}

/** What is filmed, and how it is heard. */
export interface ToFilm {
  readonly performance: Performance
  readonly heard: Heard
  /** The sound of its song, by its file's mark. */
  readonly songOf: (mark: string) => HeldSound | undefined
  /** What is written under the count: the side and the tempo, or the place in the song. */
  readonly placeOf: (moment: DanceMoment) => string
  /** Where it waits, so that who looks can stop it. */
  readonly holds?: readonly Hold[]
}

const FRAMES = 25
const RATE = 48_000
/** The last count still sounds and is looked at for a moment. */
const AFTER_SECONDS = 0.6

/** Of the work its sound is no more than this. */
const SOUND_SHARE = 0.15

/**
 * Films what is danced of a combination, with its counts and cues.
 * @param told is told the share that is done, 0 to 1.
 * @returns undefined where it was stopped
 */
export async function filmPractice(
  filmed: ToFilm,
  combination: Combination,
  dancers: Dancers,
  wish: VideoWish,
  colours: StageColours,
  told: (share: number) => void,
  signal: AbortSignal,
): Promise<Blob | undefined> {
  const [width, height] = SIZES[wish.size]
  const { performance, holds = [] } = filmed
  const waits = holds.reduce((sum, hold) => sum + hold.seconds, 0)
  const seconds = performance.time.secondsAt(performance.length) + waits + AFTER_SECONDS
  const source = document.createElement('canvas')
  const [stage, dressed, { writeFilm }] = await Promise.all([
    stageOn(source, colours),
    dressedNow(combination.families),
    import('../../dancer/video'),
  ])
  try {
    stage.resize(width, height, 1)
    const canvas = document.createElement('canvas')
    canvas.width = width
    canvas.height = height
    const draw = frameDrawer(canvas, source, stage, {
      filmed,
      dancers,
      dressed,
      wish,
      colours,
      combination,
    })
    const sound = await soundOf(filmed, seconds, (share) => told(share * SOUND_SHARE), signal)
    if (!sound) return undefined
    const film = { canvas, seconds, framesASecond: FRAMES, draw, sound }
    const drawn = (share: number) => told(SOUND_SHARE + share * (1 - SOUND_SHARE))
    return await writeFilm(film, drawn, signal)
  } finally {
    stage.dispose()
  }
}

interface Filmed {
  readonly filmed: ToFilm
  readonly dancers: Dancers
  readonly dressed: Dressed
  readonly wish: VideoWish
  readonly colours: StageColours
  readonly combination: Combination
}

/** Draws the figure, and over it the count, the phrase, the side and the cue. */
function frameDrawer(
  canvas: HTMLCanvasElement,
  source: HTMLCanvasElement,
  stage: Stage,
  { filmed, dancers, dressed, wish, colours, combination }: Filmed,
): (seconds: number) => void {
  const { performance, placeOf, holds = [] } = filmed
  const pen = canvas.getContext('2d')
  const frames = createFrames(trailJoints(undefined))
  const stands = standingOf(dancers)
  const choice = { trails: false, ghost: 'none' } as const
  const look = { dressed, view: wish.view, ...dancerNow.getState() }
  const unit = Math.min(canvas.width, canvas.height) / 36
  const bottom = canvas.height / unit
  return (film) => {
    const { danced: seconds, text } = heldAt(holds, film)
    // The last moment stays for as long as the last sound dies away, and the end of a part while it waits.
    const now = performance.momentAt(
      Math.min(
        performance.length - 0.01,
        performance.time.tickAt(seconds) - (text === undefined ? 0 : 0.01),
      ),
    )
    stage.draw(frames.at(stands(now, { both: wish.beside }), choice), look)
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
    write(placeOf(now), 1.6, 2, 16)
    write(combination.title, 1.6, 2, bottom - 3)
    write(pictureWords(wish.view, dancers(now.dancing)), 1.3, 2, bottom - 1.2, 500)
    pen.textAlign = 'center'
    if (text !== undefined) {
      // What is to be done is read whatever is behind it.
      pen.fillStyle = colours.air
      pen.fillRect(0, (bottom - 8) * unit, canvas.width, 4 * unit)
    }
    pen.fillStyle = text === undefined ? colours.body.layers.hips : colours.ink
    write(text ?? now.said, text === undefined ? 3 : 2, canvas.width / 2 / unit, bottom - 5.3)
  }
}

/** All that sounds, rendered in one go; without the voice its words are only shown. */
async function soundOf(
  { performance, heard, songOf, holds = [] }: ToFilm,
  seconds: number,
  told: (share: number) => void,
  signal: AbortSignal,
): Promise<AudioBuffer | undefined> {
  const made = await renderedSound(performance, heard, songOf, told, signal)
  if (!made) return undefined
  const context = new OfflineAudioContext(1, Math.ceil(seconds * RATE), RATE)
  const sound = await context.decodeAudioData(made.wav)
  if (holds.length === 0) return sound
  const samples = heldSamples(sound.getChannelData(0), holds, RATE)
  const held = context.createBuffer(1, samples.length, RATE)
  held.copyToChannel(samples, 0)
  return held
}
