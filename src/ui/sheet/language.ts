import { HighlightStyle, StreamLanguage, syntaxHighlighting } from '@codemirror/language'
import { Tag } from '@lezer/highlight'
import { Direction, STEP_WORDS } from '../../core/body/feet'
import { LAYERS } from '../../core/body/layers'
import { LINE_WORDS } from '../../core/sheet/lines'
import { ALL_ENTRIES } from '../../core/what/entries'

const tags = {
  word: Tag.define(),
  when: Tag.define(),
  side: Tag.define(),
  primitive: Tag.define(),
  option: Tag.define(),
  text: Tag.define(),
  comment: Tag.define(),
  kept: Tag.define(),
  feet: Tag.define(),
  legs: Tag.define(),
  hips: Tag.define(),
  torso: Tag.define(),
  arms: Tag.define(),
  head: Tag.define(),
}

const OPTIONS =
  /^(?:every|alt|alone|on|until|turn|share|via|size|rate|cw|ccw|small|large|ball|heel|flat|both|as|easier|harder|cue|note|words|leave)\b/
const STEPS = new Set<string>([
  ...STEP_WORDS,
  ...Direction.options,
  ...ALL_ENTRIES.flatMap(({ words }) => words),
])

/** Colours a count sheet word by word; what a line is about has its layer's colour. */
const sheetLanguage = StreamLanguage.define<{ startsLine: boolean; startsEntry: boolean }>({
  name: 'count sheet',
  tokenTable: tags,
  startState: () => ({ startsLine: true, startsEntry: false }),
  token(stream, state) {
    if (stream.sol()) {
      state.startsLine = true
      state.startsEntry = true
    }
    if (stream.eatSpace()) return null
    if (stream.eat('#')) {
      stream.skipToEnd()
      return 'comment'
    }
    if (stream.match(/^"(?:\\.|[^"\\])*"?/)) return 'text'
    if (stream.eat(';')) {
      state.startsEntry = true
      return null
    }
    if (stream.match('!keep')) return 'kept'
    const starts = state.startsLine
    state.startsLine = false
    if (starts) {
      const word = stream.match(/^[a-z]+:?/) as RegExpMatchArray | null
      const name = word?.[0].replace(':', '')
      if (name && LAYERS.some((layer) => layer === name)) return name
      if (name && (LINE_WORDS as readonly string[]).concat('sway').includes(name)) return 'word'
      if (name) return null
    }
    if (state.startsEntry && stream.match(/^~?\s*<?\d[\d\w&+,<>-]*/)) {
      state.startsEntry = false
      return 'when'
    }
    state.startsEntry = false
    if (stream.match(/^(?:R|L)(?=[\s,;]|$)/)) return 'side'
    if (stream.match(OPTIONS)) return 'option'
    const word = stream.match(/^[^\s;,"#]+/) as RegExpMatchArray | null
    if (!word) {
      stream.next()
      return null
    }
    return STEPS.has(word[0]) ? 'primitive' : null
  },
})

const style = HighlightStyle.define([
  { tag: tags.word, color: 'var(--quiet)', fontWeight: '700' },
  { tag: tags.when, color: 'var(--ember)', fontWeight: '700' },
  { tag: tags.side, fontWeight: '700' },
  { tag: tags.primitive, color: 'var(--feet)' },
  { tag: tags.option, color: 'var(--quiet)' },
  { tag: tags.text, fontStyle: 'italic' },
  { tag: tags.comment, color: 'var(--quiet)', fontStyle: 'italic' },
  { tag: tags.kept, color: 'var(--ember)' },
  ...LAYERS.map((layer) => ({ tag: tags[layer], color: `var(--${layer})`, fontWeight: '700' })),
])

export const sheetColours = [sheetLanguage, syntaxHighlighting(style)]
