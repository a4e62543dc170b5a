import { Anchor } from '@mantine/core'
import type { Move } from '../../core/moves/move'
import { layerWord, type Vocabulary } from '../../core/moves/vocabulary'
import { countWords } from '../../core/time/countWords'
import { TICKS_PER_COUNT } from '../../core/time/time'
import { MoveStage } from '../stage/MoveStage'
import { MoveLine } from './MoveLine'
import classes from './moves.module.css'

const DEMAND = ['', 'plain', 'easy', 'some work', 'hard', 'very hard']
const SIDED = {
  side: 'has a right and a left',
  direction: 'goes round, either way',
  none: 'the same on both sides',
} as const

const counted = (move: Move): string => countWords(move.length / TICKS_PER_COUNT)

/** Everything about one move: how, what to watch, care, easier and harder, its line. */
export function MoveFacts({
  move,
  vocabulary,
  onGo,
}: {
  move: Move
  vocabulary: Vocabulary
  onGo: (id: string) => void
}) {
  const other = (id: string) => vocabulary.find(id)
  const [easier, harder] = [other(move.easier), other(move.harder)]
  return (
    <div className={`${classes.facts} layer-${move.layer}`}>
      <p className={classes.aka}>
        {layerWord[move.layer]} · {move.families.join(', ')} · usually {counted(move)} ·{' '}
        {DEMAND[move.demand]} · {SIDED[move.sided]}
      </p>
      {move.aka.length > 0 && <p className={classes.aka}>Also: {move.aka.join(', ')}</p>}
      <MoveStage key={move.id} move={move} vocabulary={vocabulary} />
      <MoveLine move={move} vocabulary={vocabulary} />
      <dl className={classes.help}>
        <dt>How</dt>
        <dd>{move.feel}</dd>
        {move.watch && (
          <>
            <dt>Watch</dt>
            <dd>{move.watch}</dd>
          </>
        )}
        {(move.care || move.risk.length > 0) && (
          <>
            <dt>Care</dt>
            <dd>
              {move.care}{' '}
              {move.risk.length > 0 && (
                <>Many repetitions load the {move.risk.join(' and the ')}.</>
              )}
            </dd>
          </>
        )}
        {move.needs.length > 0 && (
          <>
            <dt>Needs</dt>
            <dd>{move.needs.map((need) => need.replaceAll('-', ' ')).join(', ')}</dd>
          </>
        )}
        {move.cue && (
          <>
            <dt>Cue</dt>
            <dd>“{move.cue}”</dd>
          </>
        )}
        {(easier || harder) && (
          <>
            <dt>Instead</dt>
            <dd>
              {easier && (
                <>
                  easier:{' '}
                  <Anchor component="button" type="button" onClick={() => onGo(easier.id)}>
                    {easier.name}
                  </Anchor>{' '}
                </>
              )}
              {harder && (
                <>
                  harder:{' '}
                  <Anchor component="button" type="button" onClick={() => onGo(harder.id)}>
                    {harder.name}
                  </Anchor>
                </>
              )}
            </dd>
          </>
        )}
      </dl>
    </div>
  )
}
