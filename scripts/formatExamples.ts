// The worked examples of docs/formats.md as data: the shorthand in its block, and the sums in words below it.
export interface FormatExample {
  /** F1 to F21 for formats, L1 ... for lengths that nobody knows beforehand. */
  id: string
  title: string
  shorthand: string
  /** The hand-worked sum, e.g. `2 x (30 + 10) + 60 = 140 s`, each with the value that stands after the equals sign. */
  sums: { line: string; what: string; left: string; seconds: number }[]
  picture: string | null
}

/** @param markdown the whole file. */
export function formatExamples(markdown: string): FormatExample[] {
  return markdown
    .split(/^### /m)
    .slice(1)
    .flatMap((part) => {
      const [, id = '', title = ''] = /^([FL]\d+) (.+)$/m.exec(part) ?? []
      const shorthand = /^```\n([\s\S]*?)^```$/m.exec(part)?.[1]
      if (!id || shorthand === undefined) return []
      const sums = [...part.matchAll(/^(Sum|Least|Most): (.+?) = (\d+) s\b.*$/gm)].map(
        ([line, what = '', left = '', seconds]) => ({ line, what, left, seconds: Number(seconds) }),
      )
      return [{ id, title, shorthand, sums, picture: /!\[[^\]]*\]\(([^)]+)\)/.exec(part)?.[1] ?? null }]
    })
}
