// The data folder and the account that it belongs to. Root looks after neither what stands in the folder nor what is
// written there: everything in it is made, read and removed by the account itself, so that no link that the account
// may have laid leads root anywhere.
import { execFileSync, spawn, spawnSync } from 'node:child_process'
import { once } from 'node:events'
import { mkdirSync, readdirSync, readFileSync, statSync } from 'node:fs'
import { homedir } from 'node:os'
import { join, resolve } from 'node:path'

export const isRoot = process.getuid?.() === 0

/** Where the data is: `JIVET_HOME`, or the usual place. */
export const dataFolder = () =>
  resolve(process.env.JIVET_HOME ?? (isRoot ? '/var/lib/jivet' : join(homedir(), '.local', 'share', 'jivet')))

const ACCOUNT = 'jivet'

/**
 * The account that server, worker, database and all their tests run under: ours, or, when we are root, one of its own
 * without rights, which is made where it is missing.
 * @returns null where it is ours.
 */
export function ownAccount() {
  if (!isRoot) return null
  const id = (flag) => spawnSync('id', [flag, ACCOUNT]).stdout?.toString().trim()
  if (!id('-u'))
    execFileSync('useradd', ['--system', '--user-group', '--no-create-home', '--home-dir', '/nonexistent', ACCOUNT])
  return { uid: Number(id('-u')), gid: Number(id('-g')), card: cardGroup() }
}

/**
 * @returns the group that may use the graphics card, where hardware is asked to encode and there is one (the device of
 * VA-API, src/engine/encoding.ts).
 */
function cardGroup() {
  if (process.env.JIVET_ENCODER !== 'hardware') return null
  return statSync('/dev/dri/renderD128', { throwIfNoEntry: false })?.gid ?? null
}

/**
 * A command as that account, which the kernel ends with us, however we end, and which can gain no rights.
 * @param signal what it gets when we are gone.
 */
export const kept = (account, signal, command, args) => [
  'setpriv',
  [
    ...['--no-new-privs', '--pdeathsig', signal],
    ...(account ? [`--reuid=${account.uid}`, `--regid=${account.gid}`, groupsOf(account)] : []),
    ...[command, ...args],
  ],
]

const groupsOf = ({ card }) => (card ? `--groups=${card}` : '--clear-groups')

export const may = (account, flag, path) => spawnSync(...kept(account, 'KILL', 'test', [flag, path])).status === 0

/**
 * Runs a shell script as the account: the one way to touch what is in the data folder.
 * @param args its `$1`, `$2` and so on.
 * @returns what it printed. @throws Error where it failed.
 */
export function asAccount(account, script, args, { input = '' } = {}) {
  const command = kept(account, 'KILL', 'sh', ['-c', `umask 077; set -eu; ${script}`, 'sh', ...args])
  return execFileSync(...command, { cwd: '/', input, encoding: 'utf8', stdio: ['pipe', 'pipe', 'pipe'] })
}

/** @returns what a file of the data folder says; null where there is none that the account may read. */
export function readAsAccount(account, path) {
  const command = kept(account, 'KILL', 'cat', [path])
  const { status, stdout } = spawnSync(...command, { cwd: '/', encoding: 'utf8', stdio: ['ignore', 'pipe', 'ignore'] })
  return status === 0 ? stdout : null
}

/** What runs is marked with the data folder it belongs to, so that what is left of it can be found. */
const MARK = 'JIVET_OWNED_BY'
export const marked = (home, env) => ({ ...env, [MARK]: resolve(home) })

/** What only a data folder holds. */
const OURS = ['database', 'database-password', 'database.making', 'demo', 'lock', 'running', 'store', 'uploads']

/**
 * Gives the data folder to the account, and to nobody else: folders 0700, files 0600. What an older Jivet left readable
 * is closed, once.
 * @throws Error with a sentence where the folder is of no use.
 */
