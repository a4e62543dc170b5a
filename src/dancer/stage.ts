import {
  BufferAttribute,
  CanvasTexture,
  Color,
  DoubleSide,
  Group,
  LinearFilter,
  Mesh,
  MeshBasicMaterial,
  PerspectiveCamera,
  PlaneGeometry,
  Raycaster,
  RingGeometry,
  Scene,
  ShaderMaterial,
  SRGBColorSpace,
  Vector2,
  Vector3,
  WebGLRenderer,
  WebGLRenderTarget,
} from 'three'
import type { Layer } from '../core/body/layers'
import type { View } from '../core/pose/views'
import type { Dressed } from '../core/skin/dress'
import { createBadges } from './badges'
import { type Body, createWardrobe, SHADOW_LAYER, type Wardrobe } from './body'
import { aim, type Frame, OPENING, turnOf } from './camera'
import { createCarried } from './carried'
import { inkInto, inkOf } from './ink'
import { createLight } from './light'
import type { OnStage, StageColours } from './onStage'
import { partOn } from './pick'
import { createTrails } from './trails'

/** How the dancers are looked at. */
interface Look {
  /** Who dances, and in what. */
  readonly dressed: Dressed
  readonly view: View
  /** How broad they are built, and how tall against 1.65 m. */
  readonly build: number
  readonly scale: number
  /** The only layer that is coloured; absent for all. */
  readonly only?: Layer | undefined
  /** What fills the picture. */
  readonly frame?: Frame | undefined
  /** From a little above: what goes round is seen as a ring. */
  readonly isRaised?: boolean
}

/** What is worn on a stage, and who wears it. */
interface Dressing {
  readonly wardrobe: Wardrobe
  readonly bodies: Body[]
  readonly ghosts: Body[]
}

/** The stage: figures on a round floor, looked at from somewhere. One of it is made a canvas. */
export interface Stage {
  readonly setColours: (colours: StageColours) => void
  /** Makes ready what a dancer is drawn with, without holding the page up: the first picture is quick then. */
  readonly prepare: (dressed: Dressed) => Promise<void>
  /** In CSS pixels. */
  readonly resize: (width: number, height: number, ratio: number) => void
  readonly draw: (figures: readonly OnStage[], look: Look) => void
  /** The layer of the body part at a point of the picture, -1 to 1 each way. */
  readonly partAt: (right: number, up: number) => Layer | undefined
  /** How much is kept on the graphics side, for measuring that nothing grows. */
  readonly kept: () => { geometries: number; textures: number }
  readonly dispose: () => void
}

const FLOOR_RADIUS = 4.2
/** From here on the floor melts into the air. */
const FLOOR_CLEAR = 1.7
const RINGS = [0.5, 1, 1.5] as const
/** Texels of the picture in which shadows lie, each way. */
const SHADOW_SIZE = 160
const SHADOW_HALF = 1.3
/** The walls' words on the floor: right and back of the middle, in metres. */
const WALLS = [
  ['front', 0, -1.25],
  ['right', 1.3, 0],
  ['back', 0, 1.25],
  ['left', -1.3, 0],
] as const
/** So that the words can be read from where one looks. */
const WORD_TURN: Readonly<Record<View, number>> = {
  behind: 0,
  mirror: Math.PI,
  facing: Math.PI,
  side: Math.PI / 2,
  above: 0,
  partner: 0,
}

/**
 * Makes a stage on a canvas.
 * @throws Error where the browser has no WebGL: draw the pose flat then.
 */
