// Gives the server's canvas the same font files that the browser gets.
import { createRequire } from 'node:module'
import { dirname, join } from 'node:path'
import { GlobalFonts } from '@napi-rs/canvas'
import { FONTS } from '../core/look/palette'
import { Problem } from '../core/problem'

const FILES = [
  ['@fontsource/londrina-solid', 'londrina-solid-latin-400-normal.woff2', FONTS.display],
  ['@fontsource/hanken-grotesk', 'hanken-grotesk-latin-500-normal.woff2', FONTS.text],
  ['@fontsource/hanken-grotesk', 'hanken-grotesk-latin-700-normal.woff2', FONTS.text],
] as const

let registered = false

/** Registers the fonts once. @throws Problem `tool-missing` when a font file is not there. */
export function registerFonts(): void {
  if (registered) return
  const require = createRequire(join(process.cwd(), 'package.json'))
  const here = createRequire(import.meta.url)
  for (const [pack, file, family] of FILES) {
    const folder = dirname(resolveFrom([here, require], `${pack}/package.json`))
    if (!GlobalFonts.registerFromPath(join(folder, 'files', file), family)) {
      throw new Problem({ code: 'font-missing', name: file })
    }
  }
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
