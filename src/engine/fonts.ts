// Gives the server's canvas the same font files that the browser gets.
import { createRequire } from 'node:module'
import { basename, dirname, join } from 'node:path'
import { GlobalFonts } from '@napi-rs/canvas'
import { FONTS } from '../core/look/palette'
import { Problem } from '../core/problem'

const FILES = [
  ['@fontsource/londrina-solid', 'londrina-solid-latin-400-normal.woff2', FONTS.display, 400],
  ['@fontsource/hanken-grotesk', 'hanken-grotesk-latin-500-normal.woff2', FONTS.text, 500],
  ['@fontsource/hanken-grotesk', 'hanken-grotesk-latin-700-normal.woff2', FONTS.text, 700],
] as const

/** @throws Problem `package-missing`. */
export function fontFiles(): { path: string; family: string; weight: number }[] {
  const require = createRequire(join(process.cwd(), 'package.json'))
  const here = createRequire(import.meta.url)
  return FILES.map(([pack, file, family, weight]) => {
    const folder = dirname(resolveFrom([here, require], `${pack}/package.json`))
    return { path: join(folder, 'files', file), family, weight }
  })
}

let registered = false

/** Registers the fonts once. @throws Problem `tool-missing` when a font file is not there. */
export function registerFonts(): void {
  if (registered) return
  for (const { path, family } of fontFiles())
    if (!GlobalFonts.registerFromPath(path, family)) throw new Problem({ code: 'font-missing', name: basename(path) })
  registered = true
}

function resolveFrom(resolvers: NodeJS.Require[], name: string): string {
  for (const resolver of resolvers) {
    try {
      return resolver.resolve(name)
    } catch {
      /* the next one may know */
    }
  }
  throw new Problem({ code: 'package-missing', name })
}
