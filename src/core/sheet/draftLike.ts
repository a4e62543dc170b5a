import { type Combination, type Like, MOST_EVENTS, type Phrase } from '../combination/combination'
import { countsOfLike, inherited, placeOf } from '../combination/like'
import { nearest } from '../entry/names'
import { EntryProblem } from '../entry/reader'
import { labelIn, labelOfSpan, TICKS_PER_COUNT, tick } from '../time/time'
import type { DraftPhrase, Messages } from './draft'
import { readWhen } from './when'

/** `A`, or `A~` for its other side. */
const SOURCE = /^([\p{L}\p{N}-]+?)(~)?$/u

/** Finds what each phrase that was typed as like another one is like, and how long it is by that. */
export function settleLikes(phrases: readonly DraftPhrase[], messages: Messages): void {
  for (const phrase of phrases) {
    const { typedLike, line } = phrase
    if (!typedLike) continue
    const say = (text: string) => messages.add(text, line.from, line.to)
    const { of, counts, pace } = typedLike
    const [, name = '', mirrored] = SOURCE.exec(of.text) ?? []
    const source = phrases.find((one) => one.name === name)
    if (!source || leadsTo(source, phrase, phrases)) {
      say(
        source
          ? `Phrase ${phrase.name} can't be like itself: one of them has to stand by itself.`
          : `There is no phrase “${of.text}” that ${phrase.name} could be like. ${meant(of.text, phrases)}`,
      )
      continue
    }
    const range = counts && rangeIn(source, counts, say)
    const like: Like = {
      phrase: source.name,
      ...(mirrored && { mirrored: true }),
      ...(range && { counts: range }),
      ...(pace && { pace }),
    }
    phrase.like = like
    if (typedLike.isAsLong) phrase.counts = countsOfLike(like, source)
  }
}

const meant = (text: string, phrases: readonly DraftPhrase[]): string => {
  const near = nearest(
    text,
    phrases.map(({ name }) => name),
  )
  return near.length > 0
    ? `Did you mean ${near.join(', ')}?`
    : 'Write the name of another phrase: phrase B like A 8.'
}

/** Whether what a phrase is typed to be like leads to another one. */
function leadsTo(from: DraftPhrase, to: DraftPhrase, phrases: readonly DraftPhrase[]): boolean {
  for (let at: DraftPhrase | undefined = from, i = 0; at && i <= phrases.length; i++) {
    if (at === to) return true
    const name: string | undefined = at.typedLike?.of.text.replace(/~$/, '')
    at = phrases.find((one) => one.name === name)
  }
  return false
}

function rangeIn(
  source: DraftPhrase,
  token: NonNullable<DraftPhrase['typedLike']>['of'],
  say: (text: string) => void,
): Like['counts'] {
  try {
    const [when] = readWhen(token, { counts: source.counts, from: source.from })
    if (!when || when.at < 0) return undefined
    return {
      from: when.at / TICKS_PER_COUNT + 1,
      to: (when.at + when.length) / TICKS_PER_COUNT,
    }
  } catch (problem) {
    if (!(problem instanceof EntryProblem)) throw problem
    say(`Of phrase ${source.name}: ${problem.message}`)
    return undefined
  }
}

/** Puts into each phrase what it has from the one it is like, where nothing else was typed for that place. */
export function fillLikes(
  phrases: readonly DraftPhrase[],
  built: (draft: DraftPhrase) => Phrase,
  combination: Pick<Combination, 'moves'>,
  messages: Messages,
): void {
  const done = new Set<DraftPhrase>()
  const fill = (phrase: DraftPhrase): void => {
    if (done.has(phrase)) return
    done.add(phrase)
    const { like, counts, line } = phrase
    const source = like && phrases.find(({ name }) => name === like.phrase)
    if (!like || !source) return
    fill(source)
    const base = inherited({ like, counts }, built(source), combination)
    if (!base || phrase.events.length + base.events.length > MOST_EVENTS) {
      const how = like.pace === 2 ? 'double' : 'half'
      messages.add(
        base
          ? `Phrase ${phrase.name} would have more than ${MOST_EVENTS} moves.`
          : `Phrase ${source.name} can't be danced in ${how} time: something in it would fall between the smallest parts of a count. Change it there, or write ${phrase.name} by itself.`,
        line.from,
        line.to,
      )
      delete phrase.like
      return
    }
    const typed = new Set([
      ...phrase.events.map(({ event }) => placeOf(event)),
      ...phrase.remarks.map(placeOf),
      ...phrase.between.map(placeOf),
      ...phrase.props.map(placeOf),
      ...phrase.leftOut,
    ])
    const opens = new Map(source.events.map(({ open }, i) => [`${source.name}:${i}`, open]))
    for (const { id, ...event } of base.events)
      if (!typed.has(placeOf(event)))
        phrase.events.push({
          event,
          open: opens.get(id) ?? false,
          copyOf: { id, mirrored: like.mirrored === true },
          ...line,
        })
    for (const { id: _, ...remark } of base.remarks ?? [])
      if (!typed.has(placeOf(remark))) phrase.remarks.push(remark)
    for (const { id: _, ...met } of base.between ?? [])
      if (!typed.has(placeOf(met))) phrase.between.push(met)
    for (const { id: _, ...act } of base.props ?? [])
      if (!typed.has(placeOf(act))) phrase.props.push(act)
  }
  for (const phrase of phrases) fill(phrase)
}

/** `like A~ 1-4 double`: what a phrase is like, as it is written. */
export function likeText({ phrase, mirrored, counts, pace }: Like, source: Phrase): string {
  const range =
    counts &&
    labelOfSpan(
      {
        at: tick((counts.from - 1) * TICKS_PER_COUNT),
        length: tick((counts.to - counts.from + 1) * TICKS_PER_COUNT),
      },
      labelIn(source),
    )
  const isOne = counts && counts.from === counts.to
  return [
    'like',
    `${phrase}${mirrored ? '~' : ''}`,
    isOne ? `${range}-${range}` : range,
    pace && (pace === 2 ? 'double' : 'half'),
  ]
    .filter(Boolean)
    .join(' ')
}
