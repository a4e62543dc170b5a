import { Vector3 } from 'three'
import { inkInto, newInk } from './ink'

/** The light on a stage, which turns with whoever looks. */
export interface Light {
  readonly uniforms: Readonly<Record<LightName, { value: Vector3 }>>
  /** @param dark whether the room is dark: less sky, and a stronger rim. */
  readonly setDark: (dark: boolean) => void
  /** @param turn where the camera stands round the dancer, in radians from behind. */
  readonly turnTo: (turn: number) => void
}
type LightName = 'uKey' | 'uRim' | 'uKeyInk' | 'uRimInk' | 'uSky' | 'uGround'

const DAY = {
  sky: ['#fff6ea', 0.66],
  ground: ['#c99a7c', 0.62],
  key: ['#fff1de', 0.5],
  rim: ['#ffe2c4', 0.34],
} as const
const NIGHT = {
  sky: ['#f6dccf', 0.56],
  ground: ['#7a4a5c', 0.5],
  key: ['#ffe6cc', 0.56],
  rim: ['#ffb98a', 0.6],
} as const

/** Radians aside of the camera, and how steep: from the upper left, and from behind on the right. */
const KEY = { aside: -0.62, up: 1.25 } as const
const RIM = { aside: Math.PI - 0.6, up: 0.6 } as const

export function createLight(): Light {
  const uniforms = {
    uKey: { value: new Vector3() },
    uRim: { value: new Vector3() },
    uKeyInk: { value: newInk('#fff') },
    uRimInk: { value: newInk('#fff') },
    uSky: { value: newInk('#fff') },
    uGround: { value: newInk('#fff') },
  }
  return {
    uniforms,
    setDark(dark) {
      const { sky, ground, key, rim } = dark ? NIGHT : DAY
      for (const [name, [css, by]] of [
        ['uSky', sky],
        ['uGround', ground],
        ['uKeyInk', key],
        ['uRimInk', rim],
      ] as const)
        inkInto(uniforms[name].value, css, by)
    },
    turnTo(turn) {
      for (const [name, { aside, up }] of [
        ['uKey', KEY],
        ['uRim', RIM],
      ] as const)
        uniforms[name].value.set(Math.sin(turn + aside), up, Math.cos(turn + aside)).normalize()
    },
  }
}

/** Lit once a point of the skin, and mixed between: soft, and quick without a graphics processor. */
export const LIT = /* glsl */ `
uniform vec3 uKey, uRim, uKeyInk, uRimInk, uSky, uGround;
varying vec3 vLight, vGloss;
void light(vec3 place, vec3 normal, float open) {
  vec3 n = normalize(normal), v = normalize(cameraPosition - place);
  if (dot(n, v) < 0.) n = -n;
  float key = max(0., (dot(n, uKey) + .24) / 1.24);
  vLight = mix(uGround, uSky, n.y * .5 + .5) * open + uKeyInk * key * mix(open, 1., .5);
  float edge = 1. - max(0., dot(n, v));
  float rim = edge * edge * edge * max(0., dot(n, uRim) * .75 + .25);
  float shine = pow(max(0., dot(n, normalize(uKey + v))), 24.);
  vGloss = uRimInk * rim * mix(.4, 1., open) + uKeyInk * shine * .22;
}`
