import {
  acceptCompletion,
  autocompletion,
  closeCompletion,
  completionKeymap,
} from '@codemirror/autocomplete'
import { defaultKeymap, indentLess, insertNewlineAndIndent } from '@codemirror/commands'
import { setDiagnostics } from '@codemirror/lint'
import { Annotation, EditorState, StateEffect, StateField } from '@codemirror/state'
import {
  Decoration,
  type DecorationSet,
  drawSelection,
  EditorView,
  highlightActiveLine,
  keymap,
} from '@codemirror/view'
import { dancedIn } from '../../core/combination/lengths'
import { bringUsed } from '../../core/edits/edits'
import { UserError } from '../../core/errors'
import { canonicalIds, withKnownIds } from '../../core/sheet/canonical'
import { type EntrySpot, readSheet } from '../../core/sheet/readSheet'
import { writeSheet } from '../../core/sheet/writeSheet'
import { change, redoNext, type Session, select, undoLast } from '../stores/session'
import { vocabularyOf, writtenOf } from '../stores/state'
import { ownMoves, words } from '../stores/words'
import { completeSheet } from './complete'
import { sheetColours } from './language'

/** Text put in from the braid, not typed. */
const fromBraid = Annotation.define<boolean>()
const markPlace = StateEffect.define<EntrySpot | undefined>()

/** The entry the braid's cursor stands on. */
const placeMark = StateField.define<DecorationSet>({
  create: () => Decoration.none,
  update(marks, transaction) {
    let next = marks.map(transaction.changes)
    for (const effect of transaction.effects) {
      if (!effect.is(markPlace)) continue
      const spot = effect.value
      const end = transaction.state.doc.length
      next =
        spot && spot.to <= end && spot.from < spot.to
          ? Decoration.set([Decoration.mark({ class: 'cm-place' }).range(spot.from, spot.to)])
          : Decoration.none
    }
    return next
  },
  provide: (field) => EditorView.decorations.from(field),
})

const look = EditorView.theme({
  '&': { height: '100%', fontSize: '14px', color: 'var(--ink)', backgroundColor: 'var(--card)' },
  '.cm-content': {
    fontFamily: 'Figtree, sans-serif',
    fontVariantNumeric: 'tabular-nums',
    lineHeight: '1.55',
    caretColor: 'var(--ember)',
    padding: '8px 4px',
  },
  // What is broken to fit stands under its entry, not under its word.
  '.cm-line': { paddingLeft: '72px', textIndent: '-66px' },
  '.cm-cursor': { borderLeftColor: 'var(--ember)', borderLeftWidth: '2px' },
  '&.cm-focused': { outline: '3px solid var(--ember)', outlineOffset: '-3px' },
  '.cm-activeLine': { backgroundColor: 'var(--glow)' },
  '.cm-selectionBackground, &.cm-focused .cm-selectionBackground': {
    backgroundColor: 'color-mix(in srgb, var(--ember) 28%, transparent) !important',
  },
  '.cm-place': {
    backgroundColor: 'var(--glow)',
    boxShadow: '0 2px 0 var(--ember)',
    borderRadius: '3px',
  },
  '.cm-tooltip': {
    backgroundColor: 'var(--card)',
    color: 'var(--ink)',
    border: '1px solid var(--line)',
    borderRadius: '8px',
  },
  '.cm-tooltip-autocomplete ul li[aria-selected]': {
    backgroundColor: 'var(--ember)',
    color: 'var(--on-ember)',
  },
  '.cm-completionDetail': { color: 'inherit', opacity: 0.85 },
  '.cm-lintRange-error': {
    backgroundImage: 'none',
    textDecoration: 'underline wavy var(--fault) 1.5px',
    textUnderlineOffset: '3px',
  },
  '.cm-diagnostic-error': { borderLeftColor: 'var(--fault)' },
})

/** A run of typing is one step of undo until it pauses this long. */
const PAUSE_MS = 1500

export interface SheetEditor {
  readonly focus: () => void
  readonly goTo: (offset: number) => void
  readonly close: () => void
}

interface Outside {
  readonly session: Session
  readonly parent: HTMLElement
  readonly nonce: string
  /** Keeps a text that is no sheet at all, so that it is there again after a reload. */
  readonly draft: {
    readonly read: () => string | null
    readonly write: (text: string | null) => void
  }
  readonly now: () => number
  readonly onRead: (read: SheetState) => void
  /** The key that opened the sheet was pressed in it. */
  readonly onClose: () => void
}

/** What the panel shows of the text. */
export interface SheetState {
  readonly messages: readonly { line: number; column: number; from: number; text: string }[]
  /** Why nothing at all could be read. */
  readonly refused?: { readonly what: string; readonly toDo: string } | undefined
}

