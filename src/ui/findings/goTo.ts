import type { Combination } from '../../core/combination/combination'
import { leadOf, otherDancing } from '../../core/combination/dancing'
import { isShared } from '../../core/combination/whose'
import { betweenOf } from '../../core/edits/between'
import { actOf } from '../../core/edits/props'
import type { Finding } from '../../core/findings/finding'
import { spotText } from '../../core/findings/findingText'
import { slotAt } from '../../core/time/time'
import { checkedOf } from '../stores/checked'
import { flip, pickBeside, type Session, select, tryOption } from '../stores/session'
import { documentOf } from '../stores/state'

/** Goes to the place of a finding, on the side it stands on. */
export function goTo(session: Session, combination: Combination, finding: Finding): void {
  const lead = leadOf(combination, finding.whose[0])
  const dancing = finding.side === 'lead' ? lead : otherDancing(lead)
  const state = session.getState()
  if (state.shown !== 'both' && (state.shown === 'lead') !== (finding.side === 'lead'))
    flip(session)
  const { at, layer, pass } = finding.spot
  const phrase = combination.phrases.find(({ name }) => name === finding.spot.phrase)
  if (finding.option !== undefined && phrase) tryOption(session, phrase.id, finding.option)
  const id = finding.events[0]
  const event = phrase?.events.find((one) => one.id === id)
  // In the line of all where all dance it, else in her own.
  const whom = event && !isShared(event) ? dancing.part : undefined
  select(session, { dancing, whom, pass, layer, at, length: slotAt(at), event: id })
  if (id !== undefined && (betweenOf(combination, id) || actOf(combination, id)))
    pickBeside(session, id)
}

/** From finding to finding in the order they are listed, round and round; says where it has come to. */
export function goToNextFinding(session: Session): void {
  const document = documentOf(session.getState())
  const { findings } = checkedOf(document)
  const { selection } = session.getState()
  const isHere = ({ spot, events }: Finding) =>
    spot.pass === selection.pass &&
    spot.at === selection.at &&
    spot.layer === selection.layer &&
    events[0] === selection.event
  const next = findings[(findings.findIndex(isHere) + 1) % Math.max(1, findings.length)]
  if (!next) {
    session.setState((state) => ({ ...state, message: 'Nothing to go to: there are no findings.' }))
    return
  }
  goTo(session, document, next)
  session.setState((state) => ({ ...state, message: `At ${spotText(next.spot)}.` }))
}
