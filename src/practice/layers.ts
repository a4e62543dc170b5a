import type { Layer } from '../core/body/layers'

export const layerWord: Readonly<Record<Layer, string>> = {
  feet: 'feet',
  legs: 'legs',
  hips: 'hips',
  torso: 'torso',
  arms: 'arms',
  head: 'head',
}
