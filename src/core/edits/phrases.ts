import { type Combination, type Event, lengthOf, type Phrase } from '../combination/combination'
import { asDanced, dancedIn } from '../combination/lengths'
import { likeOf, withoutLost } from '../combination/like'
import { loopIndex, withOneLoop } from '../combination/loop'
import { freeName as nameBeside, nameOf } from '../combination/names'
import { optionWith } from '../combination/optionWith'
import type { Remark } from '../combination/remark'
import { UserError } from '../errors'
import type { Vocabulary } from '../moves/vocabulary'
import { labelIn, labelOfSpan, slotAt, TICKS_PER_COUNT, type Tick, tick } from '../time/time'
import { changePhrase, countsOf, type Edit, needRoom, withPickupFirst } from './edit'

export const namePhrase = (id: string, title: string): Edit =>
  changePhrase(id, (phrase) => ({ ...phrase, title }))

/** Something at a place in time; it may have no length of its own. */
interface Lasting {
  readonly at: Tick
  readonly length?: Tick | undefined
}

/** Whether a written length runs over a tick. */
const overEnd = ({ at, length }: Lasting, tick: number): boolean =>
  length !== undefined && at + length > tick

/** Cuts what no longer fits at the end of a phrase, or takes it out. */
function cutTo<T extends Lasting>(list: readonly T[], counts: number): readonly T[] {
  const end = counts * TICKS_PER_COUNT
  return list
    .filter(({ at }) => at < end)
    .map((one) => (overEnd(one, end) ? { ...one, length: tick(end - one.at) } : one))
}

/** A written facing has a place but no length; even, so that it can be halved with the rest. */
const FACING_TICKS = tick(2)

/** What prepares for a count goes with it; where that is gone it is said, and no more. */
function preparing(remark: Remark, dueAt: (due: Tick) => number | undefined): Remark {
  const { for: due, ...rest } = remark
  if (due === undefined) return remark
  const at = dueAt(due)
  return at === undefined ? { ...rest, kind: 'say' } : { ...remark, for: tick(Math.round(at)) }
}

/** All of a phrase that has a place in time, changed in one way; what comes out empty goes away. */
function retimed(
  phrase: Phrase,
  counts: number,
  change: <T extends Lasting>(list: readonly T[]) => readonly T[],
): Phrase {
  const { remarks, between, props, facings, options, pickup, ...rest } = phrase
  const dueAt = (due: Tick) => change([{ at: due, length: FACING_TICKS }])[0]?.at
  const said = remarks && change(remarks).map((remark) => preparing(remark, dueAt))
  const met = between && change(between)
  const done = props && change(props)
  const faced = facings && change(facings.map((facing) => ({ ...facing, length: FACING_TICKS })))
  return {
    ...rest,
    counts,
    ...(pickup && { pickup: Math.min(pickup, counts) }),
    events: change(phrase.events),
    ...(options && {
      options: options.map((option) => optionWith(option, change)),
    }),
    ...(said && said.length > 0 && { remarks: said }),
    ...(met && met.length > 0 && { between: met }),
    ...(done && done.length > 0 && { props: done }),
    ...(faced && faced.length > 0 && { facings: faced.map(({ length: _, ...facing }) => facing) }),
  }
}

/** Makes a phrase longer or shorter; what no longer fits at its end is cut or taken out. */
export const setCounts =
  (id: string, counts: number): Edit =>
  (combination) => {
    needRoom(combination, id, counts)
    const cut = changePhrase(id, (phrase) => retimed(phrase, counts, (list) => cutTo(list, counts)))
    return withPickupFirst(combination, cut(combination))
  }

/** Puts empty counts into a phrase before a count, from 1; everything after moves along. */
export const insertCounts =
  (id: string, before: number, counts: number): Edit =>
  (combination) => {
    needRoom(combination, id, (countsOf(combination, id) ?? 0) + counts)
    const from = (before - 1) * TICKS_PER_COUNT
    const by = counts * TICKS_PER_COUNT
    return changePhrase(id, (phrase) =>
      retimed(phrase, phrase.counts + counts, (list) =>
        list.map((one) => {
          if (one.at >= from) return { ...one, at: tick(one.at + by) }
          // What runs over the place runs on over the new counts.
          return one.length !== undefined && overEnd(one, from)
            ? { ...one, length: tick(one.length + by) }
            : one
        }),
      ),
    )(combination)
  }

