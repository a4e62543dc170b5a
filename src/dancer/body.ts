import {
  BufferAttribute,
  BufferGeometry,
  Color,
  CylinderGeometry,
  DynamicDrawUsage,
  Group,
  InstancedMesh,
  Matrix4,
  Mesh,
  MeshLambertMaterial,
  SphereGeometry,
  Vector3,
} from 'three'
import type { Layer } from '../core/body/layers'
import { SIDES } from '../core/body/side'
import { type Joint, type Pose, placeOfJoint } from '../core/pose/joints'
import { BAND_RING, LAST_HIP_RING, RING_COUNT, RING_SIZE, trunkInto } from '../core/pose/trunkShape'

/** The colours of a figure, as CSS writes them. */
export interface BodyColours {
  readonly layers: Readonly<Record<Layer, string>>
  readonly skin: string
  readonly hair: string
  readonly band: string
  /** What a layer fades to while another one is looked at. */
  readonly quiet: string
}

const AROUND = 20
const BEADS = 30
const SKIN = 'skin'
type Three = readonly [number, number, number]
type Tone = Layer | typeof SKIN | 'hair' | 'band'

/** Unit shapes, shared by all figures: along y from 0 to 1, or around the middle. */
const shapes = {
  limb: new CylinderGeometry(0.8, 1, 1, 12, 1, true).translate(0, 0.5, 0),
  ball: new SphereGeometry(1, 16, 12),
  bead: new SphereGeometry(1, 8, 6),
}

const v = new Vector3()
const m = new Matrix4()
const x = new Vector3()
const y = new Vector3()
const z = new Vector3()

/** What one piece of the body is painted as. */
interface Painted {
  readonly layer: Layer
  readonly tone: Tone
}

/** A limb between two joints: thicker where it begins. */
interface Limb extends Painted {
  readonly from: Joint
  readonly to: Joint
  readonly thick: number
}

/** A ball that is laid where the pose says. */
interface Ball extends Painted {
  readonly lay: (matrix: Matrix4, pose: Pose, build: number) => void
}

/** One dancer as meshes. Forward of the room is away from the one who looks from behind: -z. */
export interface Body {
  readonly group: Group
  readonly setPose: (pose: Pose, build: number) => void
  readonly highlight: (layer: Layer | undefined) => void
  readonly setColours: (colours: BodyColours) => void
  /** Which layer a piece of this body belongs to. */
  readonly layerOf: (mesh: object, piece: number | undefined) => Layer | undefined
  readonly dispose: () => void
}

export interface BodyOptions {
  /** Seen through: the pose that comes next. */
  readonly ghost?: boolean
}

/** All limbs and all balls of a body, in the order they are drawn. */
function piecesOf(): { limbs: readonly Limb[]; balls: readonly Ball[] } {
  const limbs: Limb[] = []
  const balls: Ball[] = []
  const limb = (layer: Layer, tone: Tone, from: Joint, to: Joint, thick: number) => {
    limbs.push({ layer, tone, from, to, thick })
  }
  const round = (layer: Layer, tone: Tone, at: Joint, size: number) => {
    const o = placeOfJoint[at]
    balls.push({
      layer,
      tone,
      lay(matrix, { joints }, build) {
        matrix.makeScale(size * build, size * build, size * build)
        matrix.setPosition(joints[o] as number, joints[o + 1] as number, -(joints[o + 2] as number))
      },
    })
  }
  const ofHead = (tone: Tone, off: Three, size: Three) => {
    const at = placeOfJoint.head
    balls.push({
      layer: 'head',
      tone,
      lay: (matrix, pose) => turned(matrix, pose.head, pose.joints, at, off, size),
    })
  }
  for (const side of SIDES) {
    limb('feet', 'feet', `knee${side}`, `hip${side}`, 0.062)
    limb('feet', 'feet', `ankle${side}`, `knee${side}`, 0.042)
    round('feet', 'feet', `knee${side}`, 0.056)
    round('feet', 'feet', `hip${side}`, 0.074)
    round('feet', SKIN, `ankle${side}`, 0.036)
    limb('feet', SKIN, `heel${side}`, `ball${side}`, 0.034)
    limb('feet', SKIN, `ball${side}`, `toe${side}`, 0.032)
    round('feet', SKIN, `heel${side}`, 0.034)
    round('feet', SKIN, `toe${side}`, 0.026)
    round('arms', 'arms', `shoulder${side}`, 0.058)
    limb('arms', 'arms', `elbow${side}`, `shoulder${side}`, 0.042)
    round('arms', 'arms', `elbow${side}`, 0.041)
    limb('arms', SKIN, `elbow${side}`, `wrist${side}`, 0.036)
    round('arms', SKIN, `wrist${side}`, 0.028)
    balls.push({
      layer: 'arms',
      tone: SKIN,
      lay: (matrix, pose, build) => handInto(matrix, pose, side === 'R' ? 0 : 3, side, build),
    })
  }
  limb('head', SKIN, 'neck', 'head', 0.044)
  ofHead(SKIN, [0, 0, 0], [0.078, 0.108, 0.092])
  ofHead(SKIN, [0, -0.012, 0.092], [0.013, 0.02, 0.016])
  ofHead('hair', [0, 0.02, -0.018], [0.083, 0.102, 0.09])
  ofHead('hair', [0, 0.055, -0.115], [0.045, 0.045, 0.045])
  ofHead('head', [0, 0.055, -0.095], [0.03, 0.05, 0.03])
  return { limbs, balls }
}

