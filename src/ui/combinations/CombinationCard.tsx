import { ActionIcon, Menu } from '@mantine/core'
import { IconDots } from '@tabler/icons-react'
import { memo } from 'react'
import { Link } from 'react-router'
import type { Combination } from '../../core/combination/combination'
import { severityOf } from '../../core/findings/finding'
import type { FootJoins } from '../../core/joins/joins'
import { Ribbon } from '../braid/Ribbon'
import { ribbonOf } from '../braid/ribbonShape'
import { checkedOf } from '../stores/checked'
import classes from './combinations.module.css'

const FACE = { width: 400, height: 76, left: 24, right: 40 }

const joinWords = ({ repeats, switches }: FootJoins): string => {
  if (switches) return repeats ? 'repeats and switches' : 'switches by itself'
  return repeats ? 'does not switch by itself' : 'neither side can follow'
}

interface CardProps {
  readonly combination: Combination
  readonly onDuplicate: () => void
  readonly onSave: () => void
  readonly onDelete: () => void
}

/** One combination; its face is its weight ribbon. */
export const CombinationCard = memo(function CombinationCard(props: CardProps) {
  const { combination, onDuplicate, onSave, onDelete } = props
  const { lead, findings, joins } = checkedOf(combination)
  const faults = findings.filter((finding) => severityOf(finding) === 'fault').length
  const counts = lead.length / 12
  return (
    <article className={classes.card} aria-label={combination.title}>
      <Link to={`/combination/${combination.id}`} className={classes.open}>
        <Face combination={combination} />
        <h2 className={`display ${classes.title}`}>{combination.title || 'Without a title'}</h2>
        <p className={classes.facts}>
          {combination.families.join(', ')} · <span className="counts">{counts}</span> counts ·{' '}
          <span className="counts">{combination.tempo}</span> a minute
        </p>
        <p className={classes.facts}>
          {joinWords(joins)}
          {faults > 0 && (
            <b className={classes.faults}>
              {' '}
              · {faults} {faults === 1 ? 'fault' : 'faults'}
            </b>
          )}
        </p>
      </Link>
      <Menu position="bottom-end" withinPortal>
        <Menu.Target>
          <ActionIcon
            variant="subtle"
            color="gray"
            className={classes.more}
            aria-label={`More for ${combination.title}`}
          >
            <IconDots size={18} />
          </ActionIcon>
        </Menu.Target>
        <Menu.Dropdown>
          <Menu.Item onClick={onDuplicate}>Duplicate</Menu.Item>
          <Menu.Item onClick={onSave}>Save as file</Menu.Item>
          <Menu.Item onClick={onDelete}>Delete</Menu.Item>
        </Menu.Dropdown>
      </Menu>
    </article>
  )
})

function Face({ combination }: { combination: Combination }) {
  const { lead } = checkedOf(combination)
  const { width, height, left, right } = FACE
  const y = { L: 24, R: 58, both: 41 }
  const share = (width - left - right) / Math.max(1, lead.length)
  const x = (tick: number) => left + tick * share
  const shape = ribbonOf(lead, { from: 0, to: lead.length, x, y, swing: 8, gap: 3, leadIn: 2 })
  const free = shape.end === 'both' ? 'both' : shape.end === 'L' ? 'R' : 'L'
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      className={classes.face}
      role="img"
      aria-label={`Weight ribbon; ends with ${free === 'both' ? 'weight on both feet' : `${free} free`}`}
    >
      {lead.passes.map((pass) => (
        <g key={pass.index}>
          <line x1={x(pass.at)} x2={x(pass.at)} y1={4} y2={height - 4} />
          <text x={x(pass.at) + 3} y={10} className={classes.phrase}>
            {pass.phrase.name}
          </text>
        </g>
      ))}
      {(['L', 'R'] as const).map((foot) => (
        <text key={foot} x={4} y={y[foot] + 4}>
          {foot}
        </text>
      ))}
      <Ribbon shape={shape} width={7} y={y} />
      {free !== 'both' && (
        <g>
          <circle cx={x(lead.length) + 9} cy={y[free]} r={4.5} className={classes.free} />
          <text x={x(lead.length) + 17} y={y[free] + 4}>
            {free}
          </text>
        </g>
      )}
    </svg>
  )
}