/** Takes counts out of a phrase with what starts on them; everything after moves back. */
export const deleteCounts =
  (id: string, from: number, counts: number): Edit =>
  (combination) => {
    needRoom(combination, id, (countsOf(combination, id) ?? 0) - counts)
    return withPickupFirst(
      combination,
      changePhrase(id, (phrase) => {
        const start = (from - 1) * TICKS_PER_COUNT
        const end = Math.min(start + counts * TICKS_PER_COUNT, lengthOf(phrase))
        return retimed(phrase, phrase.counts - (end - start) / TICKS_PER_COUNT, (list) =>
          list
            .filter(({ at }) => at < start || at >= end)
            .map((one) => {
              if (one.at >= end) return { ...one, at: tick(one.at - (end - start)) }
              if (one.length === undefined) return one
              const over = Math.max(0, Math.min(one.at + one.length, end) - start)
              return over > 0 ? { ...one, length: tick(one.length - over) } : one
            }),
        )
      })(combination),
    )
  }

/**
 * A phrase danced in half the counts, or in twice as many.
 * @throws UserError that names what would fall between ticks, or why the counts do not work.
 */
export const retime =
  (id: string, factor: 0.5 | 2, vocabulary: Vocabulary): Edit =>
  (combination) => {
    const phrase = combination.phrases.find((one) => one.id === id)
    if (!phrase) return combination
    const counts = phrase.counts * factor
    if (!Number.isInteger(counts))
      throw new UserError(
        `Phrase ${phrase.name} has ${phrase.counts} counts, which can't be halved.`,
        'Add or take out a count first, or double a part of it only.',
      )
    needRoom(combination, id, counts)
    const label = labelIn(phrase)
    // A step takes what time there is, at any speed.
    const danced = dancedIn(phrase, vocabulary).map((event, i) =>
      event.what.kind === 'foot' ? (phrase.events[i] ?? event) : event,
    )
    const timed = [
      ...danced.map((event) => ({ ...event, said: nameOf(event, vocabulary) })),
      ...(phrase.remarks ?? []).map((remark) => ({ ...remark, said: `“${remark.text}”` })),
      ...(phrase.remarks ?? []).flatMap(({ for: at, text }) =>
        at === undefined ? [] : [{ at, length: FACING_TICKS, said: `what “${text}” is for` }],
      ),
      ...(phrase.between ?? []).map((one) => ({ ...one, said: 'what they do with each other' })),
      ...(phrase.props ?? []).map((one) => ({ ...one, said: 'what is done with what is carried' })),
      ...(phrase.voices ?? []).map(({ by: at }) => ({
        at,
        length: FACING_TICKS,
        said: 'when somebody follows',
      })),
      ...(phrase.facings ?? []).map(({ at }) => ({ at, length: FACING_TICKS, said: 'the facing' })),
      ...(phrase.options ?? []).flatMap(({ name, events, without = [] }) =>
        [...events, ...without].map(({ at, length }) => ({ at, length, said: `option ${name}` })),
      ),
    ]
    const between = timed.filter(
      ({ at, length = FACING_TICKS }) =>
        !Number.isInteger(at * factor) || !Number.isInteger(length * factor),
    )
    if (between.length > 0) {
      const where = ({ at, length = slotAt(at) }: Lasting) => labelOfSpan({ at, length }, label)
      const named = between.slice(0, 3).map((one) => `${one.said} (${where(one)})`)
      const more = between.length > 3 ? ` and ${between.length - 3} more` : ''
      throw new UserError(
        `${named.join(', ')}${more} would fall between the smallest parts of a count.`,
        'Move or stretch it to an even part first. Nothing was changed.',
      )
    }
    const scaled = retimed(phrase, counts, (list) =>
      list.map((one) => ({
        ...one,
        at: tick(one.at * factor),
        ...(one.length !== undefined && { length: tick(one.length * factor) }),
      })),
    )
    // What had no length gets one only where it would last otherwise.
    const now = asDanced(scaled.events, counts, vocabulary)
    const events = scaled.events.map(({ held, ...own }, i): Event => {
      const length = danced[i]?.length
      const event: Event = {
        ...own,
        ...(held !== undefined && { held: tick(Math.max(1, Math.round(held * factor))) }),
      }
      const isMeant = length === undefined || now[i]?.length === length * factor
      return event.length !== undefined || isMeant
        ? event
        : { ...event, length: tick(length * factor) }
    })
    return withPickupFirst(
      combination,
      changePhrase(id, () => ({
        ...scaled,
        events,
        ...(phrase.voices && {
          voices: phrase.voices.map((one) => ({ ...one, by: tick(one.by * factor) })),
        }),
      }))(combination),
    )
  }

/** Sets how many counts lead into count 1, and whether they are danced before every round; 0 takes the pickup away. */
export const setPickup =
  (counts: number, each: boolean): Edit =>
  ({ pickup: _, ...combination }) => {
    const first = combination.order[0]?.phrase
    const most = Math.min(counts, countsOf(combination, first ?? '') ?? 0)
    const earliest = -most * TICKS_PER_COUNT
    return {
      ...combination,
      ...(most > 0 && { pickup: { counts: most, each } }),
      phrases: combination.phrases.map((phrase) =>
        phrase.id === first && phrase.events.some(({ at }) => at < earliest)
          ? { ...phrase, events: phrase.events.filter(({ at }) => at >= earliest) }
          : phrase,
      ),
    }
  }

