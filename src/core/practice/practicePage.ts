import { UserError } from '../errors'
import { escaped } from '../record/escaped'
import { markOf, type PageData } from './pageData'

/** The page's own script and style, as they were built, and the policy's mark of the script. */
export interface PageParts {
  readonly script: string
  readonly style: string
  /** `sha256-…` of the script. */
  readonly hash: string
}

/** A page may be no larger than this, in bytes, without and with a voice, so that it goes with a message. */
const MOST_BYTES = 300_000
const MOST_SPOKEN_BYTES = 450_000
/** And in the instructor's own voice. */
const MOST_OWN_BYTES = 2_000_000

const CHANGED = 'This page was changed on its way, or your browser is too old. Ask for it again.'

/** Data that stands in a page: nothing in it ends its element, and no line separator breaks it. */
const dataText = (data: PageData): string =>
  JSON.stringify(data).replace(
    /[<\u2028\u2029]/g,
    (sign) => `\\u${sign.charCodeAt(0).toString(16).padStart(4, '0')}`,
  )

/**
 * A practice page as one file that asks for nothing from outside.
 * @throws UserError where it would be too large to send
 */
export function practicePage(data: PageData, { script, style, hash }: PageParts): string {
  const text = dataText(data)
  const policy = [
    "default-src 'none'",
    `script-src '${hash}'`,
    "style-src 'unsafe-inline'",
    'media-src blob:',
    "base-uri 'none'",
    "form-action 'none'",
  ].join('; ')
  const page = `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<meta http-equiv="Content-Security-Policy" content="${policy}">
<meta name="robots" content="noindex">
<title>${escaped(data.title || 'Practice')}</title>
<style>${style}</style>
</head>
<body>
<p id="changed">${CHANGED}</p>
<script type="application/json" id="data" data-mark="${markOf(text)}">${text}</script>
<script>${script}</script>
</body>
</html>
`
  const bytes = new TextEncoder().encode(page).length
  const most = data.own ? MOST_OWN_BYTES : data.voice ? MOST_SPOKEN_BYTES : MOST_BYTES
  if (bytes > most)
    throw new UserError(
      `This page would be ${Math.round(bytes / 1000)} kB; ${most / 1000} is the most that is sent safely.`,
      data.voice ? 'Leave out the voice, or choose fewer phrases.' : 'Choose fewer phrases.',
    )
  return page
}

/** What a page is called as a file. */
export const pageFileName = ({ title, whose }: PageData): string =>
  `${[title || 'Practice', whose].filter(Boolean).join(' ')}.html`.replace(
    /[\\/:*?"<>|\n\r\t]/g,
    ' ',
  )