/** The count sheet in an editor: what is typed is in the braid at once, and the other way round. */
export function openSheetEditor(outside: Outside): SheetEditor {
  const { session, parent, nonce, draft, now, onRead, onClose } = outside
  let spots: readonly EntrySpot[] = []
  /** The combination the text was last read into, or printed from. */
  let inText = writtenOf(session.getState())
  let typedAt = 0
  let run = 0
  let selectedHere = false

  const print = () => writeSheet(writtenOf(session.getState()), words.getState().vocabulary)

  const done = (work: (session: Session) => void) => () => {
    work(session)
    return true
  }

  const view = new EditorView({
    parent,
    state: EditorState.create({
      doc: draft.read() ?? print(),
      extensions: [
        EditorView.cspNonce.of(nonce),
        EditorState.tabSize.of(2),
        EditorView.contentAttributes.of({ 'aria-label': 'Count sheet' }),
        EditorView.lineWrapping,
        drawSelection(),
        highlightActiveLine(),
        sheetColours,
        placeMark,
        look,
        autocompletion({ override: [completeSheet(() => vocabularyOf(session.getState()))] }),
        keymap.of([
          { key: 'Mod-z', run: done(undoLast) },
          { key: 'Mod-Shift-z', run: done(redoNext) },
          { key: 'Mod-y', run: done(redoNext) },
          {
            key: 'Mod-s',
            run: () => {
              onClose()
              return true
            },
          },
          { key: 'Tab', run: acceptCompletion },
          { key: 'Shift-Tab', run: indentLess },
          { key: 'Enter', run: insertNewlineAndIndent },
          ...completionKeymap,
          ...defaultKeymap,
        ]),
        EditorView.updateListener.of((update) => {
          const isTyped = update.transactions.some(
            (transaction) => transaction.docChanged && !transaction.annotation(fromBraid),
          )
          if (isTyped) readTyped()
          else if (update.selectionSet && !update.docChanged) selectUnderCursor()
        }),
      ],
    }),
  })

  /** Reads the text; what it says goes into the combination, what can't be read is marked. */
  function readTyped() {
    const text = view.state.doc.toString()
    const before = writtenOf(session.getState())
    try {
      const read = readSheet(text, words.getState().vocabulary)
      inText = withKnownIds(bringUsed(ownMoves())(read.combination), before)
      spots = read.spots
      draft.write(null)
      show(read.messages)
    } catch (error) {
      if (!(error instanceof UserError)) throw error
      draft.write(text)
      spots = []
      onRead({ messages: [], refused: { what: error.message, toDo: error.whatToDo } })
      return
    }
    if (now() - typedAt > PAUSE_MS) run++
    typedAt = now()
    selectedHere = true
    change(session, 'write in the sheet', () => inText, `sheet ${run}`)
    selectedHere = false
  }

  function show(messages: ReturnType<typeof readSheet>['messages']) {
    const end = view.state.doc.length
    const found = messages.map(({ from, to, text }) => ({
      from: Math.min(from, end),
      to: Math.min(to, end),
      severity: 'error' as const,
      message: text,
    }))
    // Not from within an update: the editor takes one change at a time.
    queueMicrotask(() => view.dispatch(setDiagnostics(view.state, found)))
    onRead({ messages })
  }

  /** The entry under the cursor is selected in the braid. */
  function selectUnderCursor() {
    const { head } = view.state.selection.main
    const spot = spots.find(({ from, to }) => from <= head && head <= to)
    if (!spot) return
    const combination = writtenOf(session.getState())
    const own = [...canonicalIds(combination)].find(([, id]) => id === spot.event)?.[0]
    const phrase = combination.phrases.find(({ events }) => events.some(({ id }) => id === own))
    const event =
      phrase && dancedIn(phrase, vocabularyOf(session.getState())).find(({ id }) => id === own)
    const pass = combination.order.findIndex((entry) => entry.phrase === phrase?.id)
    if (!event || pass < 0) return
    const { selection } = session.getState()
    if (selection.event === event.id) return
    selectedHere = true
    select(session, {
      dancing: selection.dancing,
      pass,
      layer: event.layer,
      at: event.at,
      length: event.length,
      event: event.id,
    })
    selectedHere = false
  }

  /** Marks the entry that is selected in the braid. */
  function markSelected() {
    const state = session.getState()
    const id = state.selection.event && canonicalIds(writtenOf(state)).get(state.selection.event)
    const spot = spots.find(({ event }) => event === id)
    const effects: StateEffect<unknown>[] = [markPlace.of(spot)]
    if (spot && !selectedHere) effects.push(EditorView.scrollIntoView(spot.from, { y: 'nearest' }))
    queueMicrotask(() => view.dispatch({ effects }))
  }

  /** Prints the combination anew; only what differs is put in, so that the cursor stays where it is. */
  function printAgain() {
    inText = writtenOf(session.getState())
    const [old, fresh] = [view.state.doc.toString(), print()]
    let from = 0
    while (from < old.length && from < fresh.length && old[from] === fresh[from]) from++
    let end = 0
    const most = Math.min(old.length, fresh.length) - from
    while (end < most && old.at(-1 - end) === fresh.at(-1 - end)) end++
    view.dispatch({
      changes: { from, to: old.length - end, insert: fresh.slice(from, fresh.length - end) },
      annotations: fromBraid.of(true),
    })
    draft.write(null)
    const read = readSheet(fresh, words.getState().vocabulary)
    spots = read.spots
    show(read.messages)
  }

  if (draft.read() !== null) readTyped()
  else printAgain()
  markSelected()

  let known = session.getState()
  const stopFollowing = session.subscribe(() => {
    const state = session.getState()
    const isNew = writtenOf(state) !== inText
    if (isNew) printAgain()
    if (isNew || state.selection.event !== known.selection.event || selectedHere) markSelected()
    known = state
  })
  return {
    focus: () => view.focus(),
    goTo(offset) {
      view.dispatch({ selection: { anchor: offset }, scrollIntoView: true })
      view.focus()
    },
    close() {
      stopFollowing()
      closeCompletion(view)
      view.destroy()
    },
  }
}
