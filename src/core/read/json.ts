// JSON from outside.
import { Problem } from '../problem'

/** @throws Problem `bad-json`. */
export function parsedJson(text: string): unknown {
  try {
    return JSON.parse(text)
  } catch (error) {
    throw new Problem({ code: 'bad-json', reason: (error as Error).message })
  }
}
