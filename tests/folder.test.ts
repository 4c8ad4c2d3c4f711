// The data folder, its account and its cluster, as the start script keeps them: links that lead out of it, a second
// copy from another network, clusters of other versions, lost passwords, disks that can only be read.
import { execFileSync, spawn, spawnSync } from 'node:child_process'
import { once } from 'node:events'
import {
  chownSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  symlinkSync,
  writeFileSync,
} from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import postgres from 'postgres'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'

interface Folder {
  ownAccount: () => { uid: number; gid: number } | null
  ownFolder: (home: string, account: unknown) => void
  holdFolder: (home: string, account: unknown) => Promise<() => Promise<void>>
}
interface Cluster {
  startDatabase: (
    home: string,
    options?: { keepsCopy?: boolean },
  ) => Promise<{ url: string; stop: () => Promise<void> }>
}
const SCRIPTS = resolve('scripts')
const loaded = async <T>(name: string): Promise<T> => (await import(join(SCRIPTS, name))) as T
let folder: Folder, cluster: Cluster
const homes: string[] = []
beforeAll(async () => {
  folder = await loaded<Folder>('folder.mjs')
  cluster = await loaded<Cluster>('cluster.mjs')
})
afterAll(() => homes.forEach((home) => rmSync(home, { recursive: true, force: true })))

/** An empty data folder that belongs to the account. */
function newHome(): string {
  const home = mkdtempSync(join(tmpdir(), 'jivet-folder-'))
  homes.push(home)
  folder.ownFolder(home, folder.ownAccount())
  return home
}

/** Runs a line of JavaScript with the modules of the start script, under a command. @returns what it printed. */
function runUnder(command: string[], line: string): string {
  const code = `const folder = await import('${SCRIPTS}/folder.mjs')
    const { startDatabase } = await import('${SCRIPTS}/cluster.mjs')
    try { ${line} } catch (error) { console.log(error.message) }`
  const [program = '', ...args] = [...command, process.execPath, '--input-type=module', '-e', code]
  const { stdout, stderr } = spawnSync(program, args, { encoding: 'utf8' })
  return stdout + stderr
}

describe.runIf(process.getuid?.() === 0)('links that the account laid', () => {
  it('lead root nowhere: nothing outside is written, read or given away', async () => {
    const home = newHome()
    const outside = mkdtempSync(join(tmpdir(), 'jivet-outside-'))
    homes.push(outside)
    const files = ['database-password', 'database.log', 'running', 'lock'].map((name) => {
      const file = join(outside, name)
      writeFileSync(file, `of root: ${name}`, { mode: 0o600 })
      symlinkSync(file, join(home, name))
      return file
    })
    const account = folder.ownAccount()
    for (const letGo of [await folder.holdFolder(home, account).catch(() => null)]) await letGo?.()
    rmSync(join(home, 'lock'), { force: true })
    const letGo = await folder.holdFolder(home, account)
    // A log that the account may not open is no log: the server says so and does not start.
    await expect(cluster.startDatabase(home)).rejects.toThrow('does not start')
    rmSync(join(home, 'database.log'), { force: true })
    const database = await cluster.startDatabase(home)
    await database.stop()
    await letGo()
    for (const file of files) {
      expect(readFileSync(file, 'utf8')).toMatch(/^of root: /)
      expect([statSync(file).uid, statSync(file).mode & 0o777]).toEqual([0, 0o600])
    }
    expect(readFileSync(join(home, 'database-password'), 'utf8')).toMatch(/^[0-9a-f]{48}$/)
  })

  it('give no folder of another account away', async () => {
    const home = newHome()
    const theirs = mkdtempSync(join(tmpdir(), 'jivet-theirs-'))
    homes.push(theirs)
    chownSync(theirs, 1, 1)
    execFileSync('chmod', ['755', theirs])
    writeFileSync(join(theirs, 'PG_VERSION'), '15\n')
    symlinkSync(theirs, join(home, 'database'))
    await cluster.startDatabase(home).catch(() => null)
    expect(statSync(theirs).uid).toBe(1)
  })
})

describe('the lock', () => {
  it('keeps a second copy out, in another network too, and goes with whoever holds it', async () => {
    const home = newHome()
    const hold = "await folder.holdFolder('HOME', folder.ownAccount()); console.log('held');".replace('HOME', home)
    const code = `const folder = await import('${SCRIPTS}/folder.mjs'); ${hold} setInterval(() => {}, 1000)`
    const first = spawn(process.execPath, ['--input-type=module', '-e', code], { stdio: ['ignore', 'pipe', 'inherit'] })
    await once(first.stdout, 'data')
    const isRoot = process.getuid?.() === 0
    for (const command of [[], ...(isRoot ? [['unshare', '--net']] : [])])
      expect(runUnder(command, hold)).toContain(`is in use by the Jivet with process ${first.pid}`)
    first.kill('SIGKILL')
    await once(first, 'exit')
    expect(runUnder([], `${hold} process.exit()`)).toContain('held')
  })
})

