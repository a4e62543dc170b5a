/** Paper a handout is printed on. */
export const PAPERS = ['a4', 'letter'] as const
export type Paper = (typeof PAPERS)[number]

/** A text as CSS writes it; nothing in it ends the string or the style. */
const quoted = (text: string): string =>
  `"${text.replace(/[^\p{L}\p{N} .,·-]/gu, (sign) => `\\${sign.codePointAt(0)?.toString(16)} `)}"`

/** What stands on each page besides: what it is, and the day it was printed. */
export interface Margins {
  readonly title: string
  readonly day: string
}

/** Pages with margins of 15 mm, each with its title, its day and its number of how many. */
export const pageStyle = (paper: Paper, { title, day }: Margins): string => `
@page {
  size: ${paper === 'a4' ? 'A4' : 'letter'};
  margin: 15mm;
  @top-left { content: ${quoted(title)}; font: 9pt sans-serif; color: #444 }
  @top-right { content: ${quoted(day)}; font: 9pt sans-serif; color: #444 }
  @bottom-right { content: "page " counter(page) " of " counter(pages); font: 9pt sans-serif; color: #444 }
}
`

/** How a handout looks, on paper and before it is printed; of what stands in \`.handout\` only. */
export const HANDOUT_STYLE = `
.handout { color: #000; background: #fff; font-family: Figtree, system-ui, sans-serif; font-size: 10pt; line-height: 1.3 }
.handout.large { font-size: 18pt }
.handout .side + .side { break-before: page }
.handout h1 { font-size: 1.7em; margin: 0 }
.handout h1 span { font-weight: 400; font-size: 0.6em }
.handout h2, .handout h3 { font-size: 1.2em; margin: 0.6em 0 0.2em; break-after: avoid }
.handout .way { font-weight: 400 }
.handout p { margin: 0.15em 0 }
.handout .phrase { break-inside: avoid }
.handout table { width: 100%; border-collapse: collapse; table-layout: fixed }
.handout table td:first-child, .handout tbody th { width: 14mm; text-align: left; font-weight: 700; font-size: 0.8em }
.handout th[scope="col"] { font-size: 1.2em }
.handout tbody td, .handout tbody th { border-top: 0.5pt solid #bbb; vertical-align: top; padding: 0.5mm; font-size: 0.85em; overflow-wrap: break-word }
.handout .pose svg { display: block; margin: 0 auto; height: 22mm; max-width: 100% }
.handout .tight .pose svg { height: 18mm }
.handout tr.say td { font-style: italic }
.handout .notes, .handout .end { font-size: 0.85em }
.handout ol, .handout ul { list-style: none; margin: 0; padding: 0 }
.handout ul { padding-left: 2em }
.handout ol > li { display: grid; grid-template-columns: 1.8em 4em 1fr 6em; align-items: center; gap: 0.5em; min-height: 1.6em; border-top: 0.5pt solid #bbb; break-inside: avoid }
.handout ol > li > b { font-size: 1.3em }
.handout ol > li svg { display: block; height: 3.4em; width: 4em }
.handout ol > li p { margin: 0 }
.handout ol > li i { font-size: 0.85em }
`
