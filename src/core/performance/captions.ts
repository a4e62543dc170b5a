import { sideWord } from '../body/side'
import { cuesOver, leadOf } from '../calling/cues'
import { toldTogether } from '../calling/together'
import { capital } from '../capital'
import type { Dancing } from '../combination/dancing'
import { type Pass, passAt } from '../combination/passes'
import { calledWords } from '../combination/remarks'
import type { Company } from '../simulate/company'
import { COUNT, endOf, labelIn, numberAt, TICKS_PER_COUNT, type Tick, tick } from '../time/time'
import type { Segment } from './segments'

/** Something that is shown at a time, on the ticks of the whole. */
export interface Caption {
  readonly kind: 'side' | 'count-in' | 'phrase' | 'count' | 'cue'
  readonly at: Tick
  readonly length: Tick
  readonly text: string
  readonly dancing: Dancing
}

/**
 * Every count with what goes with it, in the order of its time. Where somebody calls, the cues
 * are what is called, when it is called; else the phrases and the cues that are written, each on its place.
 */
export function captionsOf(segments: readonly Segment[]): readonly Caption[] {
  let start = 0
  const captions = segments.flatMap((segment) => {
    const from = start
    start += segment.length
    const caption = (kind: Caption['kind'], at: number, length: number, text: string): Caption => ({
      kind,
      at: tick(from + at),
      length: tick(length),
      text,
      dancing: segment.dancing,
    })
    return [
      ...countsOf(segment, caption),
      ...(segment.isCalled ? called(segment, caption) : written(segment, caption)),
    ]
  })
  return captions.sort((a, b) => a.at - b.at)
}

type Make = (kind: Caption['kind'], at: number, length: number, text: string) => Caption

function countsOf(segment: Segment, caption: Make): readonly Caption[] {
  // Before it is counted in there is only what is named.
  if (segment.countIn?.length === 0) return []
  if (segment.countIn)
    return [
      caption('side', 0, segment.length, `${capital(sideWord[segment.dancing.side])} side`),
      ...segment.countIn.map((number, i) => caption('count-in', i * COUNT, COUNT, String(number))),
    ]
  return Array.from({ length: segment.length / COUNT }, (_, i) => i * COUNT).flatMap((at) => {
    const text = countText(segment, at)
    return text === '' ? [] : [caption('count', at, COUNT, text)]
  })
}

/** The number that is danced or counted in at a tick of a segment; none where nobody hears a count. */
export function countText({ countIn, simulation, from, song }: Segment, at: number): string {
  if (countIn) return String(countIn[Math.floor(at / TICKS_PER_COUNT)] ?? '')
  if (song && !song.isCounted(from + at)) return ''
  const pass = passAt(simulation.passes, from + at)
  return pass ? String(numberAt(from + at - pass.at, pass.phrase)) : ''
}

function written(segment: Segment, caption: Make): readonly Caption[] {
  const { countIn, simulation, from, length, company } = segment
  if (countIn) return []
  const lead = COUNT * leadOf('layer', simulation.house)
  const isInside = (pass: Pass) => pass.at < from + length && endOf(pass) > from
  return simulation.passes.filter(isInside).flatMap((pass) => {
    const { name, title } = pass.phrase
    const cues = company ? writtenTogether(company, pass) : writtenIn(pass)
    return [
      ...(pass.at >= from
        ? [caption('phrase', pass.at - from, COUNT, title ? `${name}: ${title}` : name)]
        : []),
      ...cues.map(({ at, length, text, isWithin }) => {
        const of = pass.at + at - from
        // As the voice does, a lead ahead; where there is no room for it on its own count.
        return of < lead || isWithin
          ? caption('cue', of, length, text)
          : caption('cue', of - lead, COUNT, `${aheadOf(segment, { at: of - lead, of })}${text}`)
      }),
    ]
  })
}

/** A cue that is written, on the ticks of its phrase. */
interface WrittenCue {
  readonly at: number
  readonly length: number
  readonly text: string
  /** A later word of a move that has several. */
  readonly isWithin: boolean
}

function writtenIn({ events, remarks, acts, phrase }: Pass): readonly WrittenCue[] {
  const label = labelIn(phrase)
  return [
    ...events.flatMap((event) => {
      const [first, ...later] = event.cue ? cuesOver(event.cue, event) : []
      const { length } = event
      const within = later.map((word) => ({ ...word, length: COUNT, isWithin: true }))
      return first ? [{ ...first, length, isWithin: false }, ...within] : []
    }),
    ...acts.flatMap(({ cue, at, length }) =>
      cue ? [{ at, length, text: cue, isWithin: false }] : [],
    ),
    ...remarks.flatMap((remark) => {
      const text = calledWords(remark, label)
      return text === undefined ? [] : [{ ...remark, text, isWithin: false }]
    }),
  ]
}

/** What is written for all once, for some with their names, and what is written at their meetings. */
const writtenTogether = (company: Company, { index, at, phrase }: Pass): readonly WrittenCue[] => [
  ...toldTogether(
    company,
    ({ simulation }) => {
      const own = simulation.passes[index]
      return own ? writtenIn(own) : []
    },
    (cue, names) => ({ ...cue, text: `${names}: ${cue.text}` }),
  ),
  ...company.meetings.flatMap(({ meeting, from }): readonly WrittenCue[] =>
    meeting.cue && from >= at && from < at + phrase.counts * COUNT
      ? [{ at: from - at, length: meeting.length, text: meeting.cue, isWithin: false }]
      : [],
  ),
]

function called(segment: Segment, caption: Make): readonly Caption[] {
  return segment.calls
    .filter(({ what }) => what !== 'number' && what !== 'and')
    .map((call) => {
      // What is named before anybody is counted in is for no count.
      const due = call.what === 'names' || call.what === 'extra' ? '' : aheadOf(segment, call)
      return caption('cue', call.at, COUNT, `${due}${call.text}`)
    })
}

/** The count something is for, where it is called before it: `5: `. */
function aheadOf(
  segment: Segment,
  { at, of }: { readonly at: number; readonly of: number },
): string {
  if (Math.floor(of / COUNT) <= Math.floor(at / COUNT)) return ''
  // What is called over the border is for the first count of what follows.
  const number = of < segment.length ? countText(segment, of) : '1'
  return number && `${number}: `
}
