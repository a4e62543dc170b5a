/** The counts as they are said, from one to sixteen, the most a phrase has. */
export const NUMBERS = [
  'one',
  'two',
  'three',
  'four',
  'five',
  'six',
  'seven',
  'eight',
  'nine',
  'ten',
  'eleven',
  'twelve',
  'thirteen',
  'fourteen',
  'fifteen',
  'sixteen',
] as const

/** A count or the number of a phrase, as it is said. */
export const numberWord = (count: number): string => NUMBERS[count - 1] ?? String(count)
