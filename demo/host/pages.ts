// The pages of the simulated host. Each says that it is one.
import { formatClock } from '../../src/core/time/clock'
import { chaptersIn, retentionOf, type Video } from './videos'

const escaped = (text: string): string =>
  text.replace(/[&<>"']/g, (sign) => `&#${sign.codePointAt(0)};`).replaceAll('\0', '')

const STYLE = `
  :root { color-scheme: light dark; --ink: #14242b; --ground: #f4f1e8; --line: #9fb0ac; --mark: #b3402a; }
  @media (prefers-color-scheme: dark) { :root { --ink: #e9efe9; --ground: #14201f; --line: #47605d; --mark: #f0937b; } }
  * { box-sizing: border-box; }
  body { margin: 0; background: var(--ground); color: var(--ink); font: 17px/1.5 system-ui, sans-serif; }
  .told { margin: 0; padding: 10px 24px; background: var(--mark); color: var(--ground); font-weight: 700; }
  main { max-width: 1100px; margin: 0 auto; padding: 24px; display: grid; gap: 28px; grid-template-columns: minmax(0, 2fr) minmax(0, 1fr); }
  @media (max-width: 760px) { main { grid-template-columns: minmax(0, 1fr); padding: 16px; } }
  h1 { font-size: 26px; line-height: 1.2; margin: 12px 0; overflow-wrap: anywhere; }
  h2 { font-size: 19px; margin: 24px 0 8px; }
  video { width: 100%; background: #000; display: block; }
  pre { font: inherit; white-space: pre-wrap; overflow-wrap: anywhere; margin: 0; }
  ol, ul { list-style: none; margin: 0; padding: 0; }
  li { padding: 8px 0; border-bottom: 1px solid var(--line); overflow-wrap: anywhere; }
  button { font: inherit; color: inherit; background: none; border: 2px solid var(--ink); padding: 8px 16px; cursor: pointer; }
  li button { border: 0; padding: 4px 0; text-align: left; min-height: 32px; }
  li button b { font-variant-numeric: tabular-nums; margin-right: 10px; }
  form { margin-top: 20px; }
  input, textarea { font: inherit; width: 100%; padding: 8px; margin: 4px 0 12px; background: transparent; color: inherit; border: 1px solid var(--line); }
  :focus-visible { outline: 3px solid var(--mark); outline-offset: 2px; }
  a { color: inherit; }
  small { opacity: 0.8; }
`

const page = (title: string, body: string): string => `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1">
<title>${escaped(title)}</title><style>${STYLE}</style></head>
<body><p class="told">Towpath, a SIMULATED video host. It runs on this machine alone; nothing here is on the internet.</p>
${body}</body></html>`

const STATES: Record<Video['state'], string> = {
  receiving: 'still coming in',
  processing: 'being worked at',
  ready: 'to be watched',
  rejected: 'rejected',
}

export function listPage(videos: readonly Video[]): string {
  const rows = videos.map(
    ({ id, title, state, reason }) =>
      `<li><a href="/watch/${id}">${escaped(title)}</a> <small>${STATES[state]}${reason ? `: ${escaped(reason)}` : ''}</small></li>`,
  )
  const list = rows.length ? `<ul>${rows.join('')}</ul>` : '<p>No video has come yet.</p>'
  return page('Towpath', `<main><section><h1>Videos</h1>${list}</section></main>`)
}

export function watchPage(video: Video): string {
  const { id, title, description, state, reason, captions } = video
  const player =
    state === 'ready'
      ? `<video id="video" controls playsinline src="/file/${id}">${
          captions ? `<track kind="captions" srclang="en" label="English" src="/captions/${id}" default>` : ''
        }</video>`
      : `<p><b>This video is ${STATES[state]}${reason ? `: ${escaped(reason)}` : ''}.</b></p>`
  return page(
    title,
    `<main><section>${player}<h1>${escaped(title)}</h1><pre>${escaped(description)}</pre></section>
<aside>${chaptersPart(video)}${curvePart(video)}${commentsPart(video)}</aside></main>
<script>
  const video = document.getElementById('video')
  for (const button of document.querySelectorAll('[data-at]'))
    button.onclick = () => { video.currentTime = Number(button.dataset.at) / 1000; video.play() }
</script>`,
  )
}

function chaptersPart(video: Video): string {
  const chapters = chaptersIn(video)
  if (!chapters.length) return '<h2>Chapters</h2><p>None were found in the description.</p>'
  const rows = chapters.map(
    ({ atMs, title }) => `<li><button data-at="${atMs}"><b>${formatClock(atMs)}</b>${escaped(title)}</button></li>`,
  )
  return `<h2>Chapters</h2><ol>${rows.join('')}</ol>`
}

function curvePart(video: Video): string {
  if (video.state !== 'ready') return ''
  const shares = retentionOf(video)
  const points = shares.map((share, at) => `${at * 3},${100 - share * 100}`).join(' ')
  return `<h2>Who is still there</h2>
<svg viewBox="-2 -4 304 108" role="img" aria-label="Simulated: ${Math.round((shares.at(-1) ?? 0) * 100)} of 100 viewers stay to the end" width="100%">
<path d="M0 100H300" stroke="var(--line)"/><polyline points="${points}" fill="none" stroke="var(--mark)" stroke-width="3"/></svg>
<small>Simulated: nobody watched.</small>`
}

function commentsPart({ id, comments }: Video): string {
  const rows = comments.map(({ name, text }) => `<li><b>${escaped(name)}</b><br>${escaped(text)}</li>`)
  return `<h2>Comments</h2><ul>${rows.join('')}</ul>
<form method="post" action="/watch/${id}/comments">
<label>Name<input name="name" maxlength="60"></label>
<label>Comment<textarea name="text" rows="3" maxlength="2000" required></textarea></label>
<button>Say it</button></form>`
}
