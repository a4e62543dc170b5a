import { useEffect, useState } from 'react'

/**
 * An address of a file for as long as it is shown; null where there is none.
 * @param open the same function for as long as it is the same file
 */
export function useAddress(open: () => Promise<Blob | undefined>): string | null | undefined {
  const [url, setUrl] = useState<string | null>()
  useEffect(() => {
    let made: string | undefined
    let isGone = false
    void open().then((file) => {
      if (isGone) return
      made = file && URL.createObjectURL(file)
      setUrl(made ?? null)
    })
    return () => {
      isGone = true
      if (made) URL.revokeObjectURL(made)
      setUrl(undefined)
    }
  }, [open])
  return url
}
