import { type Joint, type Pose, placeOfJoint } from './joints'

/** How the dancer is looked at; the room stays, so a turn is seen as a turn. */
export const VIEWS = ['behind', 'mirror', 'facing', 'side', 'above'] as const
/** Of several dancers also through the eyes of one who dances with the others. */
export type View = (typeof VIEWS)[number] | 'partner'

interface ViewFacts {
  readonly name: string
  /** Whose right is where, in words. */
  readonly whose: string
}

export const viewFacts: Readonly<Record<View, ViewFacts>> = {
  behind: { name: 'Behind', whose: 'From behind: its right is your right.' },
  mirror: { name: 'Mirror', whose: 'Your mirror: its right is on your right.' },
  facing: { name: 'Facing', whose: 'Facing you: its right is on your left.' },
  side: { name: 'Side', whose: 'From its right side: its front is to your right.' },
  partner: { name: 'Partner', whose: 'As her partner sees her.' },
  above: { name: 'Above', whose: 'From above, front at the top: its right is your right.' },
}

/** A point of the room as it lies in the picture: to the right, up, and how near it is. */
export interface Seen {
  readonly right: number
  readonly up: number
  readonly near: number
}

/** Where a joint lies in the picture, in metres from the point on the floor the dancer is over. */
export function seen({ joints, over }: Pose, joint: Joint, view: View): Seen {
  const at = placeOfJoint[joint]
  return seenPoint(
    (joints[at] ?? 0) - (over[0] ?? 0),
    joints[at + 1] ?? 0,
    (joints[at + 2] ?? 0) - (over[1] ?? 0),
    view,
  )
}

/** A point to the right, up and forward of the dancer's floor point, as it lies in the picture. */
export function seenPoint(right: number, up: number, forward: number, view: View): Seen {
  switch (view) {
    case 'behind':
      return { right, up, near: -forward }
    case 'mirror':
      return { right, up, near: forward }
    // Drawn flat nobody stands beside her: it is as one who faces her sees her.
    case 'partner':
    case 'facing':
      return { right: -right, up, near: forward }
    case 'side':
      return { right: forward, up, near: right }
    case 'above':
      return { right, up: forward, near: up }
  }
}