export function createStage(
  canvas: HTMLCanvasElement,
  first: StageColours,
  { isSmooth }: { readonly isSmooth: boolean },
): Stage {
  // Smooth edges where there is a graphics processor; without one they cost every second frame.
  const renderer = new WebGLRenderer({ canvas, antialias: isSmooth, stencil: true })
  // Asking for errors waits until all is compiled.
  renderer.debug.checkShaderErrors = false
  const scene = new Scene()
  // Mirrored as a whole where the figure is your mirror.
  const room = new Group()
  scene.add(room)
  const light = createLight()
  const camera = new PerspectiveCamera(OPENING, 1, 0.1, 40)
  const floor = createFloor(light.uniforms.uKey)
  scene.add(floor.group)
  const words = WALLS.map(([word, x, z]) => {
    const made = wallWord(word)
    made.mesh.position.set(x, 0.004, z)
    return made
  })
  room.add(...words.map(({ mesh }) => mesh))
  const trails = createTrails()
  const badges = createBadges()
  const carried = createCarried(light.uniforms.uKey)
  room.add(trails.group, badges.group, carried.group)

  const dressings = new Map<Dressed, Dressing>()
  let colours = first
  let aspect = 1
  let shown: readonly OnStage[] = []
  let view: View = 'behind'
  const ray = new Raycaster()
  const lyingFlat = new PerspectiveCamera()
  lyingFlat.layers.set(SHADOW_LAYER)

  const paint = () => {
    scene.background = new Color(colours.air)
    const isDark = inkOf(colours.air).reduce((sum, value) => sum + value, 0) < 1.5
    light.setDark(isDark)
    floor.paint(colours, isDark)
    for (const word of words) word.paint(colours.ink)
    for (const { wardrobe } of dressings.values()) wardrobe.setColours(colours.body)
  }
  paint()

  const get = (list: Body[], i: number, make: () => Body): Body => {
    while (list.length <= i) {
      const made = make()
      list.push(made)
      room.add(made.group)
    }
    return list[i] as Body
  }
  const dressingFor = (dressed: Dressed): Dressing => {
    const known = dressings.get(dressed)
    if (known) return known
    const wardrobe = createWardrobe(dressed, light, floor.shadow)
    wardrobe.setColours(colours.body)
    const made: Dressing = { wardrobe, bodies: [], ghosts: [] }
    dressings.set(dressed, made)
    return made
  }
  const asideOf = ({ aside }: OnStage): readonly [number, number] =>
    view === 'side' ? [0, -aside] : [aside, 0]

  return {
    setColours(next) {
      colours = next
      paint()
    },
    async prepare(dressed) {
      const { wardrobe, bodies } = dressingFor(dressed)
      get(bodies, 0, wardrobe.body)
      await renderer.compileAsync(scene, camera)
    },
    resize(width, height, ratio) {
      aspect = width / height
      camera.aspect = aspect
      camera.updateProjectionMatrix()
      renderer.setPixelRatio(ratio)
      renderer.setSize(width, height, false)
    },
    draw(all, look) {
      view = look.view
      const figures = view === 'partner' ? all.filter(({ isViewer }) => !isViewer) : all
      shown = figures
      const { build, scale, only, frame = 'all', isRaised } = look
      for (const { mesh } of words) {
        mesh.rotation.z = WORD_TURN[view]
        // In the mirror the words stay readable.
        mesh.scale.x = view === 'mirror' ? -1 : 1
      }
      room.scale.x = view === 'mirror' ? -1 : 1
      const aimed = aim(camera, all, view, frame, aspect, isRaised)
      light.turnTo(turnOf(view))
      floor.lookAt(aimed.x, aimed.z, SHADOW_HALF + aimed.spread / 2)
      const { wardrobe, bodies, ghosts } = dressingFor(look.dressed)
      for (const other of dressings.values())
        if (other.wardrobe !== wardrobe)
          for (const { group } of [...other.bodies, ...other.ghosts]) group.visible = false
      let ghost = 0
      for (let i = 0; i < Math.max(figures.length, bodies.length); i++) {
        const body = get(bodies, i, wardrobe.body)
        const one = figures[i]
        body.group.visible = one !== undefined
        if (!one) continue
        const [dx, dz] = asideOf(one)
        body.group.position.set(dx, 0, dz)
        body.highlight(only)
        const tall = one.scale ?? scale
        body.dance({ ...one, scale: tall, build })
        if (!one.ghost) continue
        const beside = get(ghosts, ghost++, wardrobe.ghost)
        beside.group.visible = true
        beside.group.position.set(dx, 0, dz)
        beside.dance({ pose: one.ghost, ticksASecond: 1, scale: tall, build })
      }
      for (; ghost < ghosts.length; ghost++) (ghosts[ghost] as Body).group.visible = false
      trails.draw(
        figures,
        asideOf,
        camera.position,
        { view, isNear: frame !== 'all' },
        {
          layers: colours.body.layers,
          air: colours.air,
        },
      )
      carried.draw(figures, asideOf, colours)
      badges.draw(frame === 'all' ? figures : [], camera.position, colours, view === 'mirror')
      floor.cast(renderer, scene, lyingFlat)
      renderer.render(scene, camera)
    },
    partAt(right, up) {
      ray.setFromCamera(new Vector2(right, up), camera)
      if (view === 'mirror') {
        ray.ray.origin.x *= -1
        ray.ray.direction.x *= -1
      }
      const hits = shown.flatMap((one) => {
        const [dx, dz] = asideOf(one)
        return partOn(ray.ray, one.pose, new Vector3(dx, 0, dz)) ?? []
      })
      return hits.sort((a, b) => a.far - b.far)[0]?.layer
    },
    kept: () => ({ ...renderer.info.memory }),
    dispose() {
      for (const { wardrobe, bodies, ghosts } of dressings.values()) {
        for (const one of [...bodies, ...ghosts]) one.dispose()
        wardrobe.dispose()
      }
      floor.dispose()
      trails.dispose()
      badges.dispose()
      carried.dispose()
      for (const word of words) word.dispose()
      renderer.dispose()
      renderer.forceContextLoss()
    },
  }
}

