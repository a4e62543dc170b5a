import type { Layer } from '../body/layers'
import type { Risk } from '../moves/move'

/** Something that is held at the end of a class, and what it is good for. */
export interface Hold {
  readonly id: string
  readonly name: string
  readonly words: string
  readonly caution: string
  /** What of a class asks for it: a layer that was danced, or what it strained. */
  readonly for: readonly (Layer | Risk)[]
  /** Held on each side. */
  readonly sides: 1 | 2
}

/**
 * Holds at the end of a class (teaching 5.5, a house table): quiet, without bouncing, breathing
 * on. What hurts is left out; a physiotherapist’s word goes before it.
 */
export const HOLDS: readonly Hold[] = [
  {
    id: 'calf',
    name: 'Calf',
    words: 'One foot far back, heel down, toes to the front; lean into the front knee.',
    caution: 'The heel may stay a little off the floor.',
    for: ['feet', 'impact'],
    sides: 2,
  },
  {
    id: 'front-thigh',
    name: 'Front of the thigh',
    words: 'Heel to the seat, knees beside each other, tail down; a hand on the wall.',
    caution: 'Hold the trouser leg if the foot is far; not into pain of the knee.',
    for: ['impact', 'knees', 'feet'],
    sides: 2,
  },
  {
    id: 'low-calf',
    name: 'Low calf',
    words: 'As the calf, the back knee a little bent, heel heavy.',
    caution: 'Small is enough.',
    for: ['impact', 'knees'],
    sides: 2,
  },
  {
    id: 'side-hip',
    name: 'Side of the hip',
    words: 'Cross one foot behind, push that hip out, the arm over the head.',
    caution: 'Both feet stay heavy.',
    for: ['hips'],
    sides: 2,
  },
  {
    id: 'back-thigh',
    name: 'Back of the thigh',
    words: 'One heel in front, knees soft, hips back, back long.',
    caution: 'Bend the knees rather than the back.',
    for: ['hips', 'torso', 'knees'],
    sides: 2,
  },
  {
    id: 'hip-front',
    name: 'Front of the hip',
    words: 'A long step back, tail tucked, chest up.',
    caution: 'No hollow back.',
    for: ['hips', 'back'],
    sides: 2,
  },
  {
    id: 'seat',
    name: 'Seat',
    words: 'Ankle over the other knee, sit back as on a stool; a hand on the wall.',
    caution: 'Lying down where standing wobbles; not into the knee.',
    for: ['hips'],
    sides: 2,
  },
  {
    id: 'round-back',
    name: 'Long back',
    words: 'Hands on the thighs, round the back, then let it be long.',
    caution: 'Knees soft; come up slowly, the head last.',
    for: ['torso', 'back', 'hips'],
    sides: 1,
  },
  {
    id: 'side-waist',
    name: 'Side of the waist',
    words: 'Feet apart, one arm up and over, the other hand on the hip.',
    caution: 'Do not hang in the waist.',
    for: ['torso'],
    sides: 2,
  },
  {
    id: 'chest',
    name: 'Chest',
    words: 'Hands behind the back or on a door frame, shoulders down, breathe into the ribs.',
    caution: 'Low hands where a shoulder pinches.',
    for: ['arms', 'torso'],
    sides: 1,
  },
  {
    id: 'forearm',
    name: 'Forearm',
    words: 'Arm out in front, palm up, draw the fingers back; then palm down.',
    caution: 'Gently; the elbow soft.',
    for: ['arms'],
    sides: 2,
  },
  {
    id: 'shoulder',
    name: 'Shoulder',
    words: 'One arm across the chest, held above the elbow, the shoulder low.',
    caution: 'Not on the joint itself.',
    for: ['arms'],
    sides: 2,
  },
  {
    id: 'neck',
    name: 'Side of the neck',
    words: 'Ear to the shoulder by its own weight, the other shoulder down.',
    caution: 'A tilt only: no circle, no hand that pulls.',
    for: ['head', 'neck'],
    sides: 2,
  },
  {
    id: 'ankles',
    name: 'Ankles',
    words: 'Roll each foot over the ball, slowly.',
    caution: 'Hold on to something.',
    for: ['feet', 'impact'],
    sides: 2,
  },
]

/**
 * What is held at the end of a class, as many as have room: for each thing it used one hold
 * first, what strained before what was only danced.
 * @param used layers and strains of the class, the most strained first
 */
export function holdsFor(used: readonly (Layer | Risk)[], most: number): readonly Hold[] {
  const chosen: Hold[] = []
  const add = (hold: Hold | undefined) => {
    if (hold && chosen.length < most && !chosen.includes(hold)) chosen.push(hold)
  }
  for (let round = 0; round < HOLDS.length && chosen.length < most; round++)
    for (const one of used) {
      const fitting = HOLDS.filter((hold) => hold.for.includes(one))
      if (round === 0 && chosen.some((hold) => hold.for.includes(one))) continue
      add(fitting[round])
    }
  return chosen
}
