import { LAYERS } from '../body/layers'
import type { Between } from '../combination/between'
import type { PropAct } from '../combination/carried'
import type {
  Combination,
  Comment,
  Event,
  Option,
  Phrase,
  Unread,
  WrittenFacing,
} from '../combination/combination'
import { lineOf as lineWith, ownOf } from '../combination/like'
import { withOneLoop } from '../combination/loop'
import type { Part } from '../combination/part'
import { neededPickup, pickupTicks } from '../combination/passes'
import type { Remark } from '../combination/remark'
import type { Voice } from '../combination/voice'
import type { Who } from '../combination/whose'
import { stableText } from '../record/stable'
import { lastSlot, type Numbering, TICKS_PER_COUNT, tick, tickIn } from '../time/time'
import { PHRASE_WORDS, type PhraseWord } from './lines'
import { inPartOrder } from './whose'

/** What is held is so to the end of a count, or of a part of one that has a name. */
function toLabel(event: Event, counts: number): Event {
  if (event.held === undefined) return event
  const end = Math.min(counts * TICKS_PER_COUNT, event.at + event.held)
  let until = end
  while (lastSlot(Number.NEGATIVE_INFINITY, until) === undefined) until++
  return { ...event, held: tick(until - event.at) }
}

const byTime = (a: Event, b: Event): number =>
  a.at - b.at ||
  LAYERS.indexOf(a.layer) - LAYERS.indexOf(b.layer) ||
  // What steps share stands behind the first of them.
  Number(a.what.kind === 'share') - Number(b.what.kind === 'share') ||
  (a.length ?? 0) - (b.length ?? 0) ||
  compared(textOf(a), textOf(b))

/** All of an event but its id, whatever order its parts were written in. */
const textOf = ({ id: _, ...event }: Event): string => stableText(event)

const compared = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0)

const byTimeAndDegrees = (a: WrittenFacing, b: WrittenFacing): number =>
  a.at - b.at || a.degrees - b.degrees || compared(`${a.who}`, `${b.who}`)

const byTimeAndText = (a: Remark, b: Remark): number =>
  a.at - b.at ||
  compared(a.kind, b.kind) ||
  a.length - b.length ||
  compared(a.text, b.text) ||
  compared(`${a.hand}${a.kept}${a.only}${a.who}`, `${b.hand}${b.kept}${b.only}${b.who}`)

const byTimeAndMeeting = (a: Between, b: Between): number =>
  a.at - b.at || a.length - b.length || compared(stableText(a.what), stableText(b.what))

const byTimeAndAct = (a: PropAct, b: PropAct): number =>
  a.at - b.at || compared(actTextOf(a), actTextOf(b))

const actTextOf = ({ id: _, ...one }: PropAct): string => stableText(one)

const inPartsOrder = (voices: readonly Voice[], parts: readonly Part[]): readonly Voice[] =>
  parts.flatMap(({ id }) => voices.filter(({ part }) => part === id))

/**
 * The same combination in its one plain form: events and remarks in order, ids made from
 * names and numbers. Two that are danced and written alike are equal in this form.
 */
export function canonical(combination: Combination): Combination {
  const nameOf = new Map(combination.phrases.map(({ id, name }) => [id, name]))
  const counts = pickupTicks(combination) / TICKS_PER_COUNT
  return {
    ...combination,
    // What nobody said of the first pickup is said: where it is read, saying nothing means once.
    ...(counts > 0 && { pickup: { each: true, ...combination.pickup, counts } }),
    ...(combination.comments && {
      comments: placed(combination.comments, 'title', headerWords(combination)),
    }),
    id: 'sheet',
    phrases: combination.phrases.map((phrase) => ({
      ...canonicalPhrase(phrase, combination),
      ...(phrase.like && {
        like: { ...phrase.like, phrase: nameOf.get(phrase.like.phrase) ?? phrase.like.phrase },
      }),
    })),
    order: withOneLoop(combination.order).map((entry) => ({
      ...entry,
      phrase: nameOf.get(entry.phrase) ?? entry.phrase,
    })),
  }
}

