/** A place of the room: right, up and forward, in metres. */
export type Point = readonly [number, number, number]

export const pointAt = (numbers: Float64Array, at: number): Point => [
  numbers[at] as number,
  numbers[at + 1] as number,
  numbers[at + 2] as number,
]
