import {
  BufferAttribute,
  BufferGeometry,
  CylinderGeometry,
  DataTexture,
  DoubleSide,
  DynamicDrawUsage,
  Group,
  InstancedMesh,
  type IUniform,
  LinearFilter,
  LinearMipmapNearestFilter,
  Matrix4,
  Mesh,
  NotEqualStencilFunc,
  ReplaceStencilOp,
  ShaderMaterial,
  Vector3,
} from 'three'
import { LAYERS, type Layer } from '../core/body/layers'
import type { Pose } from '../core/pose/joints'
import { BONE_COUNT } from '../core/skin/bones'
import { type Dressed, WAIST_LAYER } from '../core/skin/dress'
import { type Before, hangingThings } from '../core/skin/hang'
import type { Hanging } from '../core/skin/hanging'
import { layBones } from '../core/skin/layBones'
import type { SkinMesh } from '../core/skin/mesh'
import { SAMPLES, TONES, type Tone, type TonedSheet } from '../core/skin/paint'
import { type PatchName, SHEET, uvIn } from '../core/skin/patches'
import { newRig } from '../core/skin/rig'
import { inkInto, inkOf } from './ink'
import { LIT, type Light } from './light'

/** The colours of a figure, as CSS writes them. */
export interface BodyColours {
  readonly layers: Readonly<Record<Layer, string>>
  readonly skin: string
  readonly hair: string
  readonly band: string
  /** What a layer fades to while another one is looked at. */
  readonly quiet: string
}

/** How a dancer stands at a moment. */
interface Danced {
  readonly pose: Pose
  /** Absent where it stands still. */
  readonly before?: Before | undefined
  readonly ticksASecond: number
  /** Its height against 1.65 m, and how broad it is built. */
  readonly scale: number
  readonly build: number
}

/** One dancer as meshes. Forward of the room is away from the one who looks from behind: −z. */
export interface Body {
  readonly group: Group
  readonly dance: (danced: Danced) => void
  readonly highlight: (layer: Layer | undefined) => void
  readonly dispose: () => void
}

/** What all dancers of a stage share: their shape at rest, and the painted sheet. */
export interface Wardrobe {
  readonly setColours: (colours: BodyColours) => void
  readonly body: () => Body
  /** A pose that is seen beside the dancer, where it does not cover it. */
  readonly ghost: () => Body
  readonly dispose: () => void
}

/** What lays a shadow is drawn on a layer of its own. */
export const SHADOW_LAYER = 1
/** How far a broad dancer's skin stands off a usual one's, in metres a whole. */
const BROAD = 0.11

const TO_PLACE = /* glsl */ `
#ifdef IS_SKIN
uniform vec4 uBones[${3 * BONE_COUNT}];
uniform float uBroad;
attribute vec2 bones;
attribute float share;
void carry(inout vec3 place, inout vec3 normal) {
  int i = int(bones.x) * 3, j = int(bones.y) * 3;
  vec4 r0 = mix(uBones[j], uBones[i], share), r1 = mix(uBones[j + 1], uBones[i + 1], share), r2 = mix(uBones[j + 2], uBones[i + 2], share);
  vec4 p = vec4(place + normal * uBroad, 1.);
  place = vec3(dot(r0, p), dot(r1, p), dot(r2, p));
  normal = vec3(dot(r0.xyz, normal), dot(r1.xyz, normal), dot(r2.xyz, normal));
}
#else
void carry(inout vec3 place, inout vec3 normal) {}
#endif`

const VERTEX = /* glsl */ `
${TO_PLACE}
${LIT}
attribute float open, layer;
uniform float uLook;
varying vec2 vUv;
varying float vQuiet;
void main() {
  vec3 place = position, facing = normal;
  carry(place, facing);
  #ifdef USE_INSTANCING
  place = (instanceMatrix * vec4(place, 1.)).xyz; facing = mat3(instanceMatrix) * facing;
  #endif
  vec4 world = modelMatrix * vec4(place, 1.);
  light(world.xyz, mat3(modelMatrix) * facing, open);
  bool isLooked = uLook < 0. || abs(layer - uLook) < .5 || (layer > ${WAIST_LAYER - 0.5} && (uLook == ${LAYERS.indexOf('hips')}. || uLook == ${LAYERS.indexOf('torso')}.));
  vQuiet = isLooked ? 0. : 1.;
  if (uLook >= 0. && isLooked) vLight *= 1.08;
  vUv = uv;
  gl_Position = projectionMatrix * viewMatrix * world;
}`

