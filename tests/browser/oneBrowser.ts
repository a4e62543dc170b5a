import { chromium } from 'playwright-core'
import type { TestProject } from 'vitest/node'
// @ts-expect-error a plain script without types
import { serve } from '../../scripts/serve.mjs'
// @ts-expect-error a plain script without types
import { CHROMIUM_FLAGS } from '../../scripts/setup.mjs'

declare module 'vitest' {
  interface ProvidedContext {
    /** Where the built app is served. */
    readonly address: string
    /** Where the one Chromium listens. */
    readonly browser: string
  }
}

const FLAGS = [
  ...CHROMIUM_FLAGS,
  '--autoplay-policy=no-user-gesture-required',
  // A microphone that beeps, and nobody to ask.
  '--use-fake-device-for-media-stream',
  '--use-fake-ui-for-media-stream',
]

let stop: () => Promise<void> = async () => {}

export async function setup({ provide }: TestProject): Promise<void> {
  const served: { address: string; stop: () => Promise<void> } = await serve(4500)
  const server = await chromium.launchServer({
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
    args: FLAGS,
  })
  provide('address', served.address)
  provide('browser', server.wsEndpoint())
  stop = async () => {
    await server.close()
    await served.stop()
  }
}

export const teardown = (): Promise<void> => stop()
