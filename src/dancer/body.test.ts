import fc from 'fast-check'
import { Color, InstancedMesh, Matrix4, Mesh, type MeshLambertMaterial, Vector3 } from 'three'
import { describe, expect, it } from 'vitest'
import { anyCombination } from '../../tests/arbitraries'
import { holds } from '../../tests/holds'
import { LAYERS } from '../core/body/layers'
import { vocabulary } from '../core/moves/vocabulary'
import { dancerOf } from '../core/pose/dancer'
import { JOINTS, jointOf, type Pose } from '../core/pose/joints'
import { simulate } from '../core/simulate/simulate'
import { type Body, type BodyColours, createBody } from './body'

const colours: BodyColours = {
  layers: { feet: '#102030', hips: '#c05010', torso: '#803060', arms: '#207070', head: '#b08010' },
  skin: '#a06040',
  hair: '#201010',
  band: '#e0a030',
  quiet: '#d0c0b0',
}

const anyPose = fc
  .tuple(anyCombination(), fc.double({ min: -10, max: 120, noNaN: true }))
  .map(([combination, tick]) => dancerOf(simulate(combination, vocabulary)).poseAt(tick))

const parts = (body: Body) => body.group.children.filter((child) => child instanceof Mesh)
const instances = (body: Body) => parts(body).filter((mesh) => mesh instanceof InstancedMesh)
const tubes = (body: Body) => parts(body).filter((mesh) => !(mesh instanceof InstancedMesh))

const matrixOf = (mesh: InstancedMesh, i: number) => {
  const matrix = new Matrix4()
  mesh.getMatrixAt(i, matrix)
  return matrix
}
/** A joint as the stage has it: forward of the room is away, -z. */
const staged = (pose: Pose, joint: (typeof JOINTS)[number]) => {
  const [right, up, forward] = jointOf(pose, joint)
  return new Vector3(right, up, -forward)
}

describe('the body of the figure', () => {
  it('is laid from joint to joint, right side out, whatever is danced', () => {
    const body = createBody(colours)
    holds(
      fc.property(anyPose, fc.constantFrom(0.9, 1, 1.15), (pose, build) => {
        body.setPose(pose, build)
        const joints = JOINTS.map((joint) => staged(pose, joint))
        const near = (point: Vector3) => Math.min(...joints.map((joint) => joint.distanceTo(point)))
        const [limbs, balls] = instances(body)
        if (!limbs || !balls) throw new Error('no limbs')
        for (let i = 0; i < limbs.count; i++) {
          const matrix = matrixOf(limbs, i)
          // A limb goes from 0 to 1 along its own up.
          expect(near(new Vector3(0, 0, 0).applyMatrix4(matrix))).toBeLessThan(1e-5)
          expect(near(new Vector3(0, 1, 0).applyMatrix4(matrix))).toBeLessThan(1e-5)
          expect(matrix.determinant()).toBeGreaterThan(0)
        }
        for (let i = 0; i < balls.count; i++) {
          const matrix = matrixOf(balls, i)
          expect(near(new Vector3().setFromMatrixPosition(matrix))).toBeLessThan(0.13)
          expect(matrix.determinant()).toBeGreaterThan(0)
        }
      }),
      { numRuns: 80, seed: 581 },
    )
  })

  it('has a trunk that is closed round its middle, lit from outside', () => {
    const body = createBody(colours)
    holds(
      fc.property(anyPose, (pose) => {
        body.setPose(pose, 1)
        const [pelvis, neck] = [staged(pose, 'pelvis'), staged(pose, 'neck')]
        for (const { geometry } of tubes(body)) {
          const points = geometry.getAttribute('position')
          const normals = geometry.getAttribute('normal')
          for (let i = 0; i < points.count; i++) {
            const point = new Vector3().fromBufferAttribute(points, i)
            expect(point.distanceTo(pelvis)).toBeLessThan(0.75)
            expect(new Vector3().fromBufferAttribute(normals, i).length()).toBeCloseTo(1, 4)
          }
          for (const index of geometry.getIndex()?.array ?? [])
            expect(index).toBeLessThan(points.count)
        }
        // Torso and hips meet: the ring they share is the same in both.
        const [torso, hips] = tubes(body).map(({ geometry }) => geometry.getAttribute('position'))
        if (!torso || !hips) throw new Error('no trunk')
        const last = hips.count - 2 - 20
        for (let i = 0; i < 20; i++)
          expect(
            new Vector3()
              .fromBufferAttribute(torso, i)
              .distanceTo(new Vector3().fromBufferAttribute(hips, last + i)),
          ).toBeLessThan(1e-6)
        expect(neck.distanceTo(pelvis)).toBeGreaterThan(0.2)
      }),
      { numRuns: 40, seed: 582 },
    )
  })

  it('knows the layer of each piece, and makes the looked-at one glow and the others quiet', () => {
    const body = createBody(colours)
    const [limbs, balls, band] = instances(body)
    if (!limbs || !balls || !band) throw new Error('no pieces')
    const layers = new Set<unknown>()
    for (const mesh of [limbs, balls])
      for (let i = 0; i < mesh.count; i++) layers.add(body.layerOf(mesh, i))
    expect([...layers].sort()).toEqual(['arms', 'feet', 'head'])
    expect(body.layerOf(band, 3)).toBe('hips')
    expect(tubes(body).map((mesh) => body.layerOf(mesh, undefined))).toEqual(['torso', 'hips'])

    const shade = (mesh: Mesh) => (mesh.material as MeshLambertMaterial).color.clone()
    const [torso, hips] = tubes(body)
    if (!torso || !hips) throw new Error('no trunk')
    const usual = { torso: shade(torso), hips: shade(hips) }
    expect(usual.torso.equals(new Color(colours.layers.torso))).toBe(true)
    for (const layer of LAYERS) {
      body.highlight(layer)
      const isTorso = layer === 'torso'
      expect(shade(torso).equals(usual.torso)).toBe(false)
      const toQuiet = (color: Color) => {
        const quiet = new Color(colours.quiet)
        return Math.hypot(color.r - quiet.r, color.g - quiet.g, color.b - quiet.b)
      }
      if (!isTorso) expect(toQuiet(shade(torso))).toBeLessThan(toQuiet(usual.torso))
      else expect(shade(torso).r).toBeGreaterThan(usual.torso.r)
    }
    body.highlight(undefined)
    expect(shade(torso).equals(usual.torso)).toBe(true)
    body.setColours({ ...colours, layers: { ...colours.layers, hips: '#0000ff' } })
    expect(shade(hips).equals(new Color('#0000ff'))).toBe(true)
    body.dispose()
  })
})
