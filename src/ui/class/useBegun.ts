import { useState } from 'react'
import { finely } from './finely'

/**
 * When something began that has no clock of its own, in milliseconds since 1970.
 * @param what its id; undefined while it has not begun
 */
export function useBegun(what: string | undefined): number | undefined {
  const [begun, setBegun] = useState({ what, at: finely() })
  if (begun.what !== what) setBegun({ what, at: finely() })
  return what === undefined ? undefined : begun.at
}
