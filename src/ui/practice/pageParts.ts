import { z } from 'zod'
import { bankFiles, SHIPPED_WORDS } from '../../audio/speech'
import { UserError } from '../../core/errors'
import type { PageParts } from '../../core/practice/practicePage'
import type { Voice } from '../../core/practice/voice'

const Parts = z.object({ script: z.string().min(1), style: z.string(), hash: z.string().min(1) })

/** The script and the style of a page, as they lie beside the app. @throws UserError where they are not there */
export async function pageParts(): Promise<PageParts> {
  const answer = await fetch('/practice/page.json').catch(() => undefined)
  const read = answer?.ok ? Parts.safeParse(await answer.json().catch(() => undefined)) : undefined
  if (read?.success) return read.data
  throw new UserError(
    'What a practice page is made of did not come.',
    'Check that the app is still served, reload it, and save the page again.',
  )
}

/** The voice that ships with the app. */
export async function shippedVoice(): Promise<Voice> {
  const { normal, fast } = await bankFiles()
  return {
    words: SHIPPED_WORDS,
    files: { normal: new Uint8Array(normal), fast: new Uint8Array(fast) },
  }
}