/** When a text that could not be read would be danced, by the count it begins with; last where it has none. */
export function tickOfUnread({ text }: Unread, phrase: Numbering): number {
  const [, back, label = ''] = /^~?\s*(<?)(\d{1,3}(?:e|&|a|\+\d{1,2})?)(?!\d)/.exec(text) ?? []
  const at = tickIn(label, phrase)
  if (at === undefined) return Number.POSITIVE_INFINITY
  return back ? at - phrase.counts * TICKS_PER_COUNT : at
}

const lineOf = ({ line }: Unread): number => {
  const at = PHRASE_WORDS.indexOf(line as PhraseWord)
  return at < 0 ? PHRASE_WORDS.length : at
}

/** In the order they are written: line by line, each where its count is. */
const inWritingOrder =
  (phrase: Numbering) =>
  (a: Unread, b: Unread): number => {
    const [first, second] = [tickOfUnread(a, phrase), tickOfUnread(b, phrase)]
    return lineOf(a) - lineOf(b) || (first === second ? 0 : first - second)
  }

function canonicalPhrase(written: Phrase, combination: Combination): Phrase {
  const { pickup, ...phrase } = written
  const { name, remarks, facings, unread } = phrase
  const inOrder = <T extends { readonly who?: Who | undefined }>(one: T): T =>
    one.who ? { ...one, who: inPartOrder(one.who, combination.parts ?? []) } : one
  const isFirst = phrase.id === combination.order[0]?.phrase
  // What is written so early says it by itself, and of the first one the combination does.
  const isSaid = pickup && !isFirst && pickup * TICKS_PER_COUNT > neededPickup(phrase)
  return {
    ...phrase,
    ...(isSaid && { pickup }),
    id: name,
    events: phrase.events
      .map((event) => inOrder(toLabel(event, phrase.counts)))
      .sort(byTime)
      .map((event, i) => ({ ...event, id: `${name}.${i}` })),
    ...(remarks && {
      remarks: remarks
        .map(inOrder)
        .sort(byTimeAndText)
        .map((remark, i) => ({ ...remark, id: `${name}.${remark.kind}.${i}` })),
    }),
    ...(facings && {
      facings: facings.map(inOrder).sort(byTimeAndDegrees),
    }),
    ...(phrase.between && {
      between: [...phrase.between]
        .sort(byTimeAndMeeting)
        .map((one, i) => ({ ...one, id: `${name}.between.${i}` })),
    }),
    ...(phrase.voices && { voices: inPartsOrder(phrase.voices, combination.parts ?? []) }),
    ...(phrase.props && {
      props: phrase.props
        .map(inOrder)
        .sort(byTimeAndAct)
        .map((one, i) => ({ ...one, id: `${name}.act.${i}` })),
    }),
    ...(phrase.options && {
      options: phrase.options.map((option) => canonicalOption(option, phrase)),
    }),
    ...(unread && { unread: [...unread].sort(inWritingOrder(phrase)) }),
    ...(phrase.comments && {
      comments: placed(phrase.comments, 'phrase', phraseWords(phrase, ownOf(written, combination))),
    }),
  }
}

/** An option in its plain form: what it says of each layer, by time. */
const canonicalOption = (
  { events, without, ...option }: Option,
  { name, counts }: Pick<Phrase, 'name' | 'counts'>,
): Option => ({
  ...option,
  events: events
    .map((event) => toLabel(event, counts))
    .sort(byTime)
    .map((event, i) => ({ ...event, id: `${name}.${option.name}.${i}` })),
  ...(without && {
    without: [...without].sort(
      (a, b) =>
        LAYERS.indexOf(a.layer) - LAYERS.indexOf(b.layer) ||
        a.at - b.at ||
        (a.length ?? 0) - (b.length ?? 0),
    ),
  }),
})

/**
 * Comments in the order they are written; one whose line has nothing in it any more stands before
 * the first line.
 * @param words the words of the lines that are written, in their order.
 */