/** Makes a dancer of few meshes: what is drawn in one go costs one call, however many pieces it has. */
export function createBody(colours: BodyColours, { ghost = false }: BodyOptions = {}): Body {
  const group = new Group()
  const material = () =>
    new MeshLambertMaterial(ghost ? { transparent: true, opacity: 0.22, depthWrite: false } : {})
  const { limbs, balls } = piecesOf()
  const ready = <T extends Mesh>(mesh: T): T => {
    mesh.castShadow = !ghost
    mesh.frustumCulled = false
    group.add(mesh)
    return mesh
  }
  const many = (shape: BufferGeometry, count: number) => {
    const mesh = ready(new InstancedMesh(shape, material(), count))
    mesh.instanceMatrix.setUsage(DynamicDrawUsage)
    return mesh
  }
  const limbMesh = many(shapes.limb, limbs.length)
  const ballMesh = many(shapes.ball, balls.length)
  const band = many(shapes.bead, BEADS)
  const torso = ready(new Mesh(tube(LAST_HIP_RING, RING_COUNT - 1), material()))
  const hips = ready(new Mesh(tube(0, LAST_HIP_RING), material()))
  const meshes = [limbMesh, ballMesh, band, torso, hips]
  const rings = new Float64Array(RING_COUNT * RING_SIZE)

  let now = colours
  let looked: Layer | undefined
  const colour = new Color()
  const quiet = new Color()
  const colourOf = ({ layer, tone }: Painted): Color => {
    const own =
      tone === SKIN
        ? now.skin
        : tone === 'hair'
          ? now.hair
          : tone === 'band'
            ? now.band
            : now.layers[tone]
    colour.set(own)
    if (looked !== undefined && layer !== looked && layer !== 'feet')
      colour.lerp(quiet.set(now.quiet), 0.72)
    // What is looked at glows.
    if (layer === looked) colour.multiplyScalar(1.25)
    return colour
  }
  const paint = () => {
    for (const [mesh, pieces] of [
      [limbMesh, limbs],
      [ballMesh, balls],
    ] as const) {
      for (const [i, piece] of pieces.entries()) mesh.setColorAt(i, colourOf(piece))
      if (mesh.instanceColor) mesh.instanceColor.needsUpdate = true
    }
    band.material.color.copy(colourOf({ layer: 'hips', tone: 'band' }))
    torso.material.color.copy(colourOf({ layer: 'torso', tone: 'torso' }))
    hips.material.color.copy(colourOf({ layer: 'hips', tone: 'hips' }))
  }
  paint()

  return {
    group,
    setPose(pose, build) {
      const { joints } = pose
      for (let i = 0; i < limbs.length; i++) {
        const { from, to, thick } = limbs[i] as Limb
        between(m, joints, placeOfJoint[from], placeOfJoint[to], thick * build)
        limbMesh.setMatrixAt(i, m)
      }
      for (let i = 0; i < balls.length; i++) {
        ;(balls[i] as Ball).lay(m, pose, build)
        ballMesh.setMatrixAt(i, m)
      }
      limbMesh.instanceMatrix.needsUpdate = true
      ballMesh.instanceMatrix.needsUpdate = true
      trunkInto(pose, rings, build)
      fill(torso.geometry, rings, LAST_HIP_RING, RING_COUNT - 1)
      fill(hips.geometry, rings, 0, LAST_HIP_RING)
      beadsInto(band, rings)
    },
    highlight(layer) {
      if (layer === looked) return
      looked = layer
      paint()
    },
    setColours(next) {
      now = next
      paint()
    },
    layerOf(mesh, piece = 0) {
      if (mesh === limbMesh) return limbs[piece]?.layer
      if (mesh === ballMesh) return balls[piece]?.layer
      return mesh === torso ? 'torso' : 'hips'
    },
    dispose() {
      for (const mesh of meshes) mesh.material.dispose()
      for (const mesh of [limbMesh, ballMesh, band]) mesh.dispose()
      torso.geometry.dispose()
      hips.geometry.dispose()
    },
  }
}

