import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { footageInput, probeInput, soundInput } from './input'
import { toolEnvironment } from './tool'

const SOURCES = ['engine', 'server', 'app'].map((name) => join(import.meta.dirname, '..', name))
const files = SOURCES.flatMap((folder) =>
  readdirSync(folder, { recursive: true, encoding: 'utf8' })
    .filter((name) => name.endsWith('.ts') && !name.endsWith('.test.ts'))
    .map((name) => join(folder, name)),
)
/** What is read other than by `input.ts`: pipes that we feed, drawn sources, and lists that we write ourselves. */
const OURS = /'-i', (?:'pipe:\d'|PATTERN|`color=|list\b|metadata\b|`file:\$\{vtt\}`|join\(folder, SOUND\))/

describe('files that tools open', () => {
  it('are opened by the functions of this module alone', () => {
    const others = files.flatMap((file) =>
      file.endsWith('engine/input.ts')
        ? []
        : readFileSync(file, 'utf8')
            .split('\n')
            .flatMap((line, at) => (line.includes("'-i',") ? [{ where: `${file}:${at + 1}`, line }] : []))
            .filter(({ line }) => line.replaceAll(new RegExp(OURS, 'g'), '').includes("'-i',")),
    )
    expect(others).toEqual([])
    const probes = files.filter((file) => /runTool\(\s*'ffprobe'/.test(readFileSync(file, 'utf8')))
    for (const file of probes) expect(readFileSync(file, 'utf8'), file).toContain('probeInput(')
  })

  it('are kinds that follow no reference to another file, and nothing of the network', () => {
    for (const args of [footageInput('a'), soundInput('a'), probeInput('a')]) {
      expect(args[args.indexOf('-protocol_whitelist') + 1]).toBe('file,pipe')
      const readers = args[args.indexOf('-format_whitelist') + 1]?.split(',') ?? []
      for (const follows of ['hls', 'concat', 'dash', 'sdp', 'imf', 'image2', 'lavfi', 'avisynth'])
        expect(readers).not.toContain(follows)
    }
  })
})

describe('what a tool is given of the environment', () => {
  it('is where programs and its own places are, and nothing that is secret', () => {
    const env = { PATH: '/bin', HOME: '/h', LANG: 'C', XDG_CACHE_HOME: '/c', JIVET_PASSPHRASE: 'x', DATABASE_URL: 'x' }
    expect(toolEnvironment({ ...env, JIVET_S3_SECRET: 'x', AWS_SECRET_ACCESS_KEY: 'x', NODE_ENV: 'test' })).toEqual({
      ...{ PATH: '/bin', HOME: '/h', LANG: 'C', XDG_CACHE_HOME: '/c' },
    })
  })
})
