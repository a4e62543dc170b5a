import { createHash, timingSafeEqual } from 'node:crypto'

/** Whether two texts are the same, in a time that tells nothing of how far they are. */
export const isSame = (one: string, other: string): boolean => {
  const hash = (text: string) => createHash('sha256').update(text).digest()
  return timingSafeEqual(hash(one), hash(other))
}

/** So many of something at once, and so many a second on end. */
export function bucket(
  { atOnce, aSecond }: { readonly atOnce: number; readonly aSecond: number },
  now: () => number,
): () => boolean {
  let left = atOnce
  let since = now()
  return () => {
    const at = now()
    left = Math.min(atOnce, left + ((at - since) * aSecond) / 1000)
    since = at
    if (left < 1) return false
    left -= 1
    return true
  }
}

/** Wrong codes, counted by the address they come from and all together. */
export function wrongTries(
  { each, all, ms }: { readonly each: number; readonly all: number; readonly ms: number },
  now: () => number,
) {
  let tries: { readonly address: string; readonly at: number }[] = []
  const recent = () => {
    tries = tries.filter(({ at }) => now() - at < ms)
    return tries
  }
  return {
    wrong(address: string): void {
      tries.push({ address, at: now() })
    },
    /** Seconds until an address may try again; 0 where it may now. */
    wait(address: string): number {
      const known = recent()
      const own = known.filter((one) => one.address === address)
      const oldest = known.length >= all ? known[0] : own.length >= each ? own[0] : undefined
      return oldest ? Math.max(1, Math.ceil((oldest.at + ms - now()) / 1000)) : 0
    },
  }
}