/** Lays a unit limb between two joints. */
function between(
  matrix: Matrix4,
  joints: Float64Array,
  from: number,
  to: number,
  thick: number,
): void {
  y.set(
    (joints[to] as number) - (joints[from] as number),
    (joints[to + 1] as number) - (joints[from + 1] as number),
    -((joints[to + 2] as number) - (joints[from + 2] as number)),
  )
  const long = y.length() || 1e-9
  y.divideScalar(long)
  // Any direction across will do: a limb is round.
  x.set(Math.abs(y.x) < 0.9 ? 1 : 0, 0, Math.abs(y.x) < 0.9 ? 0 : 1)
  z.crossVectors(x, y).normalize()
  x.crossVectors(y, z)
  matrix.makeBasis(x.multiplyScalar(thick), y.multiplyScalar(long), z.multiplyScalar(thick))
  matrix.setPosition(
    joints[from] as number,
    joints[from + 1] as number,
    -(joints[from + 2] as number),
  )
}

/** A ball in the frame of a part of the body: off its joint, longer one way than another. */
function turned(
  matrix: Matrix4,
  frame: Float64Array,
  joints: Float64Array,
  at: number,
  [right, up, forward]: readonly [number, number, number],
  size: readonly [number, number, number],
): void {
  x.set(frame[0] as number, frame[1] as number, -(frame[2] as number))
  y.set(frame[3] as number, frame[4] as number, -(frame[5] as number))
  z.set(frame[6] as number, frame[7] as number, -(frame[8] as number))
  v.set(joints[at] as number, joints[at + 1] as number, -(joints[at + 2] as number))
    .addScaledVector(x, right)
    .addScaledVector(y, up)
    .addScaledVector(z, forward)
  // Turned round, so that the basis stays right-handed.
  z.negate()
  matrix.makeBasis(x.multiplyScalar(size[0]), y.multiplyScalar(size[1]), z.multiplyScalar(size[2]))
  matrix.setPosition(v)
}

/** A hand: long towards the fingers, flat where the palm looks. */
function handInto(
  matrix: Matrix4,
  { joints, palms }: Pose,
  o: number,
  side: 'R' | 'L',
  build: number,
): void {
  const wrist = placeOfJoint[`wrist${side}`]
  const tips = placeOfJoint[`fingers${side}`]
  y.set(
    (joints[tips] as number) - (joints[wrist] as number),
    (joints[tips + 1] as number) - (joints[wrist + 1] as number),
    -((joints[tips + 2] as number) - (joints[wrist + 2] as number)),
  )
  const long = y.length() || 1e-9
  y.divideScalar(long)
  z.set(palms[o] as number, palms[o + 1] as number, -(palms[o + 2] as number))
  z.addScaledVector(y, -z.dot(y))
  if (z.lengthSq() < 1e-6) z.set(y.y, -y.x, 0.01)
  z.normalize()
  x.crossVectors(y, z)
  v.set(
    joints[wrist] as number,
    joints[wrist + 1] as number,
    -(joints[wrist + 2] as number),
  ).addScaledVector(y, long * 0.52)
  matrix.makeBasis(
    x.multiplyScalar(0.036 * build),
    y.multiplyScalar(long * 0.56),
    z.multiplyScalar(0.019 * build),
  )
  matrix.setPosition(v)
}