function placed(
  comments: readonly Comment[],
  first: string,
  words: readonly string[],
): readonly Comment[] {
  const place = ({ before }: Comment) =>
    before === undefined ? words.length : words.indexOf(before)
  return comments
    .map((one) => (place(one) < 0 ? { ...one, before: first } : one))
    .sort((a, b) => place(a) - place(b))
}

/** Words of the lines of a phrase; of one that is like another only what is its own has lines. */
/** The word of the line something stands in: counts that are free have one of their own. */
const wordOver = (one: Parameters<typeof lineWith>[0]): string =>
  'layer' in one && isFreeCounts(one) ? 'free' : lineWith(one)

/** Counts in which all of the body is free. */
export const isFreeCounts = ({ layer, what }: Pick<Event, 'layer' | 'what'>): boolean =>
  layer === 'feet' && what.kind === 'free'

const phraseWords = (
  {
    call,
    events,
    remarks = [],
    between = [],
    voices,
    props = [],
    facings = [],
    unread = [],
    options = [],
  }: Phrase,
  { isOwn = () => true, leftOut = [] }: Partial<ReturnType<typeof ownOf>> = {},
): readonly string[] => [
  'phrase',
  ...PHRASE_WORDS.filter(
    (word) =>
      [
        ...events.filter(isOwn),
        ...remarks.filter(isOwn),
        ...between.filter(isOwn),
        ...props.filter(isOwn),
        ...leftOut,
      ].some((one) => wordOver(one) === word) ||
      unread.some(({ line }) => line === word) ||
      options.some((option) =>
        word === 'option'
          ? true
          : [
              ...option.events.map(wordOver),
              ...(option.without ?? []).map(({ layer }) => layer),
            ].some((over) => over === word),
      ) ||
      (word === 'facing' && facings.length > 0) ||
      (word === 'call' && call !== undefined) ||
      (word === 'voice' && voices !== undefined),
  ),
]

function headerWords(combination: Combination): readonly string[] {
  const {
    families,
    pickup,
    level,
    keepTurns,
    once,
    call,
    rules,
    song,
    by,
    tags,
    variantOf,
    leave,
    moves,
    rest,
  } = combination
  const written: readonly (readonly [string, boolean])[] = [
    ['title', true],
    ['family', families.length > 0],
    ['tempo', true],
    ['lead', true],
    ['start', true],
    ['part', combination.parts !== undefined],
    ['carry', combination.carried !== undefined],
    ['swap', combination.swapRoles === true],
    ['pickup', pickup !== undefined],
    ['level', level !== undefined],
    ['keep', keepTurns === true],
    ['once', once === true],
    ['call', call !== undefined],
    ['rule', rules !== undefined],
    ['song', song !== undefined],
    ['by', by !== undefined],
    ['tags', tags !== undefined],
    ['variant', variantOf !== undefined],
    ['leave', leave !== undefined],
    ['move', moves !== undefined],
    ['order', true],
    ['rest', rest !== undefined],
  ]
  return written.flatMap(([word, is]) => (is ? [word] : []))
}

/** The canonical ids of the events of a combination, by their own ids. */
export function canonicalIds({ phrases }: Combination): ReadonlyMap<string, string> {
  return new Map(
    phrases.flatMap(({ name, events, options = [] }) =>
      [
        { under: name, events },
        ...options.map((option) => ({ under: `${name}.${option.name}`, events: option.events })),
      ].flatMap(({ under, events: own }) =>
        [...own].sort(byTime).map((event, i) => [event.id, `${under}.${i}`] as const),
      ),
    ),
  )
}

/**
 * The ids of a combination that is known already, put on one that was read from text: what
 * stayed the same stays the very same object, so that an edit in the sheet draws only what
 * it changed, and what is selected stays selected.
 */
