/**
 * Makes something of a key once, for as long as all else it is made from stays the same: the last
 * answer is kept with the key, and goes with it.
 */
export function remembered<Key extends object, From, Made>(
  make: (key: Key, from: From) => Made,
  isSame: (a: From, b: From) => boolean = Object.is,
): (key: Key, from: From) => Made {
  const known = new WeakMap<Key, { readonly from: From; readonly made: Made }>()
  return (key, from) => {
    const last = known.get(key)
    if (last && isSame(last.from, from)) return last.made
    const made = make(key, from)
    known.set(key, { from, made })
    return made
  }
}
