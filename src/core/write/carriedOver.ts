// Changes that somebody made to a text that Jivet wrote, carried over to what it writes next.
import { diff3Merge } from 'node-diff3'

export interface CarriedOver {
  text: string
  /** Places that both had changed; there the text is as somebody made it. */
  clashes: number
}

/** Line by line. @param was what had been written when it was changed to `edited`. @param written what is now. */
export function carriedOver({ was, edited, written }: { was: string; edited: string; written: string }): CarriedOver {
  if (edited === was) return { text: written, clashes: 0 }
  const regions = diff3Merge(edited.split('\n'), was.split('\n'), written.split('\n'))
  const lines = regions.flatMap(({ ok, conflict }) => ok ?? conflict?.a ?? [])
  return { text: lines.join('\n'), clashes: regions.filter(({ conflict }) => conflict).length }
}
