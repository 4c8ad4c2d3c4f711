// The part of the server that writes sessions down, alone, for a test that kills it again and again.
import { createServer } from 'node:http'
import type { AddressInfo } from 'node:net'
import { floorEventSchema } from '../src/core/floor/events'
import { tellSession } from '../src/server/sessions'

const server = createServer((request, response) => {
  const chunks: Buffer[] = []
  request.on('data', (chunk: Buffer) => chunks.push(chunk))
  request.on('end', () => {
    const { id, events, seenMs, after } = JSON.parse(Buffer.concat(chunks).toString()) as {
      id: string
      events: unknown[]
      seenMs: number | null
      after: number
    }
    tellSession(id, { events: events.map((one) => floorEventSchema.parse(one)), seenMs, after }).then(
      (told) => response.end(JSON.stringify(told)),
      (error: Error) => response.writeHead(500).end(error.message),
    )
  })
})
server.listen(0, '127.0.0.1', () => process.send?.((server.address() as AddressInfo).port))
process.once('disconnect', () => process.exit(0))
