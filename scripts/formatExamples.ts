// The worked examples of docs/formats.md as data: the shorthand in its block, and the sum in words below it.
export interface FormatExample {
  /** F1 to F21. */
  id: string
  title: string
  shorthand: string
  /** The hand-worked sum, e.g. `2 x (30 + 10) + 60 = 140 s`, each with the value that stands after the equals sign. */
  sums: { line: string; left: string; seconds: number }[]
  picture: string | null
}

/** @param markdown the whole file. */
export function formatExamples(markdown: string): FormatExample[] {
  return markdown
    .split(/^### /m)
    .slice(1)
    .flatMap((part) => {
      const [, id = '', title = ''] = /^(F\d+) (.+)$/m.exec(part) ?? []
      const shorthand = /^```\n([\s\S]*?)^```$/m.exec(part)?.[1]
      if (!id || shorthand === undefined) return []
      const sums = [...part.matchAll(/^Sum: (.+?) = (\d+) s\b.*$/gm)].map(([line, left = '', seconds]) => ({
        line,
        left,
        seconds: Number(seconds),
      }))
      return [{ id, title, shorthand, sums, picture: /!\[[^\]]*\]\(([^)]+)\)/.exec(part)?.[1] ?? null }]
    })
}
