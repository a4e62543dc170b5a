import type { ClassEntry, Group } from '../../core/diary/diary'
import type { SentPage } from '../../core/practice/sentPage'
import { type Change, changedLike } from '../../core/record/history'
import type { Planning } from '../../storage/planning'
import type { Records } from '../../storage/records'
import { type ChangesMade, useChanges } from '../stores/useChanges'

type Entry = ClassEntry | Group | SentPage

interface Marked {
  readonly label: string
  readonly mark?: string
}

/** The diary by hand: every change is stored at once and can be taken back. */
export interface DiaryHands extends Pick<ChangesMade<Entry>, 'undo' | 'redo' | 'last'> {
  readonly add: (entry: ClassEntry | Group, label: string) => Promise<void>
  readonly change: (entry: ClassEntry, make: (now: ClassEntry) => ClassEntry, by: Marked) => void
  readonly regroup: (before: Group, after: Group) => void
  readonly sentBack: (page: SentPage, make: (now: SentPage) => SentPage, label: string) => void
  readonly remove: (entry: ClassEntry | Group, label: string) => void
}

/** Makes a change in what is stored at that moment, so that the floor's rounds stay. */
function applyTo<T extends { readonly id: string }>(
  records: Records<T>,
  { before, after }: Change<T>,
): void {
  if (before && after) void records.change(after.id, (now) => changedLike(now, before, after))
  else if (after) void records.restore(after.id)
  else if (before) void records.remove(before.id)
}

export function useDiaryChanges(planning: Planning): DiaryHands {
  const apply = (change: Change<Entry>) => {
    const one = change.after ?? change.before
    if (one?.kind === 'group') applyTo(planning.groups, change as Change<Group>)
    else if (one?.kind === 'sent-page') applyTo(planning.sent, change as Change<SentPage>)
    else applyTo(planning.classes, change as Change<ClassEntry>)
  }
  const { note, undo, redo, last } = useChanges(apply)
  return {
    undo,
    redo,
    last,
    async add(entry, label) {
      note({ label, before: undefined, after: entry })
      if (entry.kind === 'group') await planning.groups.put(entry)
      else await planning.classes.put(entry)
    },
    change(entry, make, { label, mark }) {
      const after = make(entry)
      note({ label, before: entry, after, ...(mark && { mark: `${entry.id} ${mark}` }) })
      void planning.classes.change(entry.id, make)
    },
    sentBack(page, make, label) {
      note({ label, before: page, after: make(page) })
      void planning.sent.change(page.id, make)
    },
    regroup(before, after) {
      const change = { label: 'the group', before, after }
      note(change)
      apply(change)
    },
    remove(entry, label) {
      const change = { label, before: entry, after: undefined }
      note(change)
      apply(change)
    },
  }
}