/** Calls the first count of a phrase by a number; the others follow. */
export const numberFrom = (id: string, first: number): Edit =>
  changePhrase(id, ({ from: _, ...phrase }) => ({ ...phrase, ...(first > 1 && { from: first }) }))

/** Keeps counts free before count 1 of a phrase, for what leads into it over the end of another; what is earlier goes. */
export const setOwnPickup = (id: string, counts: number): Edit =>
  changePhrase(id, ({ pickup: _, remarks, ...phrase }) => {
    const most = Math.min(counts, phrase.counts)
    const isWithin = ({ at }: { readonly at: number }) => at >= -most * TICKS_PER_COUNT
    const said = remarks?.filter(isWithin) ?? []
    return {
      ...phrase,
      ...(most > 0 && { pickup: most }),
      ...(phrase.options && {
        options: phrase.options.map((one) => optionWith(one, (list) => list.filter(isWithin))),
      }),
      events: phrase.events.filter(isWithin),
      ...(said.length > 0 && { remarks: said }),
    }
  })

/** The next free letter, then A1, B1 and so on. */
function freeName({ phrases }: Combination): string {
  const taken = new Set(phrases.map(({ name }) => name))
  for (let i = 0; ; i++) {
    const letter = String.fromCharCode(65 + (i % 26))
    const name = i < 26 ? letter : `${letter}${Math.floor(i / 26)}`
    if (!taken.has(name)) return name
  }
}

/** Adds an empty phrase behind a place in the order. */
export const addPhrase =
  (id: string, behind: number, counts = 8): Edit =>
  (combination) => {
    needRoom(combination, id, counts, counts)
    const added = { id, name: freeName(combination), title: '', counts, events: [] }
    return {
      ...combination,
      phrases: [...combination.phrases, added],
      order: combination.order.toSpliced(behind + 1, 0, { phrase: id, mirrored: false }),
    }
  }

/** Adds a phrase behind a place in the order that goes on as the one danced there does, but for what is changed in it. */
export const addLike =
  (id: string, behind: number): Edit =>
  (combination) => {
    const entry = combination.order[behind]
    const source = combination.phrases.find((phrase) => phrase.id === entry?.phrase)
    if (!entry || !source) return combination
    const { counts, from, title } = source
    needRoom(combination, id, counts, counts)
    const like = { phrase: source.id }
    const made = likeOf(source, { id, like, counts }, combination) ?? { events: [] }
    const name = nameBeside(combination.phrases, source.name)
    const added = { id, name, title, counts, ...(from && { from }), like, ...made }
    return {
      ...combination,
      phrases: [...combination.phrases, added],
      order: combination.order.toSpliced(behind + 1, 0, {
        phrase: id,
        mirrored: entry.mirrored,
      }),
    }
  }

/** Takes one dancing of a phrase out of the order; a phrase that is danced no more goes with it. */
export const removePass =
  (index: number): Edit =>
  (combination) => {
    if (combination.order.length === 1) return combination
    const order = withOneLoop(combination.order.toSpliced(index, 1))
    const danced = new Set(order.map(({ phrase }) => phrase))
    // A pickup before the very first count stays when the phrase it led into goes.
    const led = withPickupFirst(combination, { ...combination, order })
    return { ...led, phrases: withoutLost(led.phrases.filter(({ id }) => danced.has(id))) }
  }

export const movePass =
  (from: number, to: number): Edit =>
  (combination) => {
    const entry = combination.order[from]
    if (!entry || to < 0 || to >= combination.order.length) return combination
    return withPickupFirst(combination, {
      ...combination,
      order: withOneLoop(combination.order.toSpliced(from, 1).toSpliced(to, 0, entry)),
    })
  }

/** Dances a phrase once more, right behind. */
export const repeatPass =
  (index: number): Edit =>
  (combination) => {
    const entry = combination.order[index]
    if (!entry) return combination
    const counts = countsOf(combination, entry.phrase) ?? 0
    needRoom(combination, entry.phrase, counts, counts)
    return { ...combination, order: withOneLoop(combination.order.toSpliced(index + 1, 0, entry)) }
  }

/** What stands before a pass is danced once; said again of the same pass, all of it is danced again. */
export const loopFrom =
  (index: number): Edit =>
  (combination) => {
    const isSo = loopIndex(combination) === index
    const order = combination.order.map(({ loops: _, ...entry }, i) =>
      i === index && !isSo ? { ...entry, loops: true as const } : entry,
    )
    return { ...combination, order: withOneLoop(order) }
  }

/** Dances one pass from the other side, or back from its own. */
export const turnPass =
  (index: number): Edit =>
  (combination) => ({
    ...combination,
    order: combination.order.map((entry, i) =>
      i === index ? { ...entry, mirrored: !entry.mirrored } : entry,
    ),
  })
