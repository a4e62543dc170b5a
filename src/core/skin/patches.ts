/** Where on the painted sheet the skin of a part lies, in texels. */
export interface Patch {
  readonly left: number
  readonly top: number
  readonly width: number
  readonly height: number
}

/** The painted sheet: one patch a part, the same for both sides of the body. */
export const SHEET = { width: 512, height: 256 } as const
export const PATCHES = {
  trunk: { left: 0, top: 0, width: 192, height: 160 },
  head: { left: 192, top: 0, width: 192, height: 192 },
  arm: { left: 384, top: 0, width: 64, height: 192 },
  leg: { left: 448, top: 0, width: 64, height: 192 },
  neck: { left: 0, top: 160, width: 96, height: 32 },
  plain: { left: 96, top: 160, width: 16, height: 16 },
  hair: { left: 0, top: 192, width: 192, height: 64 },
  hips: { left: 192, top: 192, width: 256, height: 64 },
  strand: { left: 112, top: 160, width: 16, height: 32 },
  skirt: { left: 128, top: 160, width: 32, height: 32 },
  braid: { left: 160, top: 160, width: 16, height: 32 },
} as const satisfies Record<string, Patch>
export type PatchName = keyof typeof PATCHES

/** Texels a patch keeps free at its edge, so that no other colour bleeds in. */
const GUTTER = 1.5

/** Where a point of a grid lies on the sheet. */
export function uvIn(name: PatchName, across: number, down: number): readonly [number, number] {
  const { left, top, width, height } = PATCHES[name]
  return [
    (left + GUTTER + across * (width - 2 * GUTTER)) / SHEET.width,
    (top + GUTTER + down * (height - 2 * GUTTER)) / SHEET.height,
  ]
}