const FRAGMENT = /* glsl */ `
uniform sampler2D uSheet;
uniform vec3 uQuiet;
varying vec3 vLight, vGloss;
varying vec2 vUv;
varying float vQuiet;
void main() {
  vec4 ink = texture2D(uSheet, vUv);
  // Where a layer ends cloth is quiet up to its hem, and skin behind it not at all.
  bool isCloth = ink.a < .45;
  float quiet = step(isCloth ? .02 : .98, vQuiet);
  // What is quiet keeps its shape: skin more than cloth.
  vec3 c = mix(ink.rgb, uQuiet, quiet * (isCloth ? .5 : .3));
  gl_FragColor = vec4(c * vLight + vGloss * ink.a * (1. - .6 * quiet), 1.);
}`

/** Laid flat on the floor along the light. */
const SHADOW_VERTEX = /* glsl */ `
${TO_PLACE}
uniform vec3 uKey, uMiddle;
uniform float uHalf;
void main() {
  vec3 place = position, facing = normal;
  carry(place, facing);
  vec3 world = (modelMatrix * vec4(place, 1.)).xyz;
  vec2 floor_ = world.xz - uKey.xz * (max(0., world.y) / uKey.y);
  gl_Position = vec4((floor_ - uMiddle.xz) / uHalf, 0., 1.);
}`

const GHOST_VERTEX = /* glsl */ `
${TO_PLACE}
void main() {
  vec3 place = position, facing = normal;
  carry(place, facing);
  gl_Position = projectionMatrix * viewMatrix * modelMatrix * vec4(place, 1.);
}`

/** How much each tone shines; cloth is under 0.45. */
const GLOSS: Readonly<Partial<Record<Tone, number>>> = {
  skin: 0.6,
  cheek: 0.6,
  lips: 0.9,
  brow: 0.5,
  mouth: 0.5,
  trim: 1,
  hair: 0.8,
}
const CLOTH_GLOSS = 0.3

/** Where shadows fall. */
export interface ShadowPlace {
  readonly uMiddle: { value: Vector3 }
  readonly uHalf: { value: number }
}