describe('a folder that is of no use', () => {
  const said = (home: string, command: string[] = []): string =>
    runUnder(command, `await folder.holdFolder('${home}', folder.ownAccount()); process.exit()`)

  it('is told in a sentence', () => {
    const home = newHome()
    const file = join(home, 'file')
    writeFileSync(file, '')
    expect(said(file)).toContain(`The data folder ${file} `)
    expect(said(join(file, 'below'))).toMatch(/^The data folder .* cannot be made: what should be a folder/)
    const others = mkdtempSync(join(tmpdir(), 'jivet-others-'))
    homes.push(others)
    mkdirSync(join(others, 'photos'))
    execFileSync('chmod', ['755', others])
    expect(said(others)).toContain('holds other things')
  })

  it.runIf(process.getuid?.() === 0)('also where its disk can only be read', () => {
    const home = newHome()
    const script = `mount --bind "${home}" "${home}" && mount -o remount,ro,bind "${home}" && exec "$@"`
    expect(said(home, ['unshare', '--mount', 'sh', '-c', script, 'sh'])).toBe(
      `Nothing can be written to the data folder ${home}: its disk can only be read.\n`,
    )
  })
})

describe('a cluster', () => {
  it('of a version that is not here is said to be that, and left as it is', () => {
    const home = newHome()
    runUnder([], `await (await startDatabase('${home}')).stop()`)
    const version = join(home, 'database', 'PG_VERSION')
    const made = readFileSync(version, 'utf8')
    writeFileSync(version, '9\n')
    const said = runUnder([], `await startDatabase('${home}')`)
    expect(said).toContain('was made by PostgreSQL 9, and only')
    expect(said).toContain('nothing was changed')
    expect(said).toContain('Install the package postgresql-9')
    expect(said).not.toContain('    at ')
    writeFileSync(version, made)
    expect(runUnder([], `await (await startDatabase('${home}')).stop(); console.log('well')`)).toContain('well')
  })

  it('of a version that is not here is filled anew from the copy of the last end, and kept', async () => {
    const home = newHome()
    const query = async <T>(ask: (sql: postgres.Sql) => Promise<T>): Promise<T> => {
      const { url, stop } = await cluster.startDatabase(home, { keepsCopy: true })
      const sql = postgres(url, { max: 1 })
      const answer = await ask(sql)
      await sql.end()
      await stop()
      return answer
    }
    const counted = () =>
      query((sql) => sql`select count(*)::int as count, sum(length(word))::int as letters from words`)
    await query(async (sql) => {
      await sql`create table words (id int primary key, word text not null)`
      await sql`insert into words select n, repeat('ä', n) from generate_series(1, 500) n`
    })
    const before = await counted()
    const made = readFileSync(join(home, 'database', 'PG_VERSION'), 'utf8').trim()
    const olden = (): void => writeFileSync(join(home, 'database', 'PG_VERSION'), '9\n')

    olden()
    rmSync(join(home, 'database.copy.whole'))
    const said = runUnder([], `await startDatabase('${home}')`)
    expect(said).toContain('but more was done after it')
    expect(readFileSync(join(home, 'database', 'PG_VERSION'), 'utf8')).toBe('9\n')

    writeFileSync(join(home, 'database.copy.whole'), '')
    expect(await counted()).toEqual(before)
    expect(readFileSync(join(home, 'database', 'PG_VERSION'), 'utf8').trim()).toBe(made)
    expect(readFileSync(join(home, 'database-9', 'PG_VERSION'), 'utf8')).toBe('9\n')

    // Ended between taking the old one away and putting the new one in its place.
    renameSync(join(home, 'database'), join(home, 'database.upgraded'))
    expect(await counted()).toEqual(before)
  })

  it('gets a new password where its file is gone', async () => {
    const home = newHome()
    await (await cluster.startDatabase(home)).stop()
    const before = readFileSync(join(home, 'database-password'), 'utf8')
    rmSync(join(home, 'database-password'))
    const { url, stop } = await cluster.startDatabase(home)
    const sql = postgres(url, { max: 1 })
    expect(await sql`select 1 as one`).toEqual([{ one: 1 }])
    await sql.end()
    await stop()
    expect(readFileSync(join(home, 'database-password'), 'utf8')).not.toBe(before)
  })

  it('that is damaged is told with what it said itself, and not started for ever', () => {
    const home = newHome()
    runUnder([], `await (await startDatabase('${home}')).stop()`)
    rmSync(join(home, 'database', 'global'), { recursive: true })
    const said = runUnder([], `await startDatabase('${home}')`)
    expect(said).toContain('does not start. The last lines of')
    rmSync(join(home, 'database', 'PG_VERSION'))
    expect(runUnder([], `await startDatabase('${home}')`)).toContain('is damaged: it has no PG_VERSION')
  })
})
