// Draws a contact sheet: eight phases of each move of a layer, near, from where it is seen best.

import type { Layer } from '../../src/core/body/layers'
import { vocabulary } from '../../src/core/moves/vocabulary'
import { bestLook, moveLoop } from '../../src/core/pose/moveLoop'
import { dress } from '../../src/core/skin/dress'
import { frameOf } from '../../src/dancer/camera'
import { createFrames } from '../../src/dancer/frames'
import { createStage } from '../../src/dancer/stage'
import { coloursOf } from '../../src/ui/stage/openStage'

const asked = new URLSearchParams(location.search)
const layer = (asked.get('layer') ?? 'hips') as Layer
const from = Number(asked.get('from') ?? 0)
const count = Number(asked.get('count') ?? 24)
const [wide, high, label] = [78, 96, 18]
const canvas = document.createElement('canvas')
const stage = createStage(canvas, coloursOf(document.documentElement), { isSmooth: true })
const dressed = dress({
  shape: 'woman',
  hair: 'braid',
  clothes: { top: 'short', waist: 'bare', legs: 'leggings', hips: 'scarf' },
  detail: 1,
})
stage.resize(wide, high, 3)
const moves = vocabulary.moves.filter((move) => move.layer === layer).slice(from, from + count)
const rows = Math.ceil(moves.length / 2)
const sheet = document.createElement('canvas')
sheet.width = 1280
sheet.height = rows * (high + label)
document.body.append(sheet)
const pen = sheet.getContext('2d') as CanvasRenderingContext2D
pen.font = '600 13px sans-serif'
pen.fillStyle = '#2a1826'
const frames = createFrames([])
const choice = { trails: false, ghost: 'none' } as const
for (const [i, move] of moves.entries()) {
  const loop = moveLoop(move, 'R', vocabulary)
  const { view, isRaised } = bestLook(loop)
  const [x, y] = [(i % 2) * 640, Math.floor(i / 2) * (high + label)]
  pen.fillText(`${move.name} (${view}${isRaised ? ', raised' : ''})`, x + 6, y + 13)
  for (let phase = 0; phase < 8; phase++) {
    const tick = (phase * loop.length) / 8
    stage.draw(frames.at([{ dancer: loop.dancer, tick, aside: 0 }], choice), {
      dressed,
      view,
      build: 1,
      scale: 1,
      frame: frameOf(loop),
      isRaised,
    })
    pen.drawImage(canvas, x + phase * 79, y + label, wide, high)
  }
}
document.body.dataset.done = 'true'
