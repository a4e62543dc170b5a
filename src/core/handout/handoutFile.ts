import { bothOf } from '../combination/dancing'
import { type HandoutWishes, handoutBody, handoutTitle } from './handout'
import { markup } from './markup'
import { HANDOUT_STYLE, type Paper, pageStyle } from './style'

/** A handout as one file that any browser shows and prints. */
export function handoutFile(
  printed: Parameters<typeof handoutBody>[0],
  { paper, day, ...wishes }: HandoutWishes & { readonly paper: Paper; readonly day: string },
): string {
  const { combination } = printed
  const title = handoutTitle(combination, wishes.part)
  const sides = bothOf(combination, wishes.part).length
  return [
    '<!doctype html>',
    '<html lang="en"><head><meta charset="utf-8">',
    '<meta name="viewport" content="width=device-width, initial-scale=1">',
    '<meta http-equiv="Content-Security-Policy" content="default-src \'none\'; style-src \'unsafe-inline\'">',
    markup`<title>${title}</title>`.html,
    `<style>${pageStyle(paper, { title, day })}${HANDOUT_STYLE}body { margin: 0 } @media screen { body { max-width: 190mm; margin: 10mm auto; padding: 0 5mm } }</style>`,
    `</head><body><article class="handout${wishes.isLarge ? ' large' : ''}" data-sides="${sides}">`,
    handoutBody(printed, wishes),
    '</article></body></html>\n',
  ].join('\n')
}
