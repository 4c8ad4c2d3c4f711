// The server that files of browser tests share is ended after the last of them, and one that a killed run left behind
// before the first.
import { endShared } from './e2e/jivet'

export default async function sharedServer(): Promise<() => Promise<void>> {
  await endShared()
  return endShared
}
