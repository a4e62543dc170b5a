// Draws a contact sheet: eight phases of each move of a layer, from where it is seen best.

import { vocabulary } from '../../src/core/moves/vocabulary'
import { newPose } from '../../src/core/pose/joints'
import { bestView, moveLoop } from '../../src/core/pose/moveLoop'
import { createStage } from '../../src/dancer/stage'
import { coloursOf } from '../../src/ui/stage/openStage'

const asked = new URLSearchParams(location.search)
const layer = asked.get('layer') ?? 'hips'
const from = Number(asked.get('from') ?? 0)
const count = Number(asked.get('count') ?? 24)
const [wide, high, label] = [78, 128, 18]
const canvas = document.createElement('canvas')
const stage = createStage(canvas, coloursOf(document.documentElement))
stage.resize(wide, high, 2)
const moves = vocabulary.moves.filter((move) => move.layer === layer).slice(from, from + count)
const rows = Math.ceil(moves.length / 2)
const sheet = document.createElement('canvas')
sheet.width = 1280
sheet.height = rows * (high + label)
document.body.append(sheet)
const pen = sheet.getContext('2d') as CanvasRenderingContext2D
pen.font = '600 13px sans-serif'
pen.fillStyle = '#2a1826'
const pose = newPose()
for (const [i, move] of moves.entries()) {
  const loop = moveLoop(move, 'R', vocabulary)
  const view = bestView(loop)
  stage.setView(view)
  const [x, y] = [(i % 2) * 640, Math.floor(i / 2) * (high + label)]
  pen.fillText(`${move.name} (${view})`, x + 6, y + 13)
  for (let phase = 0; phase < 8; phase++) {
    loop.dancer.poseAt((phase * loop.length) / 8, pose)
    stage.draw([{ pose, aside: 0, trails: [], ghost: undefined }])
    pen.drawImage(canvas, x + phase * 79, y + label, wide, high)
  }
}
document.body.dataset.done = 'true'