/** Makes what dancers wear, once for a stage. */
export function createWardrobe(dressed: Dressed, light: Light, shadows: ShadowPlace): Wardrobe {
  const sheet = new DataTexture(
    new Uint8Array(4 * SHEET.width * SHEET.height),
    SHEET.width,
    SHEET.height,
  )
  sheet.minFilter = LinearMipmapNearestFilter
  sheet.magFilter = LinearFilter
  sheet.generateMipmaps = true
  const uSheet = { value: sheet }
  const uQuiet = { value: new Vector3() }
  const ghostInk = { value: new Vector3() }
  const skins = [
    geometryOf(dressed.skin, dressed.layers),
    geometryOf(dressed.hairCap, LAYERS.indexOf('head')),
    geometryOf(dressed.hips.mesh, LAYERS.indexOf('hips')),
  ]
  const coin = new CylinderGeometry(1, 1, 0.16, 8).rotateX(Math.PI / 2)
  const [u, v] = uvIn('strand', 0.5, 1)
  const many = coin.getAttribute('position').count
  coin.setAttribute(
    'uv',
    new BufferAttribute(
      new Float32Array(2 * many).map((_, i) => (i % 2 ? v : u)),
      2,
    ),
  )
  coin.setAttribute('open', new BufferAttribute(new Float32Array(many).fill(1), 1))
  coin.setAttribute(
    'layer',
    new BufferAttribute(new Float32Array(many).fill(LAYERS.indexOf('hips')), 1),
  )

  const drawnWith = (own: Readonly<Record<string, IUniform>>, isSkin: boolean) =>
    new ShaderMaterial({
      uniforms: { ...light.uniforms, uSheet, uQuiet, ...own },
      vertexShader: VERTEX,
      fragmentShader: FRAGMENT,
      side: DoubleSide,
      stencilWrite: true,
      stencilRef: 1,
      stencilZPass: ReplaceStencilOp,
      ...(isSkin && { defines: { IS_SKIN: '' } }),
    })
  const shadowWith = (own: Readonly<Record<string, IUniform>>, isSkin: boolean) =>
    new ShaderMaterial({
      uniforms: { uKey: light.uniforms.uKey, ...shadows, ...own },
      vertexShader: SHADOW_VERTEX,
      fragmentShader: 'void main() { gl_FragColor = vec4(1.); }',
      side: DoubleSide,
      depthTest: false,
      depthWrite: false,
      ...(isSkin && { defines: { IS_SKIN: '' } }),
    })
  const ghostWith = (own: Readonly<Record<string, IUniform>>) =>
    new ShaderMaterial({
      uniforms: { uInk: ghostInk, ...own },
      vertexShader: GHOST_VERTEX,
      fragmentShader: 'uniform vec3 uInk; void main() { gl_FragColor = vec4(uInk, .34); }',
      side: DoubleSide,
      transparent: true,
      depthTest: false,
      depthWrite: false,
      // It shows only where the dancer is not, and each point of it once.
      stencilWrite: true,
      stencilRef: 1,
      stencilFunc: NotEqualStencilFunc,
      stencilZPass: ReplaceStencilOp,
      defines: { IS_SKIN: '' },
    })

  const made = (isGhost: boolean): Body => {
    const group = new Group()
    const rig = newRig()
    const things = hangingThings(dressed.hips, dressed.wish.hair)
    const own = {
      uBones: { value: rig.rows },
      uBroad: { value: 0 },
      uLook: { value: -1 },
    }
    const material = isGhost ? ghostWith(own) : drawnWith(own, true)
    const loose = drawnWith(own, false)
    const shadow = shadowWith(own, true)
    const looseShadow = shadowWith(own, false)
    const owned: { dispose: () => void }[] = [material, loose, shadow, looseShadow]
    const add = (mesh: Mesh, isShadow = false) => {
      mesh.frustumCulled = false
      if (isShadow) mesh.layers.set(SHADOW_LAYER)
      mesh.renderOrder = isGhost ? 2 : 0
      group.add(mesh)
      return mesh
    }
    for (const { drawn, shaded } of skins) {
      add(new Mesh(drawn, material))
      if (!isGhost) add(new Mesh(shaded, shadow), true)
    }
    const hung: BufferGeometry[] = []
    if (!isGhost)
      for (const [name, one, layer] of [
        ['strand', things.strands, 'hips'],
        ['skirt', things.skirt, 'hips'],
        ['braid', things.braid, 'head'],
      ] as const) {
        if (!one) continue
        const geometry = geometryOfHanging(one, name, LAYERS.indexOf(layer))
        hung.push(geometry)
        owned.push(geometry)
        add(new Mesh(geometry, loose))
        if (name === 'skirt') add(new Mesh(geometry, looseShadow), true)
      }
    const coins =
      !isGhost && things.coins.length > 0
        ? new InstancedMesh(coin, loose, things.coins.length / 9)
        : undefined
    if (coins) {
      coins.instanceMatrix.setUsage(DynamicDrawUsage)
      add(coins)
      owned.push(coins)
    }
    return {
      group,
      dance({ pose, before, ticksASecond, scale, build }) {
        own.uBroad.value = (build - 1) * BROAD
        group.scale.setScalar(scale)
        if (isGhost) {
          layBones(rig, pose, scale)
          return
        }
        things.hang(rig, pose, scale, before, ticksASecond)
        for (const geometry of hung) {
          ;(geometry.getAttribute('position') as BufferAttribute).needsUpdate = true
          ;(geometry.getAttribute('normal') as BufferAttribute).needsUpdate = true
        }
        if (coins) layCoins(coins, things.coins)
      },
      highlight(layer) {
        own.uLook.value = layer === undefined ? -1 : LAYERS.indexOf(layer)
      },
      dispose() {
        for (const one of owned) one.dispose()
      },
    }
  }
  return {
    setColours(colours) {
      colourSheet(sheet, dressed.sheet, colours)
      inkInto(uQuiet.value, colours.quiet)
      inkInto(ghostInk.value, colours.layers.hips).multiplyScalar(0.7)
    },
    body: () => made(false),
    ghost: () => made(true),
    dispose() {
      sheet.dispose()
      coin.dispose()
      for (const { drawn, shaded } of skins) for (const one of [drawn, shaded]) one.dispose()
    },
  }
}