export function ownFolder(home, account) {
  makeFolder(home)
  const { uid, mode } = statSync(home)
  const owner = account ? account.uid : process.getuid()
  if (uid === owner && (mode & 0o777) === 0o700) return mustWrite(home, account)
  const inside = readdirSync(home)
  if (inside.length && !inside.some((name) => OURS.includes(name)))
    throw new Error(`${home} holds other things. Set JIVET_HOME to a folder of its own: all in it is closed to others.`)
  // Links are given away, not followed; and what the account owns already it closes itself.
  if (account && uid !== owner) execFileSync('chown', ['-R', '--no-dereference', `${account.uid}:${account.gid}`, home])
  mustWrite(home, account)
  asAccount(account, 'chmod 0700 "$1"; chmod -R go-rwx "$1"', [home])
}

function makeFolder(home) {
  try {
    mkdirSync(home, { recursive: true, mode: 0o700 })
    if (statSync(home).isDirectory()) return
  } catch (error) {
    throw new Error(`The data folder ${home} cannot be made: ${reasonOf(error)}. Set JIVET_HOME to another folder.`)
  }
  throw new Error(`The data folder ${home} is a file. Set JIVET_HOME to a folder.`)
}

const REASONS = {
  EROFS: 'its disk can only be read',
  EACCES: 'this account may not write there',
  EPERM: 'this account may not write there',
  ENOSPC: 'its disk is full',
  EEXIST: 'something else bears its name',
  ENOTDIR: 'what should be a folder on the way there is a file',
  EIO: 'its disk cannot be read',
}
const reasonOf = (error) => REASONS[error.code] ?? error.message

/** Writes a file there, as only that tells of a disk that can be read alone. */
function mustWrite(home, account) {
  try {
    asAccount(account, 'file=$(mktemp "$1/.writable-XXXXXX"); rm "$file"', [home])
  } catch (error) {
    const said = String(error.stderr ?? '').trim()
    if (account && /Permission denied/.test(said))
      throw new Error(
        `The account ${ACCOUNT}, under which Jivet runs when it is started as root, cannot reach ${home}. Set JIVET_HOME to a folder that it can reach, such as /var/lib/jivet.`,
      )
    const why = /Read-only/.test(said)
      ? REASONS.EROFS
      : /No space/.test(said)
        ? REASONS.ENOSPC
        : said.split(': ').at(-1)
    throw new Error(`Nothing can be written to the data folder ${home}: ${why}.`)
  }
}

/** What `flock` exits with where somebody else has the lock. */
const HELD = 75

/**
 * Holds the data folder for one copy at a time, by a lock that its file system keeps and that ends with us, however we
 * end. What a killed start left behind is ended first.
 * @returns a function that lets go of it.
 * @throws Error naming the process that holds it.
 */
export async function holdFolder(home, account) {
  ownFolder(home, account)
  const lock = join(home, 'lock')
  // It holds as long as its input is open: until we close it, or are gone.
  const script = 'umask 077; exec flock --nonblock --conflict-exit-code "$1" "$2" sh -c "echo held; exec cat"'
  const holder = spawn(...kept(account, 'KILL', 'sh', ['-c', script, 'sh', String(HELD), lock]), {
    cwd: '/',
    stdio: ['pipe', 'pipe', 'inherit'],
  })
  const [said] = await Promise.race([once(holder.stdout, 'data'), once(holder, 'exit')])
  if (!Buffer.isBuffer(said)) {
    if (said !== HELD) throw new Error(`The data folder ${home} cannot be locked: its file system keeps no locks.`)
    const number = readAsAccount(account, join(home, 'running')) ?? ''
    throw new Error(
      `The data folder is in use by the Jivet with process ${/^\d+$/.test(number) ? number : 'that has just been started'}. Stop it first, or set JIVET_HOME to another folder.`,
    )
  }
  await endLeftovers(home)
  asAccount(account, 'rm -f "$1"; cat > "$1"', [join(home, 'running')], { input: String(process.pid) })
  return async () => {
    asAccount(account, 'rm -f "$1"', [join(home, 'running')])
    holder.stdin.end()
    if (holder.exitCode === null && holder.signalCode === null) await once(holder, 'exit')
  }
}

