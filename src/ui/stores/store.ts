import { useSyncExternalStore } from 'react'

/** Anything that can be read and tells when it changed. */
export interface Readable<T> {
  readonly get: () => T
  readonly subscribe: (listener: () => void) => () => void
}

export interface Store<T> extends Readable<T> {
  readonly set: (change: (value: T) => T) => void
}

export function createStore<T>(first: T): Store<T> {
  const listeners = new Set<() => void>()
  let value = first
  return {
    get: () => value,
    set(change) {
      const changed = change(value)
      if (changed === value) return
      value = changed
      for (const listener of [...listeners]) listener()
    },
    subscribe(listener) {
      listeners.add(listener)
      return () => listeners.delete(listener)
    },
  }
}

/** Renders again only when the picked part changes. Pick a part; never build a new object. */
export const useStore = <T, S>(store: Readable<T>, pick: (value: T) => S): S =>
  useSyncExternalStore(store.subscribe, () => pick(store.get()))
