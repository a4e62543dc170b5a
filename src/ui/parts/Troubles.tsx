import { useStore } from 'zustand'
import { tell, troubles } from '../stores/trouble'
import { inWords, Problem } from './Problem'

/** What is wrong at the moment, above whatever screen is shown. */
export function Troubles() {
  const all = useStore(troubles, (now) => now)
  return [...all].map(([about, error]) => (
    <Problem key={about} {...inWords(error)} onClose={() => tell(about, undefined)} />
  ))
}
