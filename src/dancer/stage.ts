import {
  AmbientLight,
  BasicShadowMap,
  CanvasTexture,
  CircleGeometry,
  Color,
  DirectionalLight,
  DynamicDrawUsage,
  Group,
  HemisphereLight,
  InstancedMesh,
  Matrix4,
  Mesh,
  MeshBasicMaterial,
  MeshLambertMaterial,
  PCFShadowMap,
  PerspectiveCamera,
  PlaneGeometry,
  Raycaster,
  RingGeometry,
  Scene,
  SphereGeometry,
  SRGBColorSpace,
  Vector2,
  WebGLRenderer,
} from 'three'
import type { Layer } from '../core/body/layers'
import type { Pose } from '../core/pose/joints'
import type { View } from '../core/pose/views'
import { type Body, type BodyColours, createBody } from './body'

/** The colours of the stage, as CSS writes them. */
export interface StageColours {
  readonly body: BodyColours
  readonly air: string
  readonly floor: string
  readonly line: string
  readonly ink: string
}

/** What one figure of a frame shows. */
export interface OnStage {
  readonly pose: Pose
  /** Where it stands beside the other one, in metres to the right. */
  readonly aside: number
  /** Points of a way behind it, the newest last, three numbers each; in the room like the pose. */
  readonly trails: readonly Float64Array[]
  readonly ghost: Pose | undefined
}

/** How the dancers are looked at. */
export interface Look {
  readonly view: View
  /** How broad they are built. */
  readonly build: number
  /** The only layer that is coloured; absent for all. */
  readonly only?: Layer | undefined
}

/** The stage: figures on a round floor, looked at from somewhere. One of it is made a canvas. */
export interface Stage {
  readonly setColours: (colours: StageColours) => void
  /** In CSS pixels. */
  readonly resize: (width: number, height: number, ratio: number) => void
  readonly draw: (figures: readonly OnStage[], look: Look) => void
  /** The layer of the body part at a point of the picture, -1 to 1 each way. */
  readonly partAt: (right: number, up: number) => Layer | undefined
  /** How much is kept on the graphics side, for measuring that nothing grows. */
  readonly kept: () => { geometries: number; textures: number }
  readonly dispose: () => void
}

/** As many marks as a trail has points at the most. */
const MOST_MARKS = 400
const FLOOR_RADIUS = 3.4
const CAMERA_FAR = 5.4
const MIDDLE_UP = 0.93
/** The walls' words on the floor: right and back of the middle, in metres. */
const WALLS = [
  ['front', 0, -1.35],
  ['right', 1.45, 0],
  ['back', 0, 1.35],
  ['left', -1.45, 0],
] as const
/** So that the words can be read from where one looks. */
const WORD_TURN: Readonly<Record<View, number>> = {
  behind: 0,
  mirror: Math.PI,
  facing: Math.PI,
  side: Math.PI / 2,
  above: 0,
}
/** A little more than a tall figure with its arms up. */
const SEEN_HIGH = 2.25
const SEEN_WIDE = 1.55

/**
 * Makes a stage on a canvas.
 * @throws Error where the browser has no WebGL: draw the pose flat then.
 */
