import { CompletionContext } from '@codemirror/autocomplete'
import { EditorState } from '@codemirror/state'
import { describe, expect, it } from 'vitest'
import { vocabulary } from '../../core/moves/vocabulary'
import { completeSheet } from './complete'

/** What is offered at the bar of a sheet. */
function offered(sheet: string, explicit = true): readonly string[] {
  const at = sheet.indexOf('|')
  const state = EditorState.create({ doc: sheet.replace('|', '') })
  const found = completeSheet(() => vocabulary)(new CompletionContext(state, at, explicit))
  return found?.options.map(({ label }) => label) ?? []
}

describe('what is offered in a sheet', () => {
  it.each([
    ['sway 1\nfam|', ['family', 'phrase', 'order'], ['step']],
    ['sway 1\nfamily be|', ['belly', 'latin'], ['step']],
    ['sway 1\nlevel im|', ['improver'], ['belly']],
    ['sway 1\nstart weight L, arms l|', ['low', 'arms', 'soft'], ['belly']],
    ['phrase A 8\n  feet 1 st|', ['step', 'stamp', 'side', 'grapevine', 'every'], ['hip-drop']],
    ['phrase A 8\n  hips 1 hi|', ['hip-drop', 'at R', '!keep'], ['step', 'high-v']],
    ['phrase A 8\n  feet 1 step R;\n       2 to|', ['touch', 'together'], ['hip-drop']],
    ['phrase A 8\n  arms 1 R hi|', ['high-v', 'snake-arms', 'side'], ['hip-drop']],
    ['phrase A 8\n  head 4 lo|', ['look L', 'look over R', 'head-tilt'], ['low']],
    ['phrase A 8\n  torso 1 ch|', ['chest-pop', 'at F'], ['hip-drop']],
  ])('%j: %j, not %j', (sheet, some, none) => {
    const labels = offered(sheet)
    expect(labels).toEqual(expect.arrayContaining(some))
    for (const label of none) expect(labels).not.toContain(label)
  })

  it('is nothing for a count, a text without a line, or before anything is typed', () => {
    expect(offered('phrase A 8\n  feet 1|')).toEqual([])
    expect(offered('nonsense fo|')).toEqual([])
    expect(offered('phrase A 8\n  feet 1 |', false)).toEqual([])
  })
})
