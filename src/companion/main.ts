// Runs a session in a page of its own, without a server: count, names, easier ways and tones; held, skipped and gone
// back by press or key; the screen kept awake.
import { cueSheet } from '@/core/cue/cues'
import { asPlanned } from '@/core/cut/cut'
import { overlayAt, overlayChanges, type OverlayState } from '@/core/look/overlay'
import { companionTexts as words } from '@/core/words/en/companion'
import { viewerTexts } from '@/core/words/en/viewers'
import { Run } from './run'
import { SESSION_ID, STAGE_ID, type CompanionSession } from './session'
import { Sounds } from './sound'

const session = JSON.parse(document.getElementById(SESSION_ID)?.textContent ?? '{}') as CompanionSession
const stage = document.getElementById(STAGE_ID)
const lane = asPlanned(session.segments)
// Cautions are read before it starts, and are no card here.
const changes = overlayChanges(lane, { ...session.viewing, caution: 'none', namesTalk: true })
const run = new Run(lane)
const sounds = new Sounds(cueSheet(lane, { wishes: { ...session.cues, voice: 'none' } }).cues, session.cues.family)

/** An element with a class and a text. */
function made<Tag extends keyof HTMLElementTagNameMap>(
  tag: Tag,
  className: string,
  text = '',
): HTMLElementTagNameMap[Tag] {
  const element = document.createElement(tag)
  element.className = className
  element.textContent = text
  return element
}

function button(text: string, className: string, press: () => void): HTMLButtonElement {
  const element = made('button', className, text)
  element.addEventListener('click', press)
  return element
}

function showStart(): void {
  const [heading = '', ...cautions] = viewerTexts.caution
  const list = made('ul', 'cautions')
  list.append(...cautions.map((text) => made('li', '', text)))
  stage?.replaceChildren(
    made('h1', 'title', session.title),
    made('h2', '', heading),
    list,
    button(words.start, 'main', start),
  )
}

function showEnd(): void {
  stage?.replaceChildren(
    ...[made('h1', 'title', words.over), ...(session.next ? [made('p', 'next', words.comesNext(session.next))] : [])],
    button(words.again, 'main', () => location.reload()),
  )
}

function start(): void {
  sounds.wake()
  void keepAwake()
  const board = new Board()
  stage?.replaceChildren(board.root)
  const moved = (): void => {
    sounds.leap(run.planMs)
    board.draw()
  }
  board.onPress = {
    main: () => {
      if (run.waits && !run.held) run.next()
      else run.hold(!run.held)
      moved()
    },
    skip: () => {
      run.next()
      moved()
    },
    back: () => {
      run.back()
      moved()
    },
  }
  document.addEventListener('keydown', (event) => {
    const press = { ' ': 'main', ArrowRight: 'skip', ArrowLeft: 'back' } as const
    const what = press[event.key as keyof typeof press]
    if (!what || event.target instanceof HTMLButtonElement) return
    event.preventDefault()
    board.onPress[what]()
  })
  let before = performance.now()
  const timer = setInterval(() => {
    const now = performance.now()
    run.pass(now - before)
    before = now
    if (run.over) {
      clearInterval(timer)
      return showEnd()
    }
    if (!run.held) sounds.lay(run)
    board.draw()
  }, 50)
}

async function keepAwake(): Promise<void> {
  const ask = (): Promise<unknown> => navigator.wakeLock.request('screen')
  await ask().catch(() => stage?.append(made('p', 'awake', words.awake)))
  // A page that was away has lost it.
  document.addEventListener('visibilitychange', () => {
    if (document.visibilityState === 'visible') void ask().catch(() => undefined)
  })
}

/** What is seen while it runs. */
class Board {
  readonly root = made('div', 'board')
  onPress = { main: (): void => {}, skip: (): void => {}, back: (): void => {} }
  private readonly count = made('div', 'count')
  private readonly label = made('h1', 'label')
  private readonly counters = made('p', 'counters')
  private readonly lines = made('ul', 'lines')
  private readonly next = made('p', 'next')
  private readonly passed = made('div', 'passed')
  private readonly main = button('', 'main', () => this.onPress.main())
  /** What is drawn, so that nothing is drawn twice. */
  private drawn = ''

  constructor() {
    const buttons = made('div', 'buttons')
    buttons.append(
      button(words.back, 'side', () => this.onPress.back()),
      this.main,
      button(words.skip, 'side', () => this.onPress.skip()),
    )
    this.count.setAttribute('role', 'timer')
    const said = made('div', 'said')
    said.append(this.counters, this.label, this.lines, this.next)
    this.root.append(this.passed, this.count, said, buttons)
  }

  draw(): void {
    const state = overlayAt(changes, run.planMs)
    const key = JSON.stringify([state, run.held, run.waits])
    if (!state || key === this.drawn) return
    this.drawn = key
    this.root.dataset.ground = state.ground
    this.count.textContent = countIn(state)
    this.label.textContent = [state.label, state.side && words.sides[state.side]].filter(Boolean).join(', ')
    this.counters.textContent = state.counters.join(' / ')
    this.lines.replaceChildren(...state.lines.map(({ kind, text }) => made('li', kind, text)))
    this.next.textContent = state.next ? nextIn(state) : ''
    this.passed.style.width = `${(100 * run.share).toFixed(1)}%`
    this.main.textContent = run.held ? words.goOn : run.waits ? words.done : words.hold
  }
}

const countIn = ({ count, reps }: OverlayState): string =>
  count !== null ? String(count) : reps !== null ? words.reps(reps) : ''

const nextIn = ({ next, nextMs }: OverlayState): string =>
  [viewerTexts.next(next), nextMs !== null && viewerTexts.length(nextMs)].filter(Boolean).join(', ')

showStart()
