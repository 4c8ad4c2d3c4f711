// A session as one file: a page with its code, its fonts and its plan in it, which runs anywhere without a network.
import { readFile } from 'node:fs/promises'
import { join } from 'node:path'
import type { CompanionSession } from '../companion/session'
import { SESSION_ID, STAGE_ID } from '../companion/session'
import { DAY_PALETTE, FONTS, OVERLAY } from '../core/look/palette'
import { Problem } from '../core/problem'
import { fontFiles } from './fonts'

/** Where the bundle of `companion/main` lies (`scripts/machine.mjs`). */
const BUNDLE = join('public', 'companion.js')

/** @throws Problem `package-missing` where nothing was built. */
export async function companionPage(session: CompanionSession): Promise<string> {
  const code = await bundled()
  const fonts = await Promise.all(
    fontFiles().map(async ({ path, family, weight }) => {
      const bytes = (await readFile(path)).toString('base64')
      return `@font-face{font-family:"${family}";font-weight:${weight};src:url(data:font/woff2;base64,${bytes}) format("woff2")}`
    }),
  )
  return `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1, viewport-fit=cover">
<meta http-equiv="Content-Security-Policy" content="default-src 'none'; script-src 'unsafe-inline'; style-src 'unsafe-inline'; font-src data:">
<title>${escaped(session.title)}</title>
<style>${fonts.join('')}${STYLE}</style>
</head>
<body>
<main id="${STAGE_ID}"></main>
<script type="application/json" id="${SESSION_ID}">${inScript(JSON.stringify(session))}</script>
<script>${code}</script>
</body>
</html>
`
}

async function bundled(): Promise<string> {
  // In the server's own bundle nobody knows where this file lay; there the program is where it runs.
  const here = import.meta.dirname as string | undefined
  for (const root of [process.cwd(), ...(here ? [join(here, '..', '..')] : [])]) {
    const code = await readFile(join(root, BUNDLE), 'utf8').catch(() => null)
    if (code !== null) return code
  }
  throw new Problem({ code: 'package-missing', name: BUNDLE })
}

const escaped = (text: string): string => text.replace(/[&<>"]/g, (letter) => `&#${letter.codePointAt(0) ?? 38};`)

/** Nothing in a JSON text can end the element that it stands in. */
const inScript = (json: string): string => json.replace(/</g, '\\u003c')

const STYLE = `
*{box-sizing:border-box;margin:0}
html,body{height:100%}
body{background:${OVERLAY.ink};color:${OVERLAY.pale};font:500 18px/1.35 "${FONTS.text}",sans-serif}
main{min-height:100%;display:flex;flex-direction:column;justify-content:center;gap:16px;padding:24px;max-width:900px;margin:0 auto}
h1,.count{font-family:"${FONTS.display}",sans-serif;font-weight:400;line-height:1}
h1{font-size:clamp(34px,9vw,64px)}
h2{font-size:22px}
.cautions{padding-left:22px;display:grid;gap:8px}
button{font:700 20px "${FONTS.text}",sans-serif;min-height:60px;border:3px solid currentColor;background:none;color:inherit;padding:0 18px}
button.main{background:${OVERLAY.land};color:${OVERLAY.ink};border-color:${OVERLAY.land};font-size:24px}
button:focus-visible{outline:4px solid ${OVERLAY.pale};outline-offset:2px}
.board{display:flex;flex-direction:column;gap:14px;flex:1;min-height:calc(100vh - 48px);min-height:calc(100dvh - 48px)}
.passed{height:8px;background:${OVERLAY.land};margin:-24px 0 0 -24px;min-width:2px}
.said{display:flex;flex-direction:column;gap:12px}
.board h1{font-size:clamp(40px,12vw,72px);overflow-wrap:anywhere}
.counters,.next{color:${OVERLAY.muted};font-weight:700;font-size:20px}
.count{font-size:min(60vw,40vh);text-align:center;padding:4px 0 12px;color:${OVERLAY.ink};background:${OVERLAY.land};min-height:1.1em}
.board[data-ground=rest] .count{background:${DAY_PALETTE.water};color:${OVERLAY.pale}}
.board[data-ground=ready] .count{background:${OVERLAY.pale}}
.board[data-ground=talk] .count{background:none;min-height:0;padding:0}
.lines{list-style:none;padding:0;display:grid;gap:8px;font-size:22px}
.lines:empty{display:none}
.lines li{border-left:6px solid ${OVERLAY.land};padding-left:10px}
.buttons{display:grid;grid-template-columns:1fr 2fr 1fr;gap:10px;margin-top:auto}
.awake{color:${OVERLAY.muted};font-size:15px}
@media (orientation:landscape) and (max-height:560px){
main{padding:16px;max-width:none}
.board{display:grid;grid-template:8px 1fr auto/44% 1fr;gap:10px 20px;min-height:calc(100vh - 32px);min-height:calc(100dvh - 32px)}
.passed{grid-column:1/-1;margin:-16px 0 0 -16px}
.count{font-size:min(34vw,62vh);display:grid;place-items:center;padding:0}
.board h1{font-size:clamp(30px,10vh,48px)}
.lines,.counters,.next{font-size:18px}
.buttons{grid-column:1/-1}
button{min-height:52px}
}
`