/** Processes that are marked as this folder's. */
export function ownedProcesses(home) {
  const mark = `${MARK}=${resolve(home)}`
  return readdirSync('/proc')
    .filter((name) => /^\d+$/.test(name) && Number(name) !== process.pid)
    .map(Number)
    .filter((pid) => factOf(pid, 'environ').split('\0').includes(mark))
}

/** Asks what a killed start left behind to end, waits for it, and ends what does not. */
async function endLeftovers(home) {
  const tell = (signal) => {
    for (const pid of ownedProcesses(home)) {
      try {
        process.kill(pid, signal)
      } catch {
        /* gone already */
      }
    }
  }
  for (let attempt = 0; ownedProcesses(home).length; attempt++) {
    if (attempt === 0) tell('SIGINT')
    if (attempt === 80) tell('SIGKILL')
    if (attempt > 120) throw new Error('What an earlier start left behind does not end.')
    await new Promise((done) => setTimeout(done, 100))
  }
}

/** Processor time that a process has used, in ticks; 0 where it is gone. Fields 14 and 15 of proc(5)'s stat. */
function ticksOf(pid) {
  const fields = factOf(pid, 'stat').split(') ').at(-1)?.split(' ') ?? []
  return Number(fields[11] ?? 0) + Number(fields[12] ?? 0)
}

const QUIET_MS = 120_000
const TELL_MS = 15_000
const LOOK_MS = 200

/**
 * Waits until something is there, as long as what belongs to the data folder gets on: however slow the machine is. Says
 * what it waits for every quarter of a minute.
 * @param isThere asked again and again. @param isGone whether what is waited for has ended.
 * @throws Error after two minutes in which nothing was worked on, or once it is gone.
 */
export async function waitWhileBusy(home, what, isThere, isGone = () => false) {
  const begun = Date.now()
  let [ticks, worked, told] = [0, begun, begun]
  while (!(await isThere())) {
    const now = Date.now()
    if (isGone()) throw new Error(`${what} ended while it was waited for; the lines above say why.`)
    if (now - told >= TELL_MS) {
      const spent = ownedProcesses(home).reduce((sum, pid) => sum + ticksOf(pid), 0)
      if (spent !== ticks) [ticks, worked] = [spent, now]
      if (now - worked >= QUIET_MS) throw new Error(`${what} does not answer, and nothing has been worked on since.`)
      console.log(
        `Still waiting for ${what[0].toLowerCase()}${what.slice(1)} (${Math.round((now - begun) / 1000)} s) ...`,
      )
      told = now
    }
    await new Promise((done) => setTimeout(done, LOOK_MS))
  }
}

/** A file of a process in /proc; '' where it is gone. */
function factOf(pid, name) {
  try {
    return readFileSync(`/proc/${pid}/${name}`, 'utf8')
  } catch {
    return ''
  }
}

/** The npm that runs us, or its shell's; null where none does. */
function npmAbove() {
  if (!process.env.npm_lifecycle_event) return null
  const above = [process.ppid, Number(/^PPid:\s*(\d+)/m.exec(factOf(process.ppid, 'status'))?.[1] ?? 0)]
  return above.find((pid) => factOf(pid, 'cmdline').includes('npm')) ?? null
}

/**
 * Calls back once the process that we are to end with is gone: the one that JIVET_ENDS_WITH names, or npm, which tells
 * its children nothing when it is ended by a signal.
 */
export function endWithParent(end) {
  const parent = Number(process.env.JIVET_ENDS_WITH ?? 0) || npmAbove()
  if (!parent) return
  const watch = setInterval(() => {
    if (factOf(parent, 'cmdline')) return
    clearInterval(watch)
    end()
  }, 500)
  watch.unref()
}
