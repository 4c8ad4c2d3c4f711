// The door of a server that other machines reach: one for the process, as the gate and two routes share it.
import { networkInterfaces } from 'node:os'
import { isLoopback, readSettings } from '../settings'
import { Pairing } from './pairing'
import { Passes } from './passes'
import { Tries } from './tries'

export interface Door {
  passes: Passes
  tries: Tries
  pairing: Pairing
}

const kept = globalThis as typeof globalThis & { jivetDoor?: Promise<Door> }

/** @returns null where only this machine reaches the server: then there is no door. */
export async function theDoor(): Promise<Door | null> {
  const { HOST, JIVET_PASSPHRASE, JIVET_HOME } = readSettings()
  if (isLoopback(HOST)) return null
  kept.jivetDoor ??= Passes.open(JIVET_PASSPHRASE, JIVET_HOME).then((passes) => ({
    ...{ passes, tries: new Tries(), pairing: new Pairing() },
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
