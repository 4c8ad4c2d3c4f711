// SIMULATED heart-rate strap: stands in for a strap on somebody's chest, and says so. It speaks the standard's bytes
// over a WebSocket on this machine: `npm run strap`, then tick the strap on the Floor page.
import { WebSocketServer } from 'ws'
import { heartRateBytes, STRAP_PORT } from '../../src/core/floor/heart'

const REST_BPM = 62
const WORK_BPM = 158
/** One go round: a made-up body warms up, works, and rests. */
const CYCLE_S = 90

const server = new WebSocketServer({ host: '127.0.0.1', port: STRAP_PORT, perMessageDeflate: false })
server.on('listening', () => console.log(`SIMULATED heart-rate strap at ws://127.0.0.1:${STRAP_PORT}`))
server.on('error', (error) => {
  console.error(`The simulated strap cannot be had: ${error.message}`)
  process.exit(1)
})

let second = 0
setInterval(() => {
  second++
  const effort = (1 - Math.cos((2 * Math.PI * second) / CYCLE_S)) / 2
  const bpm = Math.round(REST_BPM + (WORK_BPM - REST_BPM) * effort + 2 * Math.sin(second * 1.7))
  for (const one of server.clients) one.send(heartRateBytes(bpm))
}, 1000)

for (const signal of ['SIGINT', 'SIGTERM'] as const)
  process.on(signal, () => {
    for (const one of server.clients) one.terminate()
    server.close(() => process.exit(0))
  })
