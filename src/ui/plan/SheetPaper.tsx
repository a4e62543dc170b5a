import { useMemo } from 'react'
import { useStore } from 'zustand'
import type { PartId } from '../../core/combination/whose'
import { handoutBody, handoutTitle } from '../../core/handout/handout'
import { HANDOUT_STYLE, pageStyle } from '../../core/handout/style'
import type { Material } from '../../core/plan/material'
import { nonce } from '../parts/policy'
import { today } from '../planning/today'
import { dancerNow } from '../stores/dancer'
import { houseNow } from '../stores/house'
import classes from './plan.module.css'

interface SheetPaperProps {
  readonly material: Material
  /** Of several dancers only this one's page. */
  readonly part: PartId | undefined
  readonly isLarge: boolean
  /** Only these phrases, of a class of a series, and what that is called. */
  readonly only?: { readonly phrases: readonly string[]; readonly title: string } | undefined
}

/**
 * A combination on paper: each side with its key poses, as the file of it has them. Of several
 * dancers all of them, or one.
 */
export function SheetPaper({ material, part, isLarge, only }: SheetPaperProps) {
  const { look } = useStore(dancerNow, (s) => s)
  const { rules } = useStore(houseNow, (s) => s)
  const { combination } = material
  const body = useMemo(
    () => ({
      __html: handoutBody(material, { part, isLarge, look, phrases: only?.phrases }),
    }),
    [material, part, isLarge, look, only],
  )
  const title = only?.title ?? handoutTitle(combination, part)
  return (
    <>
      <style
        nonce={nonce()}
      >{`${pageStyle(rules.units === 'feet' ? 'letter' : 'a4', { title, day: today() })}${HANDOUT_STYLE}`}</style>
      <article
        className={`${classes.sheet} handout${isLarge ? ' large' : ''}`}
        aria-hidden
        // All that somebody wrote is escaped where it is made.
        // biome-ignore lint/security/noDangerouslySetInnerHtml: the markup is the core's own
        dangerouslySetInnerHTML={body}
      />
    </>
  )
}
