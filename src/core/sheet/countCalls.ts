import { CountCalls } from '../combination/remark'
import { EntryProblem } from '../entry/reader'
import { tokensIn } from '../entry/tokens'

const SAYS = CountCalls.unwrap().shape.says.options

/**
 * What is said on the counts, as a line of the sheet says it: `numbers`, `numbers 1,3,5,7`, `words`,
 * `names`, `none`; counts alone are numbers.
 * @throws EntryProblem
 */
export function readCountCalls(text: string): CountCalls {
  const tokens = tokensIn(text).filter((token) => token.text !== ',')
  const [first] = tokens
  const says = SAYS.find((one) => one === first?.text.toLowerCase())
  const listed = tokens
    .slice(says ? 1 : 0)
    .flatMap((token) => token.text.split(',').filter(Boolean).map(Number))
  const counts = [...new Set(listed)].sort((a, b) => a - b)
  const call = CountCalls.safeParse({
    says: says ?? 'numbers',
    ...(counts.length > 0 && { counts }),
  })
  if (!first || !call.success)
    throw new EntryProblem(
      'Write what is said on the counts: call numbers 1,3,5,7, call words, call names or call none.',
      first ?? { at: 0, end: Math.max(1, text.length) },
    )
  return call.data
}

export const countCallsText = ({ says, counts }: CountCalls): string =>
  counts ? `${says} ${counts.join(',')}` : says
