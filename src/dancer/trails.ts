import {
  BufferAttribute,
  BufferGeometry,
  DoubleSide,
  DynamicDrawUsage,
  Group,
  Mesh,
  ShaderMaterial,
  Vector3,
} from 'three'
import type { Layer } from '../core/body/layers'
import type { View } from '../core/pose/views'
import { inkInto, inkOf } from './ink'
import type { OnStage, Trail } from './onStage'

/** As many points as all trails of a picture have at the most. */
const MOST_POINTS = 640
/** Metres, where it is newest: as wide as is read, with all of the dancer in the picture and near. */
const WIDE = { all: 0.03, near: 0.015 } as const
/** How much of it is seen through the body. */
const THROUGH = 0.7

const FLOOR_UP = 0.006

/** The way of the hips lies on the floor too: half of a ring is always behind the body. */
const withFloor = (trails: readonly Trail[]) =>
  trails.flatMap((one) => [
    { ...one, isOnFloor: false },
    ...(one.layer === 'hips' ? [{ ...one, isOnFloor: true }] : []),
  ])

/** Ribbons that face the camera and fade with time; from above they lie over everything. */
export function createTrails() {
  const group = new Group()
  const geometry = new BufferGeometry()
  const places = new BufferAttribute(new Float32Array(MOST_POINTS * 6), 3)
  const inks = new BufferAttribute(new Float32Array(MOST_POINTS * 8), 4)
  const index = new BufferAttribute(new Uint16Array(MOST_POINTS * 6), 1)
  for (const one of [places, inks, index]) one.setUsage(DynamicDrawUsage)
  geometry.setAttribute('position', places)
  geometry.setAttribute('ink', inks)
  geometry.setIndex(index)
  const uAir = { value: new Vector3() }
  const made = (strength: number, isSeenThrough: boolean) => {
    const material = new ShaderMaterial({
      uniforms: { uAir },
      transparent: true,
      depthWrite: false,
      depthTest: !isSeenThrough,
      side: DoubleSide,
      vertexShader: `attribute vec4 ink; varying vec4 vInk;
void main() { vInk = ink; gl_Position = projectionMatrix * modelViewMatrix * vec4(position, 1.); }`,
      // What is behind the body shows through it, lighter than any cloth.
      fragmentShader: `varying vec4 vInk; uniform vec3 uAir; void main() { gl_FragColor = vec4(${isSeenThrough ? 'uAir' : 'vInk.rgb'}, vInk.a * ${strength.toFixed(2)}); }`,
    })
    const mesh = new Mesh(geometry, material)
    mesh.frustumCulled = false
    mesh.renderOrder = isSeenThrough ? 3 : 4
    group.add(mesh)
    return material
  }
  const materials = [made(THROUGH, true), made(1, false)] as const
  return {
    group,
    draw(
      figures: readonly OnStage[],
      asideOf: (one: OnStage) => readonly [number, number],
      eye: Vector3,
      { view, isNear }: { readonly view: View; readonly isNear: boolean },
      { layers, air }: { readonly layers: Readonly<Record<Layer, string>>; readonly air: string },
    ) {
      inkInto(uAir.value, air)
      materials[1].depthTest = view !== 'above'
      const eyeX = view === 'mirror' ? -eye.x : eye.x
      let n = 0
      let corners = 0
      for (const one of figures) {
        const [dx, dz] = asideOf(one)
        for (const { points, layer, isOnFloor } of withFloor(one.trails)) {
          const count = points.length / 3
          const [r, g, b] = inkOf(layers[layer])
          for (let k = 0; k < count && n < MOST_POINTS; k++, n++) {
            const before = 3 * Math.max(0, k - 1)
            const after = 3 * Math.min(count - 1, k + 1)
            const x = (points[3 * k] as number) + dx
            const y = isOnFloor ? FLOOR_UP : (points[3 * k + 1] as number)
            const z = dz - (points[3 * k + 2] as number)
            const tx = (points[after] as number) - (points[before] as number)
            const ty = isOnFloor
              ? 0
              : (points[after + 1] as number) - (points[before + 1] as number)
            const tz = (points[before + 2] as number) - (points[after + 2] as number)
            const [vx, vy, vz] = isOnFloor ? [0, 1, 0] : [eyeX - x, eye.y - y, eye.z - z]
            // Across the way, and across where it is looked at from.
            const sx = ty * vz - tz * vy
            const sy = tz * vx - tx * vz
            const sz = tx * vy - ty * vx
            const age = k / Math.max(1, count - 1)
            const half =
              ((WIDE[isNear ? 'near' : 'all'] / 2) * (0.25 + 0.75 * age)) /
              (Math.sqrt(sx * sx + sy * sy + sz * sz) || 1)
            places.setXYZ(2 * n, x - sx * half, y - sy * half, z - sz * half)
            places.setXYZ(2 * n + 1, x + sx * half, y + sy * half, z + sz * half)
            const strength = 0.06 + 0.9 * age ** 1.6
            inks.setXYZW(2 * n, r, g, b, strength)
            inks.setXYZW(2 * n + 1, r, g, b, strength)
            if (k === 0) continue
            const o = 2 * (n - 1)
            for (const [i, corner] of [o, o + 1, o + 2, o + 1, o + 3, o + 2].entries())
              index.setX(corners + i, corner)
            corners += 6
          }
        }
      }
      group.visible = corners > 0
      geometry.setDrawRange(0, corners)
      for (const one of [places, inks, index]) one.needsUpdate = true
    },
    dispose() {
      geometry.dispose()
      for (const one of materials) one.dispose()
    },
  }
}
