import type { Combination } from '../../core/combination/combination'
import { readSwayJson, writeSwayJson } from '../../core/sheet/swayJson'

/** A file name people can read and every disk takes. */
const fileName = (title: string): string =>
  `${
    title
      .replace(/[^\p{L}\p{N} _-]/gu, '')
      .trim()
      .replace(/\s+/g, '-')
      .toLowerCase() || 'combination'
  }.sway.json`

/** Hands the combination to the browser's own download. */
export function saveAsFile(combination: Combination): void {
  const url = URL.createObjectURL(
    new Blob([writeSwayJson(combination)], { type: 'application/json' }),
  )
  const link = document.createElement('a')
  link.href = url
  link.download = fileName(combination.title)
  link.click()
  URL.revokeObjectURL(url)
}

/**
 * Reads a chosen file.
 * @throws UserError that says what is wrong with it.
 */
export const openFile = async (file: File): Promise<Combination> => readSwayJson(await file.text())
