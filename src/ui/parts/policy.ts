import { setNonce } from 'get-nonce'
import { z } from 'zod'

/** The server writes a fresh nonce into the page; style elements made by libraries need it. */
export const nonce = (): string =>
  document.querySelector('meta[name="csp-nonce"]')?.getAttribute('content') ?? ''

setNonce(nonce())
// The policy forbids making code of text; without this the schemas would try it first.
z.config({ jitless: true })
