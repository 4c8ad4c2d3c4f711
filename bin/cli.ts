// `jivet COMMAND ...`: parses the call, runs one command, maps what went wrong to an exit code.
import { parseArgs } from 'node:util'
import program from '../package.json'
import { Problem, type ProblemCode } from '../src/core/problem'
import { UsageError } from './call'
import { COMMANDS } from './commands'

const USAGE = `usage:
  jivet expand PLAN [--json | --csv]
  jivet check  PLAN [--json]
  jivet read   TEXT.txt [--json]
  jivet convert PLAN OUT.jivet.json|OUT.score.txt|OUT.csv
  jivet cues   PLAN [--json]
  jivet overlay PLAN [--sync FILE.json] [--json]
  jivet hear   FOOTAGE [--json]
  jivet sync   PLAN FOOTAGE... [--captions FILE.vtt] [--log FILE.json] [--json]
  jivet cut    PLAN FOOTAGE... [--sync FILE.json] [--fit follow|score|fill | --edits FILE.edl|.otio [--rate 30000/1001]]
               [--json]
  jivet render PLAN FOOTAGE... --out OUT.mp4 [--sync FILE.json] [--fit follow|score|fill | --edits FILE.edl|.otio]
               [--look NAME] [--shape filmed|wide|upright|square] [--for host|hdr|phone|small|master|draft]
  jivet render PLAN [FOOTAGE...] --only overlay --out OUT.mov|OUT.webm|FOLDER ...
  jivet render PLAN --out OUT.mp4 [--look NAME] [--shape NAME] [--for NAME]
  jivet verify VIDEO PLAN [--sync FILE.json] [--look NAME] [--json]
  jivet track  PLAN --out OUT.wav|.flac|.mp3
  jivet companion PLAN --out OUT.html
  jivet calendar PLAN... --from 2026-12-01T07:00 [--every DAYS]
  jivet export PLAN [--sync FILE.json] --as vtt|srt|ass|csv|chapters|ffmetadata|description|edl|otio|markdown|json [--rate 30000/1001]
PLAN is a workout file (*.jivet.json), a typed score (*.score.txt), an interval table (*.csv), or a plan typed as in a
description (any other *.txt). jivet --version tells which Jivet this is. Add --debug for a stack trace.
`

/** What the machine lacks, and not what was read. */
const LACKING: ReadonlySet<ProblemCode> = new Set(['tool-missing', 'font-missing', 'package-missing'])

/** Asked to end, the command ends its tools and takes back what it has begun; then it is gone by that signal. */
const halt = new AbortController()
let endedBy: NodeJS.Signals | null = null
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const)
  process.once(signal, () => {
    endedBy = signal
    halt.abort()
  })

async function main(argv: string[]): Promise<number> {
  try {
    const { values, positionals } = parseArgs({
      args: argv,
      allowPositionals: true,
      options: {
        json: { type: 'boolean' },
        csv: { type: 'boolean' },
        debug: { type: 'boolean' },
        help: { type: 'boolean', short: 'h' },
        version: { type: 'boolean' },
        out: { type: 'string' },
        sync: { type: 'string' },
        captions: { type: 'string' },
        log: { type: 'string' },
        as: { type: 'string' },
        fit: { type: 'string' },
        look: { type: 'string' },
        shape: { type: 'string' },
        for: { type: 'string' },
        only: { type: 'string' },
        edits: { type: 'string' },
        from: { type: 'string' },
        every: { type: 'string' },
        rate: { type: 'string' },
      },
    })
    if (values.help) {
      process.stdout.write(USAGE)
      return 0
    }
    if (values.version) {
      process.stdout.write(`jivet ${program.version}\n`)
      return 0
    }
    const [name = '', ...files] = positionals
    const command = Object.hasOwn(COMMANDS, name) ? COMMANDS[name as keyof typeof COMMANDS] : undefined
    if (!command) throw new UsageError(name ? `there is no command "${name}"` : 'no command given')
    await command(files, { ...values, signal: halt.signal })
    return Number(process.exitCode ?? 0)
  } catch (error) {
    return report(error, argv.includes('--debug'))
  }
}

function report(error: unknown, debug: boolean): number {
  if (debug && error instanceof Error) process.stderr.write(`${error.stack}\n`)
  const misused =
    error instanceof UsageError ||
    (error instanceof TypeError && (error as NodeJS.ErrnoException).code?.startsWith('ERR_PARSE_ARGS'))
  if (misused) {
    process.stderr.write(`jivet: ${(error as Error).message}\n${USAGE}`)
    return 2
  }
  const place = error instanceof Problem && error.place ? `${error.place}: ` : ''
  const message = place + (error instanceof Error ? error.message : String(error))
  process.stderr.write(`jivet: ${message.split('\n')[0]}\n`)
  return error instanceof Problem && LACKING.has(error.code) ? 3 : 1
}

process.stdout.on('error', (error: NodeJS.ErrnoException) => {
  if (error.code === 'EPIPE') process.exit(0)
})
process.exitCode = await main(process.argv.slice(2))
if (endedBy) process.kill(process.pid, endedBy)