export function withKnownIds(read: Combination, known: Combination): Combination {
  const knownPhrase = new Map(known.phrases.map((phrase) => [phrase.name, phrase]))
  const taken = new Set(
    known.phrases.flatMap(({ events, options = [] }) =>
      [...events, ...options.flatMap((option) => option.events)].map(({ id }) => id),
    ),
  )
  const fresh = (wanted: string): string => {
    let id = wanted
    for (let i = 2; taken.has(id); i++) id = `${wanted}-${i}`
    taken.add(id)
    return id
  }
  const phrases = read.phrases.map((phrase): Phrase => {
    const before = knownPhrase.get(phrase.name)
    const like = phrase.like && {
      like: {
        ...phrase.like,
        phrase: knownPhrase.get(phrase.like.phrase)?.id ?? phrase.like.phrase,
      },
    }
    if (!before)
      return { ...phrase, ...like, events: phrase.events.map((e) => ({ ...e, id: fresh(e.id) })) }
    const merged = {
      ...phrase,
      ...like,
      ...(phrase.options && {
        options: phrase.options.map((option) => knownOption(option, before, fresh)),
      }),
      id: before.id,
      events: matched(phrase.events, before.events, fresh),
    }
    return isSamePhrase(merged, before) ? before : merged
  })
  const idOf = new Map(phrases.map(({ id, name }) => [name, id]))
  const merged: Combination = {
    ...read,
    id: known.id,
    phrases,
    order: read.order.map((entry) => ({
      ...entry,
      phrase: idOf.get(entry.phrase) ?? entry.phrase,
    })),
  }
  const samePhrases =
    phrases.length === known.phrases.length &&
    phrases.every((phrase, i) => phrase === known.phrases[i])
  return samePhrases && sameText({ ...merged, phrases: [] }, { ...known, phrases: [] })
    ? known
    : merged
}

function knownOption(option: Option, before: Phrase, fresh: (id: string) => string): Option {
  const known = before.options?.find(({ name }) => name === option.name)
  return { ...option, events: matched(option.events, known?.events ?? [], fresh) }
}

/** Whether all events were found again as they were, whatever order they stand in. */
function isSamePhrase(merged: Phrase, before: Phrase): boolean {
  const events = new Set(before.events)
  return (
    merged.events.length === events.size &&
    merged.events.every((event) => events.has(event)) &&
    sameText({ ...plainRemarks(merged), events: [] }, { ...plainRemarks(before), events: [] })
  )
}

const plainRemarks = ({ remarks, between, props, facings, unread, ...phrase }: Phrase) => ({
  ...phrase,
  unread: unread && [...unread].sort(inWritingOrder({ counts: phrase.counts, from: phrase.from })),
  remarks: remarks && [...remarks].sort(byTimeAndText),
  between: between && [...between].sort(byTimeAndMeeting),
  props: props && [...props].sort(byTimeAndAct),
  facings: facings && [...facings].sort(byTimeAndDegrees),
})

/** Whether two are the same but for the ids of remarks and the order of keys. */
function sameText(a: object, b: object): boolean {
  return stableText(a, isRemarkId) === stableText(b, isRemarkId)
}

const isRemarkId = (key: string, of: object): boolean =>
  key === 'id' && 'at' in of && (('kind' in of && 'text' in of) || 'what' in of || 'act' in of)
function matched(
  read: readonly Event[],
  before: readonly Event[],
  fresh: (id: string) => string,
): readonly Event[] {
  const left = new Set(before)
  const same = new Map<string, Event[]>()
  for (const event of before) {
    const key = textOf(event)
    same.set(key, [...(same.get(key) ?? []), event])
  }
  // What is alike in every way first, so that a changed one does not take its id.
  const first = read.map((event) => {
    const found = same.get(textOf(event))?.shift()
    if (found) left.delete(found)
    return found
  })
  return read.map((event, i) => {
    const found = first[i]
    if (found) return found
    const near = [...left].find(({ layer, at }) => layer === event.layer && at === event.at)
    if (!near) return { ...event, id: fresh(event.id) }
    left.delete(near)
    return { ...event, id: near.id }
  })
}
