import { CanvasTexture, Group, Sprite, SpriteMaterial, SRGBColorSpace, Vector3 } from 'three'
import { partMark } from '../core/house/partMarks'
import { placeOfJoint } from '../core/pose/joints'
import type { OnStage } from './onStage'

/** Metres over the head a name stands, and how high it is. */
const NAME = { over: 0.24, high: 0.11 } as const
/** Metres a mark stands before the middle of the chest, towards the camera, and its size. */
const MARK = { before: 0.24, size: 0.085 } as const
const TEXTURE = { width: 256, height: 64 } as const

interface Drawn {
  readonly sprite: Sprite
  readonly texture: CanvasTexture
  readonly pen: CanvasRenderingContext2D | null
  told: string
}

/** The marks and names of several dancers: by shape and colour on the chest, by name over the head. */
export function createBadges() {
  const group = new Group()
  const names: Drawn[] = []
  const marks: Drawn[] = []
  const get = (list: Drawn[], i: number, width: number, height: number): Drawn => {
    while (list.length <= i) {
      const canvas = document.createElement('canvas')
      canvas.width = width
      canvas.height = height
      const texture = new CanvasTexture(canvas)
      texture.colorSpace = SRGBColorSpace
      const sprite = new Sprite(
        new SpriteMaterial({ map: texture, transparent: true, depthWrite: false }),
      )
      sprite.renderOrder = 5
      group.add(sprite)
      list.push({ sprite, texture, pen: canvas.getContext('2d'), told: '' })
    }
    return list[i] as Drawn
  }
  const towards = new Vector3()
  return {
    group,
    draw(
      figures: readonly OnStage[],
      eye: Vector3,
      {
        parts,
        ink,
        air,
      }: { readonly parts: readonly string[]; readonly ink: string; readonly air: string },
      isMirror: boolean,
    ) {
      for (const one of [...names, ...marks]) one.sprite.visible = false
      for (const [i, { pose, part }] of figures.entries()) {
        if (!part) continue
        const colour = parts[part.index % parts.length] ?? ink
        const name = get(names, i, TEXTURE.width, TEXTURE.height)
        tell(name, `${part.index} ${part.name} ${colour} ${ink} ${air}`, (pen) =>
          writeName(pen, part, colour, { ink, air }),
        )
        const [head, chest] = [placeOfJoint.head, placeOfJoint.chest]
        const at = (joint: number, k: number) => pose.joints[joint + k] ?? 0
        const flip = isMirror ? -1 : 1
        name.sprite.visible = true
        name.sprite.position.set(at(head, 0), at(head, 1) + NAME.over, -at(head, 2))
        name.sprite.scale.set((flip * NAME.high * TEXTURE.width) / TEXTURE.height, NAME.high, 1)
        const mark = get(marks, i, TEXTURE.height, TEXTURE.height)
        tell(mark, `${part.index} ${colour} ${air}`, (pen) =>
          drawMark(pen, part.index, colour, air, 0),
        )
        mark.sprite.visible = true
        mark.sprite.position.set(at(chest, 0), at(chest, 1), -at(chest, 2))
        towards
          .set(flip * eye.x, eye.y, eye.z)
          .sub(mark.sprite.position)
          .normalize()
        mark.sprite.position.addScaledVector(towards, MARK.before)
        mark.sprite.scale.set(MARK.size, MARK.size, 1)
      }
    },
    dispose() {
      for (const { sprite, texture } of [...names, ...marks]) {
        texture.dispose()
        sprite.material.dispose()
      }
    },
  }
}

function tell(drawn: Drawn, told: string, draw: (pen: CanvasRenderingContext2D) => void): void {
  const { pen, texture } = drawn
  if (drawn.told === told || !pen) return
  drawn.told = told
  pen.clearRect(0, 0, pen.canvas.width, pen.canvas.height)
  draw(pen)
  texture.needsUpdate = true
}

function drawMark(
  pen: CanvasRenderingContext2D,
  index: number,
  colour: string,
  air: string,
  left: number,
): void {
  pen.save()
  pen.translate(left + 8, 8)
  pen.scale(4, 4)
  const shape = new Path2D(partMark(index))
  pen.lineWidth = 2.2
  pen.lineJoin = 'round'
  pen.strokeStyle = air
  pen.stroke(shape)
  pen.fillStyle = colour
  pen.fill(shape)
  pen.restore()
}

function writeName(
  pen: CanvasRenderingContext2D,
  { index, name }: NonNullable<OnStage['part']>,
  colour: string,
  { ink, air }: { readonly ink: string; readonly air: string },
): void {
  pen.font = '700 34px Figtree, sans-serif'
  const width = Math.min(TEXTURE.width - 72, pen.measureText(name).width)
  const left = (TEXTURE.width - width - 64) / 2
  drawMark(pen, index, colour, air, left)
  pen.textBaseline = 'middle'
  pen.lineWidth = 6
  pen.lineJoin = 'round'
  pen.strokeStyle = air
  pen.strokeText(name, left + 64, 34, TEXTURE.width - 72)
  pen.fillStyle = ink
  pen.fillText(name, left + 64, 34, TEXTURE.width - 72)
}