export function createStage(canvas: HTMLCanvasElement, first: StageColours): Stage {
  const { renderer, isSoftware } = rendererOn(canvas)
  const scene = new Scene()
  // Mirrored as a whole where the figure is your mirror.
  const room = new Group()
  scene.add(room)
  scene.add(new HemisphereLight(0xfff4e6, 0xc9a98c, 1.9), new AmbientLight(0xffffff, 0.35))
  const sun = new DirectionalLight(0xffffff, 2)
  sun.position.set(1.8, 4.2, 2.4)
  sun.castShadow = true
  sun.shadow.mapSize.set(isSoftware ? 256 : 1024, isSoftware ? 256 : 1024)
  Object.assign(sun.shadow.camera, {
    left: -2.6,
    right: 2.6,
    top: 2.6,
    bottom: -2.6,
    near: 0.5,
    far: 9,
  })
  room.add(sun, sun.target)
  const camera = new PerspectiveCamera(30, 1, 0.1, 40)

  const floor = new Mesh(new CircleGeometry(FLOOR_RADIUS, 64), new MeshLambertMaterial())
  floor.rotation.x = -Math.PI / 2
  floor.receiveShadow = true
  const lines = new MeshBasicMaterial({ transparent: true, opacity: 0.8 })
  const rim = new Mesh(new RingGeometry(FLOOR_RADIUS - 0.02, FLOOR_RADIUS, 64), lines)
  const inner = new Mesh(new RingGeometry(0.995, 1.005, 64), lines)
  for (const ring of [rim, inner]) {
    ring.rotation.x = -Math.PI / 2
    ring.position.y = 0.003
  }
  const cross = [0, 1, 2, 3].map((quarter) => {
    const mesh = new Mesh(new PlaneGeometry(0.012, FLOOR_RADIUS - 1), lines)
    mesh.rotation.set(-Math.PI / 2, 0, (quarter * Math.PI) / 2)
    const angle = (quarter * Math.PI) / 2
    const far = 1 + (FLOOR_RADIUS - 1) / 2
    mesh.position.set(-Math.sin(angle) * far, 0.003, -Math.cos(angle) * far)
    return mesh
  })
  const words = WALLS.map(([word, x, z]) => {
    const made = wallWord(word)
    made.mesh.position.set(x, 0.004, z)
    return made
  })
  room.add(floor, rim, inner, ...cross, ...words.map(({ mesh }) => mesh))

  const marks = new InstancedMesh(new SphereGeometry(1, 6, 5), new MeshBasicMaterial(), MOST_MARKS)
  marks.instanceMatrix.setUsage(DynamicDrawUsage)
  marks.frustumCulled = false
  room.add(marks)

  const bodies: { body: Body; ghost: Body }[] = []
  let colours = first
  let view: View = 'behind'
  let looked: Layer | undefined
  let aspect = 1
  const matrix = new Matrix4()
  const ray = new Raycaster()

  const paint = () => {
    scene.background = new Color(colours.air)
    floor.material.color.set(colours.floor)
    lines.color.set(colours.line)
    ;(marks.material as MeshBasicMaterial).color.set(colours.body.layers.hips)
    for (const word of words) word.paint(colours.ink)
    for (const { body, ghost } of bodies)
      for (const one of [body, ghost]) one.setColours(colours.body)
  }
  paint()

  const bodyFor = (i: number) => {
    while (bodies.length <= i) {
      const made = {
        body: createBody(colours.body),
        ghost: createBody(colours.body, { ghost: true }),
      }
      made.body.highlight(looked)
      bodies.push(made)
      room.add(made.body.group, made.ghost.group)
    }
    return bodies[i] as (typeof bodies)[number]
  }

  const lookAt = (figures: readonly OnStage[]) => {
    let x = 0
    let z = 0
    let left = Number.POSITIVE_INFINITY
    let right = Number.NEGATIVE_INFINITY
    for (const { pose, aside } of figures) {
      // From the side they stand one before the other in the room, or one would hide the other.
      const isSide = view === 'side'
      const at = (pose.over[isSide ? 1 : 0] as number) + aside
      x += (isSide ? (pose.over[0] as number) : at) / figures.length
      z -= (isSide ? at : (pose.over[1] as number)) / figures.length
      left = Math.min(left, at)
      right = Math.max(right, at)
    }
    const isMirror = view === 'mirror'
    room.scale.x = isMirror ? -1 : 1
    if (isMirror) x = -x
    sun.position.set(
      (isMirror ? -x : x) + 1.8,
      4.2,
      z + (view === 'mirror' || view === 'facing' ? -2.4 : 2.4),
    )
    sun.target.position.set(isMirror ? -x : x, 0, z)
    const half = Math.tan((camera.fov * Math.PI) / 360)
    const wide = SEEN_WIDE + right - left
    const far = Math.max(SEEN_HIGH / 2 / half, wide / 2 / half / aspect, CAMERA_FAR * 0.72)
    camera.up.set(0, 1, 0)
    switch (view) {
      case 'behind':
        camera.position.set(x, 1.45, z + far)
        break
      case 'mirror':
      case 'facing':
        camera.position.set(x, 1.45, z - far)
        break
      case 'side':
        camera.position.set(x + far, 1.45, z)
        break
      case 'above':
        camera.up.set(0, 0, -1)
        camera.position.set(x, far + 0.7, z + 0.001)
        break
    }
    camera.lookAt(x, view === 'above' ? 0.4 : MIDDLE_UP, z)
  }

  const turnWords = () => {
    for (const { mesh } of words) {
      mesh.rotation.z = WORD_TURN[view]
      // In the mirror the words stay readable.
      mesh.scale.x = view === 'mirror' ? -1 : 1
    }
  }

  return {
    setColours(next) {
      colours = next
      paint()
    },
    resize(width, height, ratio) {
      aspect = width / height
      camera.aspect = aspect
      camera.updateProjectionMatrix()
      renderer.setPixelRatio(ratio)
      renderer.setSize(width, height, false)
    },
    draw(figures, { build, only, ...looks }) {
      view = looks.view
      looked = only
      turnWords()
      for (const { body } of bodies) body.highlight(only)
      lookAt(figures)
      let mark = 0
      for (let i = 0; i < Math.max(figures.length, bodies.length); i++) {
        const { body, ghost } = bodyFor(i)
        const shown = figures[i]
        body.group.visible = shown !== undefined
        ghost.group.visible = shown?.ghost !== undefined
        if (!shown) continue
        const [dx, dz] = view === 'side' ? [0, -shown.aside] : [shown.aside, 0]
        body.group.position.set(dx, 0, dz)
        body.setPose(shown.pose, build)
        if (shown.ghost) {
          ghost.group.position.set(dx, 0, dz)
          ghost.setPose(shown.ghost, build)
        }
        for (const trail of shown.trails) {
          const points = trail.length / 3
          for (let k = 0; k < points && mark < MOST_MARKS; k++) {
            const size = 0.004 + (0.009 * k) / points
            matrix.makeScale(size, size, size)
            matrix.setPosition(
              (trail[3 * k] as number) + dx,
              trail[3 * k + 1] as number,
              dz - (trail[3 * k + 2] as number),
            )
            marks.setMatrixAt(mark++, matrix)
          }
        }
      }
      marks.count = mark
      marks.instanceMatrix.needsUpdate = true
      renderer.render(scene, camera)
    },
    partAt(right, up) {
      ray.setFromCamera(new Vector2(right, up), camera)
      for (const { body } of bodies) {
        if (!body.group.visible) continue
        // The shapes have moved since they were last asked.
        for (const child of body.group.children) {
          if (child instanceof InstancedMesh) child.boundingSphere = null
          else if (child instanceof Mesh) child.geometry.boundingSphere = null
        }
        const [hit] = ray.intersectObject(body.group, true)
        if (hit) return body.layerOf(hit.object, hit.instanceId)
      }
      return undefined
    },
    kept: () => ({ ...renderer.info.memory }),
    dispose() {
      for (const { body, ghost } of bodies) {
        body.dispose()
        ghost.dispose()
      }
      for (const one of [floor, rim, inner, marks, ...cross]) one.geometry.dispose()
      lines.dispose()
      for (const word of words) word.dispose()
      renderer.dispose()
      renderer.forceContextLoss()
    },
  }
}

