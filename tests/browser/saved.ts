import { readFileSync } from 'node:fs'
import { mkdtemp } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Page } from 'playwright-core'
import type { Combination } from '../../src/core/combination/combination'
import { vocabulary } from '../../src/core/moves/vocabulary'
import { readSwayJson } from '../../src/core/sheet/swayJson'
import { writeSheet } from '../../src/core/sheet/writeSheet'

/** Saves what is open in the studio into a file of its own folder, by its menu. @returns the file */
export async function saveFile(page: Page): Promise<string> {
  await page.locator('[data-save-state="saved"]').waitFor()
  await page.getByRole('button', { name: 'More', exact: true }).click()
  const download = page.waitForEvent('download')
  await page.getByRole('menuitem', { name: 'Save as file' }).click()
  const folder = await mkdtemp(join(tmpdir(), 'sway-'))
  const path = join(folder, (await download).suggestedFilename())
  await (await download).saveAs(path)
  return path
}

/** What such a file says. */
export const savedFrom = async (page: Page): Promise<Combination> =>
  readSwayJson(readFileSync(await saveFile(page), 'utf8')).combination

export const savedSheet = async (page: Page): Promise<string> =>
  writeSheet(await savedFrom(page), vocabulary)
