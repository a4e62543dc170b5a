import {
  BufferAttribute,
  BufferGeometry,
  DoubleSide,
  DynamicDrawUsage,
  Group,
  Mesh,
  ShaderMaterial,
  type Vector3,
} from 'three'
import type { CarriedShape } from '../core/pose/carrying'
import { inkInto, newInk } from './ink'
import type { OnStage, StageColours } from './onStage'

/** Half the thickness of a stick, in metres. */
const STICK_HALF = 0.012
/** How much of what is behind a cloth is not seen through it. */
const COVERS = { veil: 0.74, scarf: 0.82, skirt: 1, fan: 0.95, stick: 1 } as const

interface Drawn {
  readonly mesh: Mesh
  readonly geometry: BufferGeometry
  readonly places: BufferAttribute
  readonly normals: BufferAttribute
  readonly material: ShaderMaterial
}

/** What is carried, drawn as nets: cloth that light falls through, sticks, fans. */
export function createCarried(uKey: { readonly value: Vector3 }) {
  const group = new Group()
  const nets = new Map<string, Drawn>()
  const make = (columns: number, rows: number): Drawn => {
    const geometry = new BufferGeometry()
    const places = new BufferAttribute(new Float32Array(3 * columns * rows), 3)
    const normals = new BufferAttribute(new Float32Array(3 * columns * rows), 3)
    for (const one of [places, normals]) one.setUsage(DynamicDrawUsage)
    geometry.setAttribute('position', places)
    geometry.setAttribute('normal', normals)
    const index: number[] = []
    for (let j = 0; j + 1 < rows; j++)
      for (let i = 0; i + 1 < columns; i++) {
        const a = j * columns + i
        index.push(a, a + columns, a + 1, a + 1, a + columns, a + columns + 1)
      }
    geometry.setIndex(index)
    const material = new ShaderMaterial({
      uniforms: { uInk: { value: newInk('#fff') }, uCover: { value: 1 }, uKey },
      transparent: true,
      side: DoubleSide,
      vertexShader: `varying vec3 vNormal_;
void main() { vNormal_ = normal; gl_Position = projectionMatrix * modelViewMatrix * vec4(position, 1.); }`,
      // Light falls on it from before and through it from behind.
      fragmentShader: `uniform vec3 uInk; uniform float uCover; uniform vec3 uKey; varying vec3 vNormal_;
void main() {
  float lit = abs(dot(normalize(vNormal_), normalize(uKey)));
  gl_FragColor = vec4(uInk * (.62 + .5 * lit), uCover);
}`,
    })
    const mesh = new Mesh(geometry, material)
    mesh.frustumCulled = false
    mesh.renderOrder = 2
    group.add(mesh)
    return { mesh, geometry, places, normals, material }
  }
  return {
    group,
    draw(
      figures: readonly OnStage[],
      asideOf: (one: OnStage) => readonly [number, number],
      { parts }: StageColours,
    ) {
      for (const { mesh } of nets.values()) mesh.visible = false
      for (const [i, one] of figures.entries()) {
        const [dx, dz] = asideOf(one)
        for (const [k, shape] of one.carried.entries()) {
          if (!shape.isHere) continue
          const isStick = shape.prop.kind === 'stick'
          const [columns, rows] = isStick ? [2, 5] : [shape.columns, shape.rows]
          const key = `${i} ${k} ${columns} ${rows}`
          const net = nets.get(key) ?? make(columns, rows)
          nets.set(key, net)
          net.mesh.visible = true
          net.mesh.position.set(dx, 0, dz)
          if (isStick) layStick(net.places, shape)
          else lay(net.places, shape)
          net.geometry.computeVertexNormals()
          net.normals.needsUpdate = true
          const { uInk, uCover } = net.material.uniforms
          inkInto(
            uInk?.value as Vector3,
            parts[(k + 2 + (one.part?.index ?? 0)) % parts.length] ?? '#a33',
          )
          if (uCover) uCover.value = COVERS[shape.prop.kind]
        }
      }
    },
    dispose() {
      for (const { geometry, material } of nets.values()) {
        geometry.dispose()
        material.dispose()
      }
    },
  }
}

/** The forward of the room is away from who looks from behind: -z. */
function lay(places: BufferAttribute, { points }: CarriedShape): void {
  for (let n = 0; n < places.count; n++)
    places.setXYZ(
      n,
      points[3 * n] as number,
      points[3 * n + 1] as number,
      -(points[3 * n + 2] as number),
    )
  places.needsUpdate = true
}

/** A stick as a tube of four sides between its ends. */
function layStick(places: BufferAttribute, { points }: CarriedShape): void {
  const end = (n: number, k: number) => points[3 * n + k] as number
  const way = [0, 1, 2].map((k) => end(1, k) - end(0, k))
  const long = Math.hypot(...way) || 1
  const [x = 0, y = 0, z = 0] = way.map((one) => one / long)
  // Any two ways across it.
  const flat = Math.hypot(x, z)
  const a = flat < 1e-3 ? [1, 0, 0] : [z / flat, 0, -x / flat]
  const b = [
    y * (a[2] ?? 0) - z * (a[1] ?? 0),
    z * (a[0] ?? 0) - x * (a[2] ?? 0),
    x * (a[1] ?? 0) - y * (a[0] ?? 0),
  ]
  for (let j = 0; j < 5; j++) {
    const angle = (j * Math.PI) / 2
    for (let n = 0; n < 2; n++) {
      const [px, py, pz] = [0, 1, 2].map(
        (k) =>
          end(n, k) + STICK_HALF * (Math.cos(angle) * (a[k] ?? 0) + Math.sin(angle) * (b[k] ?? 0)),
      )
      places.setXYZ(2 * j + n, px ?? 0, py ?? 0, -(pz ?? 0))
    }
  }
  places.needsUpdate = true
}
