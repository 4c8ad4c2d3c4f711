// The door of a server that other machines reach: one for the process, as the gate and two routes share it.
import { networkInterfaces } from 'node:os'
import { isLoopback, readSettings } from '../settings'
import { Pairing } from './pairing'
import { Passes } from './passes'
import { Tries, type Limits } from './tries'

export interface Door {
  passes: Passes
  /** Of the passphrase. */
  tries: Tries
  /** Lines said aloud for other machines. */
  sayings: Tries
  pairing: Pairing
}

const kept = globalThis as typeof globalThis & { jivetDoor?: Promise<Door> }

/** All: what a few addresses cannot use up. Each try costs a tenth of a second of one core, one at a time. */
const PASSPHRASE_TRIES: Limits = { each: 5, all: 300 }
/** A session's lines are fetched once before it begins, and a few while it runs. */
const SAYINGS: Limits = { each: 240, all: 480 }

/** @returns null where only this machine reaches the server: then there is no door. */
export async function theDoor(): Promise<Door | null> {
  const { HOST, JIVET_PASSPHRASE, JIVET_HOME } = readSettings()
  if (isLoopback(HOST)) return null
  kept.jivetDoor ??= Passes.open(JIVET_PASSPHRASE, JIVET_HOME).then((passes) => ({
    passes,
    tries: new Tries(PASSPHRASE_TRIES),
    sayings: new Tries(SAYINGS),
    pairing: new Pairing(),
  }))
  return kept.jivetDoor
}

/** Where other machines find this one. */
export function addressesHere(): string[] {
  const { HOST, PORT } = readSettings()
  if (HOST !== '0.0.0.0' && HOST !== '::') return [`http://${HOST.includes(':') ? `[${HOST}]` : HOST}:${PORT}`]
  return Object.values(networkInterfaces())
    .flatMap((found) => found ?? [])
    .filter(({ family, internal }) => family === 'IPv4' && !internal)
    .map(({ address }) => `http://${address}:${PORT}`)
}
