import { z } from 'zod'
import { ArmPlace, Compass, Gaze, Level, PartnerPlace } from '../body/places'
import { otherSide, type Side, Weight } from '../body/side'

/** How the body stands on count 1, before anything is danced. */
export const Start = z
  .object({
    weight: Weight,
    level: Level,
    hips: Compass,
    ribs: Compass,
    arms: z.object({ R: ArmPlace, L: ArmPlace }).readonly(),
    gaze: Gaze,
    /** Where a partner is whom one may look at. */
    partner: PartnerPlace.optional(),
    facing: z.number().multipleOf(0.5),
  })
  .readonly()
export type Start = z.infer<typeof Start>

/** The stance a combination starts from unless it says otherwise: the lead foot is free. */
export const defaultStart = (lead: Side): Start => ({
  weight: otherSide[lead],
  level: 'soft',
  hips: 'C',
  ribs: 'C',
  arms: { R: 'low', L: 'low' },
  gaze: 'front',
  facing: 0,
})