/** An open tube of rings, closed by a cap at both ends. */
function tube(first: number, last: number): BufferGeometry {
  const rows = last - first + 1
  const geometry = new BufferGeometry()
  const points = new BufferAttribute(new Float32Array((rows * AROUND + 2) * 3), 3)
  points.setUsage(DynamicDrawUsage)
  geometry.setAttribute('position', points)
  geometry.setAttribute(
    'normal',
    new BufferAttribute(new Float32Array(points.array.length), 3).setUsage(DynamicDrawUsage),
  )
  const index: number[] = []
  for (let row = 0; row + 1 < rows; row++)
    for (let i = 0; i < AROUND; i++) {
      const [a, b] = [row * AROUND + i, row * AROUND + ((i + 1) % AROUND)]
      index.push(a, b, a + AROUND, b, b + AROUND, a + AROUND)
    }
  const [under, over] = [rows * AROUND, rows * AROUND + 1]
  for (let i = 0; i < AROUND; i++) {
    const next = (i + 1) % AROUND
    index.push(under, next, i)
    index.push(over, (rows - 1) * AROUND + i, (rows - 1) * AROUND + next)
  }
  geometry.setIndex(index)
  return geometry
}

const COS = Array.from({ length: AROUND }, (_, i) => Math.cos((2 * Math.PI * i) / AROUND))
const SIN = Array.from({ length: AROUND }, (_, i) => Math.sin((2 * Math.PI * i) / AROUND))

/** Writes the rings into a tube. Its normals point away from the middle of each ring. */
function fill(geometry: BufferGeometry, rings: Float64Array, first: number, last: number): void {
  const points = geometry.getAttribute('position') as BufferAttribute
  const normals = geometry.getAttribute('normal') as BufferAttribute
  const [p, q] = [points.array, normals.array]
  let k = 0
  for (let ring = first; ring <= last; ring++) {
    const o = ring * RING_SIZE
    const [a, b, c] = [rings[o] as number, rings[o + 1] as number, rings[o + 2] as number]
    for (let i = 0; i < AROUND; i++) {
      const [cos, sin] = [COS[i] as number, SIN[i] as number]
      const dx = (rings[o + 3] as number) * cos + (rings[o + 6] as number) * sin
      const dy = (rings[o + 4] as number) * cos + (rings[o + 7] as number) * sin
      const dz = (rings[o + 5] as number) * cos + (rings[o + 8] as number) * sin
      const long = Math.sqrt(dx * dx + dy * dy + dz * dz) || 1
      p[k] = a + dx
      p[k + 1] = b + dy
      p[k + 2] = -(c + dz)
      q[k] = dx / long
      q[k + 1] = dy / long
      q[k + 2] = -dz / long
      k += 3
    }
  }
  for (const ring of [first, last]) {
    const o = ring * RING_SIZE
    p[k] = rings[o] as number
    p[k + 1] = rings[o + 1] as number
    p[k + 2] = -(rings[o + 2] as number)
    q[k] = 0
    q[k + 1] = ring === first ? -1 : 1
    q[k + 2] = 0
    k += 3
  }
  points.needsUpdate = true
  normals.needsUpdate = true
}

/** Beads round the hips, every third hanging a little lower. */
function beadsInto(band: InstancedMesh, rings: Float64Array): void {
  const o = BAND_RING * RING_SIZE
  for (let i = 0; i < BEADS; i++) {
    const angle = (2 * Math.PI * i) / BEADS
    const [cos, sin] = [Math.cos(angle) * 1.05, Math.sin(angle) * 1.05]
    const size = i % 3 === 0 ? 0.013 : 0.0095
    m.makeScale(size, size, size)
    m.setPosition(
      (rings[o] as number) + (rings[o + 3] as number) * cos + (rings[o + 6] as number) * sin,
      (rings[o + 1] as number) +
        (rings[o + 4] as number) * cos +
        (rings[o + 7] as number) * sin -
        (i % 3 === 0 ? 0.014 : 0),
      -((rings[o + 2] as number) + (rings[o + 5] as number) * cos + (rings[o + 8] as number) * sin),
    )
    band.setMatrixAt(i, m)
  }
  band.instanceMatrix.needsUpdate = true
}
