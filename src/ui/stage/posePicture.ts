import { sideWord } from '../../core/body/side'
import type { Combination } from '../../core/combination/combination'
import type { Dancing } from '../../core/combination/dancing'
import type { Dancers } from '../../core/pose/dancers'
import { posesSvg } from '../../core/skin/posesSvg'
import { createFrames, standingOf, trailJoints } from '../../dancer/frames'
import type { StageColours } from '../../dancer/onStage'
import { dancerNow } from '../stores/dancer'
import { dressedNow, stageOn } from './loadStage'
import { pictureWords } from './pictureWords'
import type { stageChoice } from './stageChoice'

/** What is drawn in space. */
interface SpaceWish {
  readonly combination: Combination
  readonly dancers: Dancers
  readonly dancing: Dancing
  readonly choice: ReturnType<typeof stageChoice.getState>
  readonly colours: StageColours
}

/** What is to be seen on the picture of a moment. */
export interface PoseWish extends SpaceWish {
  /** Ticks from the start of the combination. */
  readonly at: number
  /** Where that is, as it is said: `A3&`. */
  readonly place: string
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
  const whose = pictureWords(choice.view, dancers(dancing))
  if (wish.inSpace)
    await inSpace(wish, width, height, (drawn) => {
      drawn(at)
      pen.drawImage(drawn.canvas, 0, 0, width, height)
    })
  else {
    pen.fillStyle = '#fff'
    pen.fillRect(0, 0, width, height)
    const { look } = dancerNow.getState()
    const svg = posesSvg('', '', [{ pose: dancers(dancing).poseAt(at), label: '' }], choice.view, {
      look,
      families: combination.families,
    })
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

/** Drawn twice as fine as it is shown, so that edges are smooth with any drawer. */
const FINE = 2

/** Draws moments of a dance, one after the other, for whoever copies them. */
async function inSpace(
  { combination, dancers, dancing, choice, colours }: SpaceWish,
  width: number,
  height: number,
  use: (drawn: ((at: number) => void) & { readonly canvas: HTMLCanvasElement }) => void,
): Promise<void> {
  const canvas = document.createElement('canvas')
  const [stage, dressed] = await Promise.all([
    stageOn(canvas, colours),
    dressedNow(combination.families),
  ])
  try {
    stage.resize(width, height, FINE)
    const frames = createFrames(trailJoints(undefined))
    const stands = standingOf(dancers)
    const draw = (at: number) =>
      stage.draw(frames.at(stands({ dancing, tick: at, seam: undefined }, choice), choice), {
        dressed,
        view: choice.view,
        ...dancerNow.getState(),
      })
    use(Object.assign(draw, { canvas }))
  } finally {
    stage.dispose()
  }
}

const CELL = { width: 300, height: 400 } as const
const A_ROW = 4
const ROOM = 56

/** Key poses beside each other as one picture, each with its count. */
export async function posesPicture(
  wish: SpaceWish,
  title: string,
  poses: readonly { readonly at: number; readonly label: string }[],
): Promise<Blob | null> {
  const canvas = document.createElement('canvas')
  const rows = Math.ceil(poses.length / A_ROW)
  canvas.width = Math.min(A_ROW, poses.length) * CELL.width
  canvas.height = ROOM + rows * CELL.height
  const pen = canvas.getContext('2d')
  if (!pen) return null
  pen.fillStyle = wish.colours.air
  pen.fillRect(0, 0, canvas.width, canvas.height)
  const write = (text: string, size: number, x: number, y: number) => {
    pen.fillStyle = wish.colours.ink
    pen.font = `700 ${size}px Figtree, sans-serif`
    pen.fillText(text, x, y, canvas.width - x)
  }
  await inSpace(wish, CELL.width, CELL.height, (drawn) => {
    for (const [i, { at, label }] of poses.entries()) {
      const x = (i % A_ROW) * CELL.width
      const y = ROOM + Math.floor(i / A_ROW) * CELL.height
      drawn(at)
      pen.drawImage(drawn.canvas, x, y, CELL.width, CELL.height)
      write(label, 22, x + 12, y + CELL.height - 14)
    }
  })
  write(title, 24, 14, 30)
  write(pictureWords(wish.choice.view, wish.dancers(wish.dancing)), 15, 14, 50)
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