/** Geometry of a skin, and the same with fewer triangles for its shadow. */
function geometryOf(mesh: SkinMesh, layers: Uint8Array | number) {
  const count = mesh.shares.length
  const attributes = {
    position: new BufferAttribute(mesh.positions, 3),
    normal: new BufferAttribute(mesh.normals, 3),
    uv: new BufferAttribute(mesh.uvs, 2),
    bones: new BufferAttribute(mesh.bones, 2),
    share: new BufferAttribute(mesh.shares, 1),
    open: new BufferAttribute(mesh.open, 1),
    layer: new BufferAttribute(
      typeof layers === 'number' ? new Uint8Array(count).fill(layers) : layers,
      1,
    ),
  }
  const of = (index: Uint16Array) => {
    const geometry = new BufferGeometry()
    for (const [name, one] of Object.entries(attributes)) geometry.setAttribute(name, one)
    geometry.setIndex(new BufferAttribute(index, 1))
    return geometry
  }
  return { drawn: of(mesh.triangles), shaded: of(mesh.shadow) }
}

function geometryOfHanging(
  { positions, normals, triangles, down, shade }: Hanging,
  patch: PatchName,
  layer: number,
): BufferGeometry {
  const count = down.length
  const uvs = new Float32Array(2 * count)
  for (let i = 0; i < count; i++) uvs.set(uvIn(patch, shade[i] as number, down[i] as number), 2 * i)
  const geometry = new BufferGeometry()
  geometry.setAttribute('position', new BufferAttribute(positions, 3).setUsage(DynamicDrawUsage))
  geometry.setAttribute('normal', new BufferAttribute(normals, 3).setUsage(DynamicDrawUsage))
  geometry.setAttribute('uv', new BufferAttribute(uvs, 2))
  geometry.setAttribute('open', new BufferAttribute(new Float32Array(count).fill(1), 1))
  geometry.setAttribute('layer', new BufferAttribute(new Uint8Array(count).fill(layer), 1))
  geometry.setIndex(new BufferAttribute(triangles, 1))
  return geometry
}

/** Mixes each texel's samples in the colours of now. */
function colourSheet(sheet: DataTexture, toned: TonedSheet, colours: BodyColours): void {
  const inks = new Uint8Array(4 * TONES.length)
  for (const [i, tone] of TONES.entries()) {
    const [r, g, b] = inkOfTone(tone, colours)
    inks.set([r * 255, g * 255, b * 255, 255 * (GLOSS[tone] ?? CLOTH_GLOSS)], 4 * i)
  }
  const data = sheet.image.data as Uint8Array
  const count = data.length / 4
  for (let i = 0; i < count; i++)
    for (let k = 0; k < 4; k++) {
      let sum = 0
      for (let s = 0; s < SAMPLES; s++)
        sum += inks[4 * (toned[SAMPLES * i + s] as number) + k] as number
      data[4 * i + k] = sum / SAMPLES
    }
  sheet.needsUpdate = true
}

type Ink = readonly [number, number, number]

function inkOfTone(tone: Tone, { layers, skin, hair, band }: BodyColours): Ink {
  const mixed = ([a, b, c]: Ink, [x, y, z]: Ink, by: number): Ink => [
    a + (x - a) * by,
    b + (y - b) * by,
    c + (z - c) * by,
  ]
  const bare = inkOf(skin)
  switch (tone) {
    case 'skin':
      return bare
    case 'trim':
      return inkOf(band)
    case 'hair':
      return inkOf(hair)
    case 'brow':
      return mixed(bare, inkOf(hair), 0.6)
    case 'lips':
      return mixed(bare, [0.5, 0.14, 0.13], 0.55)
    case 'mouth':
      return mixed(bare, [0.3, 0.06, 0.06], 0.7)
    case 'cheek':
      return mixed(bare, [0.75, 0.28, 0.2], 0.12)
    case 'waist':
      return mixed(inkOf(layers.torso), bare, 0.25)
    case 'deep':
      return mixed(inkOf(layers.hips), [0.2, 0.03, 0.02], 0.22)
    default:
      return inkOf(layers[tone])
  }
}

const matrix = new Matrix4()
const x = new Vector3()
const y = new Vector3()
const z = new Vector3()
const COIN = 0.0115

function layCoins(mesh: InstancedMesh, numbers: Float32Array): void {
  for (let j = 0; j < mesh.count; j++) {
    const o = 9 * j
    z.fromArray(numbers, o + 3).normalize()
    y.fromArray(numbers, o + 6)
    x.crossVectors(y, z).normalize()
    y.crossVectors(z, x)
    matrix.makeBasis(x.multiplyScalar(COIN), y.multiplyScalar(COIN), z.multiplyScalar(COIN))
    matrix.setPosition(numbers[o] as number, numbers[o + 1] as number, numbers[o + 2] as number)
    mesh.setMatrixAt(j, matrix)
  }
  mesh.instanceMatrix.needsUpdate = true
}
