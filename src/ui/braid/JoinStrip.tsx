import { useDeferredValue } from 'react'
import { useStore } from 'zustand'
import type { Combination } from '../../core/combination/combination'
import { leadOf, otherDancing } from '../../core/combination/dancing'
import type { PartId } from '../../core/combination/whose'
import { joinStrip, type Meeting } from '../../core/findings/strip'
import { checkedOf, simulationFrom } from '../stores/checked'
import type { Session } from '../stores/session'
import { danceOf, documentOf, drawnState, type SessionState } from '../stores/state'
import classes from './joinStrip.module.css'

/** Whose joins they are, where there are several. */
const nameOfDancer = (state: SessionState): string | undefined =>
  documentOf(state).parts?.find(({ id }) => id === state.selection.dancing.part)?.name

/** What she dances on the other side where roles are swapped: the other one's part. */
function swappedFrom(combination: Combination, part: PartId) {
  const { parts = [], swapRoles } = combination
  const other = swapRoles ? parts.find(({ id }) => id !== part) : undefined
  return (
    other && {
      name: other.name,
      simulation: simulationFrom(combination, otherDancing(leadOf(combination, other.id))),
    }
  )
}

const SIGN: Readonly<Record<Meeting['how'], string>> = { meets: '✓', differs: '≈', misses: '✕' }

/** At the end of the braid: what meets and what does not, for the repeat and for the switch. */
export function JoinStrip({ session }: { session: Session }) {
  const document = useDeferredValue(useStore(session, (s) => danceOf(drawnState(s))))
  const checked = checkedOf(document)
  const whose = useStore(session, (s) => nameOfDancer(drawnState(s)))
  const whole = useDeferredValue(useStore(session, (s) => documentOf(drawnState(s))))
  const part = useStore(session, (s) => s.selection.dancing.part)
  const swapped = swappedFrom(whole, part)
  if (checked.lead.danced.length === 0 || document.once) return null
  return (
    <table className={classes.strip} aria-label="How the end joins">
      <tbody>
        {(['repeat', 'switch'] as const).map((into) => (
          <tr key={into} data-join={into}>
            <th scope="row">
              {whose && `${whose}: `}
              {into === 'repeat'
                ? 'same side again'
                : swapped
                  ? `other side, ${swapped.name}’s part next`
                  : 'other side next'}
            </th>
            {joinStrip(checked, into, into === 'switch' ? swapped?.simulation : undefined).map(
              ({ part, how, words }) => (
                <td key={part} data-how={how} title={words}>
                  <span aria-hidden>{SIGN[how]}</span> {part}
                  <span className="only-read">: {words}</span>
                </td>
              ),
            )}
          </tr>
        ))}
      </tbody>
    </table>
  )
}
