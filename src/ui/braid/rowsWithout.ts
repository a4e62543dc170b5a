/** What stands in a lane in as few rows as nothing of it lies over anything else. */
export function rowsWithout<T>(
  list: readonly T[],
  isOver: (one: T, other: T) => boolean,
): readonly (readonly T[])[] {
  const rows: T[][] = []
  for (const one of list) {
    const free = rows.find((row) => !row.some((other) => isOver(other, one)))
    if (free) free.push(one)
    else rows.push([one])
  }
  return rows
}
