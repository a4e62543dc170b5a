import { Color, SRGBColorSpace, Vector3 } from 'three'

const colour = new Color()

/**
 * A CSS colour as the numbers a screen shows, 0 to 1. The dancer is lit in these: nothing has to
 * be turned back for each point of the picture, which is what a software drawer is slow at.
 */
export function inkOf(css: string): readonly [number, number, number] {
  const { r, g, b } = colour.set(css).getRGB({ r: 0, g: 0, b: 0 }, SRGBColorSpace)
  return [r, g, b]
}

export const inkInto = (vector: Vector3, css: string, by = 1): Vector3 =>
  vector.fromArray(inkOf(css)).multiplyScalar(by)

export const newInk = (css: string, by = 1): Vector3 => inkInto(new Vector3(), css, by)
