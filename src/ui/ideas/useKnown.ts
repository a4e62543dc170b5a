import { useCallback } from 'react'
import { useServices } from '../stores/services'

/** Asks the diary what a group has danced: keys of things, none where it has danced nothing. */
export function useKnown() {
  const { planning, combinations, judge } = useServices()
  return useCallback(
    async (group: string, signal: AbortSignal): Promise<readonly string[]> => {
      const { classes } = await planning()
      const [{ all: given }, all] = await Promise.all([classes.list(), combinations.all()])
      const own = given.filter((one) => one.group === group)
      return judge.ask('knows', { classes: own, combinations: all }, signal)
    },
    [planning, combinations, judge],
  )
}
