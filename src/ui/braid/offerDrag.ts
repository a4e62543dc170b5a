import { z } from 'zod'
import { Layer } from '../../core/body/layers'
import { Tick } from '../../core/time/time'
import { What } from '../../core/what/kinds'

/** What a dragged move is called on its way from a list to the braid. */
export const OFFER_TYPE = 'application/x-molten-sway-move'

const Dragged = z.object({ what: What, length: Tick, layer: Layer })
export type Dragged = z.infer<typeof Dragged>

export const writeDragged = (dragged: Dragged): string => JSON.stringify(dragged)

/** Undefined for anything that was not dragged from a list of ours. */
export function readDragged(text: string): Dragged | undefined {
  try {
    return Dragged.safeParse(JSON.parse(text)).data
  } catch {
    return undefined
  }
}