/** A round floor that melts into the air, with rings for distances, and shadows on it. */
function createFloor(uKey: { value: Vector3 }) {
  const group = new Group()
  const shape = new RingGeometry(0, FLOOR_RADIUS, 48, 12)
  const inks = new BufferAttribute(new Float32Array(shape.getAttribute('position').count * 3), 3)
  shape.setAttribute('color', inks)
  const plain = new ShaderMaterial({
    vertexShader: `attribute vec3 color; varying vec3 vInk;
void main() { vInk = color; gl_Position = projectionMatrix * modelViewMatrix * vec4(position, 1.); }`,
    fragmentShader: 'varying vec3 vInk; void main() { gl_FragColor = vec4(vInk, 1.); }',
  })
  const ground = new Mesh(shape, plain)
  const lines = new MeshBasicMaterial({ transparent: true, opacity: 0.42 })
  const rings = RINGS.map(
    (radius) => new Mesh(new RingGeometry(radius - 0.004, radius + 0.004, 64), lines),
  )
  const target = new WebGLRenderTarget(SHADOW_SIZE, SHADOW_SIZE, {
    depthBuffer: false,
    stencilBuffer: false,
    minFilter: LinearFilter,
    magFilter: LinearFilter,
  })
  const shadow = {
    uMiddle: { value: new Vector3() },
    uHalf: { value: SHADOW_HALF },
  }
  const shades = new ShaderMaterial({
    transparent: true,
    depthWrite: false,
    uniforms: {
      uShadow: { value: target.texture },
      uDark: { value: 0.3 },
      uInk: { value: new Vector3() },
      uNear: { value: 1 },
    },
    vertexShader: `varying vec2 vUv;
void main() { vUv = vec2(uv.x, 1. - uv.y); gl_Position = projectionMatrix * modelViewMatrix * vec4(position, 1.); }`,
    // Softer the farther from the feet.
    fragmentShader: `uniform sampler2D uShadow; uniform float uDark; uniform vec3 uInk; varying vec2 vUv;
void main() {
  vec2 off = vUv - .5; float k = .005 + .022 * length(off);
  float s = texture2D(uShadow, vUv).r * .3
    + (texture2D(uShadow, vUv + vec2(k, k * .4)).r + texture2D(uShadow, vUv - vec2(k, k * .4)).r
    + texture2D(uShadow, vUv + vec2(-k * .4, k)).r + texture2D(uShadow, vUv - vec2(-k * .4, k)).r) * .175;
  float fade = 1. - smoothstep(.3, .5, length(off));
  gl_FragColor = vec4(uInk, s * uDark * fade);
}`,
  })
  const lying = new Mesh(new PlaneGeometry(2, 2), shades)
  for (const [i, mesh] of [ground, ...rings, lying].entries()) {
    mesh.rotation.x = -Math.PI / 2
    mesh.position.y = i === 0 ? 0 : 0.002
    group.add(mesh)
  }
  lying.position.y = 0.003
  const old = new Color()
  return {
    group,
    shadow,
    paint({ floor, air, line }: StageColours, isDark: boolean) {
      const [from, to] = [inkOf(floor), inkOf(air)]
      const points = shape.getAttribute('position')
      for (let i = 0; i < points.count; i++) {
        const far = Math.hypot(points.getX(i), points.getY(i))
        const t = Math.min(1, Math.max(0, (far - FLOOR_CLEAR) / (FLOOR_RADIUS - 0.2 - FLOOR_CLEAR)))
        const by = t * t * (3 - 2 * t)
        inks.setXYZ(
          i,
          ...([0, 1, 2].map(
            (k) => (from[k] as number) + ((to[k] as number) - (from[k] as number)) * by,
          ) as [number, number, number]),
        )
      }
      inks.needsUpdate = true
      lines.color.set(line)
      shades.uniforms.uDark = { value: isDark ? 0.6 : 0.36 }
      inkInto(shades.uniforms.uInk?.value as Vector3, isDark ? '#120609' : '#3c1d10')
    },
    /** Shadows fall around here, away from the light. */
    lookAt(x: number, z: number, half: number) {
      const { x: lx, z: lz } = uKey.value
      shadow.uMiddle.value.set(x - lx * 0.45, 0, z - lz * 0.45)
      shadow.uHalf.value = half
      lying.position.x = shadow.uMiddle.value.x
      lying.position.z = shadow.uMiddle.value.z
      lying.scale.set(half, half, 1)
    },
    /** Draws all shadows into their picture. */
    cast(renderer: WebGLRenderer, scene: Scene, flat: PerspectiveCamera) {
      const { background } = scene
      scene.background = null
      renderer.getClearColor(old)
      renderer.setRenderTarget(target)
      renderer.setClearColor(0, 0)
      renderer.clear()
      renderer.render(scene, flat)
      renderer.setRenderTarget(null)
      renderer.setClearColor(old, 1)
      scene.background = background
    },
    dispose() {
      for (const { geometry } of [ground, ...rings, lying]) geometry.dispose()
      for (const one of [plain, lines, shades, target]) one.dispose()
    },
  }
}

/** A word lying on the floor. */
function wallWord(word: string) {
  const canvas = document.createElement('canvas')
  canvas.width = 128
  canvas.height = 48
  const texture = new CanvasTexture(canvas)
  texture.colorSpace = SRGBColorSpace
  const material = new MeshBasicMaterial({
    map: texture,
    transparent: true,
    opacity: 0.6,
    side: DoubleSide,
    depthWrite: false,
  })
  const mesh = new Mesh(new PlaneGeometry(0.4, 0.15), material)
  mesh.rotation.x = -Math.PI / 2
  return {
    mesh,
    paint(ink: string) {
      const pen = canvas.getContext('2d')
      if (!pen) return
      pen.clearRect(0, 0, canvas.width, canvas.height)
      pen.fillStyle = ink
      pen.font = '600 32px Figtree, sans-serif'
      pen.textAlign = 'center'
      pen.textBaseline = 'middle'
      pen.fillText(word, 64, 24)
      texture.needsUpdate = true
    },
    dispose() {
      mesh.geometry.dispose()
      texture.dispose()
      material.dispose()
    },
  }
}