/** Smooth edges where there is a graphics processor; without one they cost every second frame. */
function rendererOn(canvas: HTMLCanvasElement): { renderer: WebGLRenderer; isSoftware: boolean } {
  const isSoftware = drawsInSoftware()
  const renderer = new WebGLRenderer({ canvas, antialias: !isSoftware })
  renderer.shadowMap.enabled = true
  renderer.shadowMap.type = isSoftware ? BasicShadowMap : PCFShadowMap
  return { renderer, isSoftware }
}

/** Whether the browser has no graphics processor to draw with: it says so by its drawer's name. */
function drawsInSoftware(): boolean {
  const context = document.createElement('canvas').getContext('webgl2')
  const info = context?.getExtension('WEBGL_debug_renderer_info')
  const name = info ? String(context?.getParameter(info.UNMASKED_RENDERER_WEBGL)) : ''
  context?.getExtension('WEBGL_lose_context')?.loseContext()
  return /swiftshader|llvmpipe|software|basic render/i.test(name)
}

/** A word lying on the floor. */
function wallWord(word: string) {
  const canvas = document.createElement('canvas')
  canvas.width = 128
  canvas.height = 48
  const texture = new CanvasTexture(canvas)
  texture.colorSpace = SRGBColorSpace
  const material = new MeshBasicMaterial({ map: texture, transparent: true, opacity: 0.75 })
  const mesh = new Mesh(new PlaneGeometry(0.5, 0.19), material)
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
