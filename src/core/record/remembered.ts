/** Of one key so many answers are kept: two dancers who share a phrase come into it differently. */
const MOST = 4

/**
 * Makes something of a key once, for as long as all else it is made from stays the same: the last
 * few answers are kept with the key, and go with it.
 */
export function remembered<Key extends object, From, Made>(
  make: (key: Key, from: From) => Made,
  isSame: (a: From, b: From) => boolean = Object.is,
): (key: Key, from: From) => Made {
  interface Known {
    readonly from: From
    readonly made: Made
  }
  const known = new WeakMap<Key, Known[]>()
  return (key, from) => {
    const list = known.get(key)
    if (!list) {
      const made = make(key, from)
      known.set(key, [{ from, made }])
      return made
    }
    for (const [i, one] of list.entries()) {
      if (!isSame(one.from, from)) continue
      // What was asked for last is asked for next.
      if (i > 0) {
        list.splice(i, 1)
        list.unshift(one)
      }
      return one.made
    }
    const made = make(key, from)
    list.unshift({ from, made })
    if (list.length > MOST) list.pop()
    return made
  }
}
