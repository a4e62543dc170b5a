import type { Page } from 'playwright-core'
import { expect } from 'vitest'
import type { Side } from '../../src/core/body/side'
import { mirror } from '../../src/core/combination/mirror'
import { vocabulary } from '../../src/core/moves/vocabulary'
import { dancerOf } from '../../src/core/pose/dancer'
import { jointOf } from '../../src/core/pose/joints'
import { simulate } from '../../src/core/simulate/simulate'
import { demo } from '../demo'

const TITLE = 'Copper Lantern'
export const open = async (page: Page, title = TITLE) => {
  await page.getByRole('link', { name: title }).click()
  await page.getByRole('application').waitFor()
}
export const stageOf = (page: Page) => page.getByRole('region', { name: 'Dancing figure' })
export const canvasOf = (page: Page) => stageOf(page).locator('canvas[data-shown]')

/** What the stage says it shows: the side, the tick, and where the right palm is. */
interface Shown {
  readonly side: Side
  readonly tick: number
  readonly palm: readonly number[]
}
export const read = (text: string | null): Shown => {
  const [side = '', tick = '', ...palm] = (text ?? '').split(' ')
  return { side: side as Side, tick: Number(tick), palm: palm.map(Number) }
}
export const shownOn = async (page: Page) => read(await canvasOf(page).getAttribute('data-shown'))

const found = demo.find(({ title }) => title === TITLE)
if (!found) throw new Error(`the demo has no ${TITLE}`)
export const lantern = found
export const dancers = {
  [lantern.lead]: dancerOf(simulate(lantern, vocabulary)),
  [lantern.lead === 'R' ? 'L' : 'R']: dancerOf(simulate(mirror(lantern), vocabulary)),
} as Record<Side, ReturnType<typeof dancerOf>>

/** The pose on the stage is the core's at that tick; the tick is written to a thousandth. */
export const expectCorePose = ({ side, tick, palm }: Shown) => {
  const core = jointOf(dancers[side].poseAt(tick), 'palmR')
  for (const [i, value] of core.entries()) expect(palm[i]).toBeCloseTo(value, 3)
}
