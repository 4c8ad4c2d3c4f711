// A connection to the database that breaks while something is on its way to it. As published, Postgres.js 3.4.9 never
// sends anything on such a connection again, throws where nobody catches, or asks what a transaction had still to ask
// of a connection that is in none (patches/).
import { once } from 'node:events'
import { connect, type Socket } from 'node:net'
import postgres from 'postgres'
import { describe, expect, it } from 'vitest'
import { startedDatabase } from './records'

let url = ''
startedDatabase((address) => {
  url = address
  return Promise.resolve()
})

/** A pool of one connection, and the sockets that it has opened. */
function opened(): { pool: postgres.Sql; sockets: Socket[] } {
  const { port, hostname } = new URL(url)
  const sockets: Socket[] = []
  const socket = (): Socket => {
    const one = connect(Number(port), hostname)
    sockets.push(one)
    return one
  }
  return { pool: postgres(url, { max: 1, connect_timeout: 3, socket } as never), sockets }
}

describe('A connection that breaks', () => {
  it('before what was asked was sent is opened again', async () => {
    const { pool, sockets } = opened()
    await pool`select 1`
    // From here on Node closes what is destroyed before it comes to what is to be done next.
    await new Promise((done) => setImmediate(done))
    const lost = pool`select 2`.then(
      () => 'answered',
      (error: Error) => error.message,
    )
    for (let turn = 0; turn < 10; turn++) await Promise.resolve()
    sockets[0]?.destroy()
    expect(await lost).toMatch(/CONNECTION_CLOSED/)
    expect(await pool`select 3 as number`).toEqual([{ number: 3 }])
    expect(sockets).toHaveLength(2)
    await pool.end()
  })

  it.each([
    ['ends that, and whatever it asks after', false],
    ['asks nothing of the connection that was opened since', true],
  ])('within a transaction %s', async (_, isBack) => {
    const { pool, sockets } = opened()
    let tell: (after: string) => void
    const after = new Promise<string>((resolve) => (tell = resolve))
    const transaction = pool.begin(async (tx) => {
      await tx`select 1`
      sockets[0]?.destroy()
      await once(sockets[0]!, 'close')
      if (isBack) await pool`select 4`
      await tx`select 2`.then(
        () => tell('answered'),
        (error: Error) => tell(error.message),
      )
    })
    await expect(transaction).rejects.toThrow('CONNECTION_CLOSED')
    expect(await after).toMatch(/CONNECTION_CLOSED/)
    expect(await pool`select 3 as number`).toEqual([{ number: 3 }])
    await pool.end()
  })
})
