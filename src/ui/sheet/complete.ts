import type { Completion, CompletionContext, CompletionResult } from '@codemirror/autocomplete'
import type { Text } from '@codemirror/state'
import { Direction, STEP_WORDS } from '../../core/body/feet'
import { LAYERS, type Layer } from '../../core/body/layers'
import {
  ArmPlace,
  Compass,
  Gaze,
  Level,
  ShoulderPlace,
  TrunkPlace,
  Via,
} from '../../core/body/places'
import { DancerLevel } from '../../core/combination/combination'
import { OPTION_WORDS } from '../../core/entry/options'
import { FAMILIES } from '../../core/moves/move'
import type { Vocabulary } from '../../core/moves/vocabulary'
import { LINE_WORDS, type LineWord } from '../../core/sheet/lines'

const list = (words: readonly string[], detail: string, boost = 0): readonly Completion[] =>
  words.map((label) => ({ label, detail, boost }))

/** The word a line belongs to: its own, or that of the line it continues. */
function lineWordAt(doc: Text, number: number): LineWord | undefined {
  for (let at = number; at > 0; at--) {
    const [, word = ''] = /^\s*([a-z]+)\b/.exec(doc.line(at).text) ?? []
    if ((LINE_WORDS as readonly string[]).includes(word)) return word as LineWord
    if (!/^\s/.test(doc.line(at).text)) return undefined
  }
  return undefined
}

const isLayer = (word: string): word is Layer => LAYERS.some((layer) => layer === word)

const OWN_WORDS: Readonly<Record<Layer, () => readonly Completion[]>> = {
  feet: () => [
    ...list(STEP_WORDS, 'step', 2),
    ...list(Direction.options, 'direction'),
    ...list(['share 360'], 'turn'),
  ],
  legs: () => list(['R in', 'R out', 'R home', 'both in', 'both out'], 'place'),
  hips: () =>
    list(
      Compass.options.map((place) => `at ${place}`),
      'place',
    ),
  torso: () =>
    list(
      [
        ...Compass.options.map((place) => `at ${place}`),
        ...TrunkPlace.options.map((place) => `at ${place.replace('-', ' ')}`),
        ...ShoulderPlace.options.map((place) => `shoulder R ${place}`),
      ],
      'place',
    ),
  arms: () => [
    ...list(ArmPlace.options, 'place', 2),
    ...list(['both'], 'arms', 3),
    ...list(Via.options, 'way'),
  ],
  head: () =>
    list(
      Gaze.options.map((gaze) => `look ${gaze.replace('-', ' ')}`),
      'look',
      2,
    ),
}

const HEADER_VALUES: Readonly<Partial<Record<LineWord, readonly string[]>>> = {
  family: FAMILIES,
  level: DancerLevel.options,
  lead: ['R', 'L'],
  keep: ['turns'],
  start: [
    'weight',
    'arms',
    'hips',
    'ribs',
    'level',
    'gaze',
    'facing',
    ...ArmPlace.options,
    ...Level.options,
  ],
}

/** What can stand at the cursor: words that start a line, then the moves and places of that line. */
export const completeSheet =
  (vocabulary: () => Vocabulary) =>
  (context: CompletionContext): CompletionResult | null => {
    const typed = context.matchBefore(/[\p{L}\p{N}!-]+/u)
    if (!typed && !context.explicit) return null
    const from = typed?.from ?? context.pos
    const { text, number, from: lineFrom } = context.state.doc.lineAt(context.pos)
    const before = text.slice(0, from - lineFrom)
    if (before.trim() === '')
      return { from, options: list(LINE_WORDS, 'line'), validFor: /^[\p{L}]*$/u }
    const word = lineWordAt(context.state.doc, number)
    if (!word) return null
    const values = HEADER_VALUES[word]
    if (values) return { from, options: list(values, word), validFor: /^[\w-]*$/ }
    if (!isLayer(word) || (typed && /^\d/.test(typed.text))) return null
    const moves = vocabulary()
      .moves.filter((move) => move.layer === word)
      .map(({ id, name }): Completion => ({ label: id, detail: name === id ? '' : name, boost: 1 }))
    return {
      from,
      options: [...OWN_WORDS[word](), ...moves, ...list(OPTION_WORDS, 'option', -1)],
      validFor: /^[\p{L}\p{N}!-]*$/u,
    }
  }
