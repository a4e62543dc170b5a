import { UserError } from '../errors'

/** Takes a record of version `from` to version `from + 1`. */
export interface Upgrade {
  readonly from: number
  readonly up: (record: Record<string, unknown>) => Record<string, unknown>
}

/**
 * Brings a stored record to the current version, one step at a time.
 * @throws UserError when it was made by a newer version of the app, or has no version.
 */
export function upgrade(
  record: Record<string, unknown>,
  current: number,
  upgrades: readonly Upgrade[],
): Record<string, unknown> {
  const version = record.schemaVersion
  if (typeof version !== 'number' || !Number.isInteger(version) || version < 1)
    throw new UserError(
      'It does not say which version it was written by.',
      'Save it again from the app that made it, or open an older copy.',
    )
  if (version > current)
    throw new UserError(
      'It was saved by a newer version of Molten Sway.',
      'Update this one, or save it again from the newer one in an older format.',
    )
  let upgraded = record
  for (let at = version; at < current; at++) {
    const step = upgrades.find(({ from }) => from === at)
    if (!step) throw new Error(`no upgrade from version ${at}`)
    upgraded = { ...step.up(upgraded), schemaVersion: at + 1 }
  }
  return upgraded
}
