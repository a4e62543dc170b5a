import type { Layer } from '../body/layers'
import { LAYERS } from '../body/layers'
import { otherSide, type Side, sideWord } from '../body/side'
import { type Combination, teachTempoOf } from '../combination/combination'
import { layerWord } from '../moves/vocabulary'
import type { Tempo } from '../time/tempo'

/** One step of teaching: what is danced, on which sides in turn, how fast, and what to say first. */
export interface TeachStep {
  readonly id: string
  readonly title: string
  readonly say: string
  readonly layers: readonly Layer[]
  /** Danced one after the other, each with its count-in. */
  readonly sides: readonly Side[]
  readonly tempo: Tempo
}

/** What a layer is told before it is danced alone, standing. */
const ALONE: Readonly<Record<Layer, string>> = {
  feet: 'Say where the weight is and which foot is free. Quick steps stay under the shoulders.',
  hips: 'Feet still, knees soft, belly drawn in. Hips alone; the ribs stay level.',
  torso: 'Feet and hips still, neck long. Only what is named moves.',
  arms: 'Feet still. The path matters as much as the place: raise a little in front of the shoulders.',
  head: 'Feet still. Small and slow; stop if it makes anyone dizzy.',
}

/** The layers that have something written, feet first. */
function layersUsed({ phrases }: Combination): readonly Layer[] {
  const used = new Set(phrases.flatMap(({ events }) => events.map(({ layer }) => layer)))
  return LAYERS.filter((layer) => used.has(layer))
}

/**
 * The steps of teaching a combination (domain: “how a combination is made and taught”):
 * feet alone, each layer alone and then on the feet, all of it on both sides, then at tempo.
 */
export function teachSteps(combination: Combination): readonly TeachStep[] {
  const { lead, tempo } = combination
  const teachTempo = teachTempoOf(combination)
  const sides = [lead, otherSide[lead]]
  const used = layersUsed(combination)
  const above = used.filter((layer) => layer !== 'feet')
  const slow = { sides, tempo: teachTempo }
  const steps: TeachStep[] = []
  const withFeet = used.includes('feet')
  if (withFeet)
    steps.push({ id: 'feet', title: 'Feet', say: ALONE.feet, layers: ['feet'], ...slow })
  for (const layer of above) {
    const name = layerWord[layer]
    steps.push({ id: layer, title: `${name} alone`, say: ALONE[layer], layers: [layer], ...slow })
    if (withFeet)
      steps.push({
        id: `${layer}-on-feet`,
        title: `${name} on the feet`,
        say: 'If the feet break, drop the layer and keep the feet.',
        layers: ['feet', layer],
        ...slow,
      })
  }
  if (above.length > 1)
    for (const side of sides)
      steps.push({
        id: `all-${side}`,
        title: `All, ${sideWord[side]} side`,
        say: `Everything together, slowly. Lead with the ${sideWord[side]} foot.`,
        layers: used,
        sides: [side],
        tempo: teachTempo,
      })
  if (used.length > 0)
    steps.push({
      id: 'tempo',
      title: 'At tempo',
      say: 'Both sides in turn at the target tempo. Breathe; small and clear before large.',
      layers: used,
      sides,
      tempo,
    })
  return steps
}
