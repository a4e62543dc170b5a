import { networkInterfaces } from 'node:os'
import type { Page } from 'playwright-core'
import { expect } from 'vitest'
// @ts-expect-error a plain script without types
import { serve } from '../../scripts/serve.mjs'
// @ts-expect-error a plain script without types
import { buildServer, studioWith } from '../../scripts/studio.mjs'
import type { RoomLimits } from '../../src/server/limits'

export interface StudioServer {
  readonly address: string
  readonly stop: () => Promise<void>
}

/** An address of this machine others can come by; its own where it is in no network. */
const others = Object.values(networkInterfaces())
  .flatMap((all) => all ?? [])
  .filter(({ family, internal }) => family === 'IPv4' && !internal)
  .map(({ address }) => address)
export const isInNetwork = others.length > 0
/** Where people would come by first. */
export const FIRST_DOOR = `${others[0] ?? '127.0.0.1'}:4180`

let built: string | undefined

/** The app as `npm run studio` serves it. */
export async function startStudio(port: number, limits?: RoomLimits): Promise<StudioServer> {
  built ??= buildServer() as string
  const addresses = isInNetwork ? undefined : () => ['127.0.0.1']
  return serve(
    port,
    await studioWith(built, { ...(limits && { limits }), ...(addresses && { addresses }) }),
  )
}

/** Where people join, as the floor shows it. */
export interface Joining {
  readonly host: string
  readonly code: string
  readonly key: string
}

/** Lets people follow, from a floor that is open. */
export async function letFollow(page: Page): Promise<Joining> {
  await page.keyboard.press('l')
  const panel = page.getByRole('dialog', { name: 'Let people follow' })
  await panel.getByRole('button', { name: 'Let people follow' }).click()
  const code = ((await panel.locator('[data-code]').textContent()) ?? '').replace(/\D/g, '')
  const host = (await panel.getByText(/^\d+\.\d+\.\d+\.\d+:\d+$/).textContent()) ?? ''
  const key = (await panel.locator('[data-key]').getAttribute('data-key')) ?? ''
  await panel.getByRole('status').waitFor()
  return { host, code, key }
}

/** Where a screen is and when that was: a machine that draws several in software draws seldom. */
export async function momentOf(page: Page) {
  const text = await page.locator('[data-at]').first().getAttribute('data-at')
  const [index = 0, at = 0, when = 0] = (text ?? '').split(' ').map(Number)
  return { index, at, when }
}

/** How far apart two screens are, in milliseconds of the dance: the middle one of some looks. */
export async function apart(one: Page, other: Page, tempo: number): Promise<number> {
  const off: number[] = []
  for (let i = 0; i < 9; i++) {
    const [a, b] = await Promise.all([momentOf(one), momentOf(other)])
    if (a.index === b.index)
      off.push(Math.abs(((b.at - a.at) * 60_000) / (tempo * 12) - (b.when - a.when)))
    await one.waitForTimeout(150)
  }
  expect(off.length).toBeGreaterThan(4)
  return off.sort((a, b) => a - b)[Math.floor(off.length / 2)] ?? Number.NaN
}
