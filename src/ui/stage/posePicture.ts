import { sideWord } from '../../core/body/side'
import type { Combination } from '../../core/combination/combination'
import type { Dancing } from '../../core/combination/dancing'
import type { Dancers } from '../../core/pose/dancers'
import { viewFacts } from '../../core/pose/views'
import { posesSvg } from '../../core/skin/posesSvg'
import { createFrames, standingOf, trailJoints } from '../../dancer/frames'
import type { StageColours } from '../../dancer/onStage'
import { dancerNow } from '../stores/dancer'
import { dressedNow, stageOn } from './loadStage'
import type { stageChoice } from './stageChoice'

/** What is to be seen on the picture of a moment. */
export interface PoseWish {
  readonly combination: Combination
  readonly dancers: Dancers
  readonly dancing: Dancing
  /** Ticks from the start of the combination. */
  readonly at: number
  /** Where that is, as it is said: `A3&`. */
  readonly place: string
  readonly choice: ReturnType<typeof stageChoice.getState>
  readonly colours: StageColours
  /** Pixels across. */
  readonly width: number
  /** Whether it is drawn in space; else flat. */
  readonly inSpace: boolean
}

/** Height of the picture as a share of its width. */
const SHAPE = 0.8

/** A moment of the dance as a picture, with its title, its count, its side and whose right is where. */
export async function posePicture(wish: PoseWish): Promise<Blob | null> {
  const { combination, dancers, dancing, at, place, choice, colours, width } = wish
  const height = Math.round(width * SHAPE)
  const canvas = document.createElement('canvas')
  canvas.width = width
  canvas.height = height
  const pen = canvas.getContext('2d')
  if (!pen) return null
  const { whose } = viewFacts[choice.view]
  if (wish.inSpace) {
    const source = document.createElement('canvas')
    const [stage, dressed] = await Promise.all([
      stageOn(source, colours),
      dressedNow(combination.families),
    ])
    try {
      stage.resize(width, height, 1)
      const standing = standingOf(dancers)({ dancing, tick: at, seam: undefined }, choice)
      stage.draw(createFrames(trailJoints(undefined)).at(standing, choice), {
        dressed,
        view: choice.view,
        ...dancerNow.getState(),
      })
      pen.drawImage(source, 0, 0)
    } finally {
      stage.dispose()
    }
  } else {
    pen.fillStyle = '#fff'
    pen.fillRect(0, 0, width, height)
    const svg = posesSvg('', '', [{ pose: dancers(dancing).poseAt(at), label: '' }], choice.view)
    const image = await loaded(svg)
    const scale = Math.min(width / image.width, height / image.height)
    pen.drawImage(
      image,
      (width - image.width * scale) / 2,
      height - image.height * scale,
      image.width * scale,
      image.height * scale,
    )
  }
  const unit = width / 60
  pen.fillStyle = wish.inSpace ? colours.ink : '#2a1826'
  const write = (text: string, size: number, y: number, weight: number) => {
    pen.font = `${weight} ${size * unit}px Figtree, sans-serif`
    pen.fillText(text, 1.6 * unit, y * unit, width - 3.2 * unit)
  }
  write(combination.title || 'Combination', 2.4, 3.4, 700)
  write(`${place} · ${sideWord[dancing.side]} side`, 1.8, 6.2, 600)
  write(whose, 1.2, height / unit - 1.2, 400)
  return new Promise((done) => canvas.toBlob(done))
}

async function loaded(svg: string): Promise<HTMLImageElement> {
  const url = URL.createObjectURL(new Blob([svg], { type: 'image/svg+xml' }))
  try {
    const image = new Image()
    image.src = url
    await image.decode()
    return image
  } finally {
    URL.revokeObjectURL(url)
  }
}
