import { ANY_OPTIONS, type Combination, type Option, type Phrase } from '../combination/combination'
import { hasOption } from '../combination/options'
import { UserError } from '../errors'
import { shippedFor } from '../moves/vocabulary'
import { changePhrase, type Edit } from './edit'

/** What is said of an option. */
export type OptionSaid = Pick<Option, 'name' | 'kind' | 'words'>

const NAME = /^[\p{L}\p{N}-]+$/u

/** @throws UserError where the name is none, is taken, or stands for what any phrase may be */
function needName({ options = [], name: phrase }: Phrase, wanted: string, but?: string): void {
  if (!NAME.test(wanted))
    throw new UserError(
      'An option needs a name of letters and digits.',
      'Write one short word: low, far, still.',
    )
  if (ANY_OPTIONS.some((one) => one === wanted))
    throw new UserError(
      `Any phrase may be danced “${wanted}” already.`,
      'Give this option another name.',
    )
  if (options.some(({ name }) => name === wanted && name !== but))
    throw new UserError(
      `Phrase ${phrase} has an option “${wanted}” already.`,
      'Give this one another name.',
    )
}

/** A new option of a phrase: it says nothing yet, so it is danced as it is written. */
export const addOption =
  (id: string, said: OptionSaid): Edit =>
  (combination) =>
    changePhrase(id, (phrase) => {
      needName(phrase, said.name)
      const words = said.words.trim() || said.name
      return {
        ...phrase,
        options: [...(phrase.options ?? []), { ...said, words, events: [] }],
      }
    })(combination)

/** Says something else of an option, or calls it otherwise, wherever it is danced. */
export const describeOption =
  (id: string, name: string, said: Partial<OptionSaid>): Edit =>
  (combination) => {
    const renamed = said.name ?? name
    const changed = changePhrase(id, (phrase) => {
      if (said.name !== undefined) needName(phrase, said.name, name)
      return {
        ...phrase,
        options: phrase.options?.map((option) =>
          option.name === name
            ? { ...option, ...said, words: said.words?.trim() || option.words }
            : option,
        ),
      } as Phrase
    })(combination)
    return inOrder(changed, id, (names) => names.map((one) => (one === name ? renamed : one)))
  }

/** Takes an option out, also where it is danced. */
export const removeOption =
  (id: string, name: string): Edit =>
  (combination) => {
    const changed = changePhrase(id, ({ options = [], ...phrase }) => {
      const left = options.filter((option) => option.name !== name)
      return { ...phrase, ...(left.length > 0 && { options: left }) }
    })(combination)
    return inOrder(changed, id, (names) => names.filter((one) => one !== name))
  }

/** The options one dancing of a phrase has; none where the list is empty. */
export const pickOptions =
  (index: number, names: readonly string[]): Edit =>
  (combination) => {
    const entry = combination.order[index]
    const phrase = combination.phrases.find(({ id }) => id === entry?.phrase)
    const strange =
      phrase && names.find((name) => !hasOption(phrase, name, shippedFor(combination)))
    if (strange !== undefined)
      throw new UserError(
        strange === 'double'
          ? `Phrase ${phrase?.name} can't be danced twice in its time: something would fall between the smallest parts of a count, or its counts are odd.`
          : `Phrase ${phrase?.name} has no option “${strange}”.`,
        'Nothing was changed.',
      )
    return withPicked(
      combination,
      (i) => i === index,
      () => names,
    )
  }

const inOrder = (
  combination: Combination,
  id: string,
  change: (names: readonly string[]) => readonly string[],
): Combination => withPicked(combination, (_, phrase) => phrase === id, change)

const withPicked = (
  combination: Combination,
  isMeant: (index: number, phrase: string) => boolean,
  change: (names: readonly string[]) => readonly string[],
): Combination => ({
  ...combination,
  order: combination.order.map((entry, i) => {
    if (!isMeant(i, entry.phrase)) return entry
    const { options = [], ...rest } = entry
    const names = change(options)
    return { ...rest, ...(names.length > 0 && { options: names }) }
  }),
})
