// What the simulated host knows of its videos, and by which rules it takes them.
import { execFile } from 'node:child_process'
import { randomUUID } from 'node:crypto'
import { existsSync, readFileSync, renameSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { promisify } from 'node:util'
import type { HostComment, HostedVideo, HostLimits, HostVideo } from '../../src/core/publish/host'
import { readCaptions } from '../../src/core/hear/captions'
import { readChapters, type Chapter } from '../../src/core/write/chapters'

export const LIMITS: HostLimits = { title: 100, description: 5000, bytes: 8e9, lengthMs: 12 * 3_600_000 }
/** Fewer are no chapters, and shorter ones spoil all of them. */
const FEWEST_CHAPTERS = 3
const SHORTEST_CHAPTER_MS = 10_000

export interface Video extends HostedVideo {
  id: string
  state: HostVideo['state']
  reason: string
  lengthMs: number
  captions: string
  comments: HostComment[]
}

/** A refusal in the host's own words. */
export class Refused extends Error {}

export class Videos {
  private readonly all: Map<string, Video>

  /** @param processMs how long it works at a video before it can be watched. */
  constructor(
    private readonly folder: string,
    private readonly processMs: number,
  ) {
    const known = existsSync(this.file) ? (JSON.parse(readFileSync(this.file, 'utf8')) as Video[]) : []
    this.all = new Map(known.map((video) => [video.id, video]))
    // What it was working at when it was stopped.
    for (const video of known) if (video.state === 'processing') void this.process(video)
  }

  private get file(): string {
    return join(this.folder, 'videos.json')
  }

  pathOf(id: string): string {
    return join(this.folder, id)
  }

  list(): Video[] {
    return [...this.all.values()]
  }

  /** @throws Refused. */
  find(id: string): Video {
    const video = this.all.get(id)
    if (!video) throw new Refused('There is no such video.')
    return video
  }

  /** The video of a key; told again it is the same one. */
  begin({ key, title, description, bytes }: HostedVideo): Video {
    const known = this.list().find((video) => video.key === key)
    if (known) return known
    const refusal =
      (!title.trim() && 'A video needs a title.') ||
      (title.length > LIMITS.title && `A title has ${LIMITS.title} letters at most.`) ||
      (description.length > LIMITS.description && `A description has ${LIMITS.description} letters at most.`) ||
      (!(bytes > 0 && bytes <= LIMITS.bytes) && `A video has ${LIMITS.bytes / 1e9} GB at most.`)
    if (refusal) throw new Refused(refusal)
    const video: Video = {
      ...{ id: randomUUID(), key, title, description, bytes },
      ...{ state: 'receiving', reason: '', lengthMs: 0, captions: '', comments: [] },
    }
    this.all.set(video.id, video)
    this.save()
    return video
  }

  /** All bytes are there. */
  received(id: string): void {
    const video = this.find(id)
    if (video.state !== 'receiving') return
    video.state = 'processing'
    this.save()
    void this.process(video)
  }

  async caption(id: string, text: string): Promise<void> {
    const video = this.find(id)
    const found = text.startsWith('WEBVTT') ? await readCaptions(text).catch(() => []) : []
    if (!found.length) {
      throw new Refused('These are no captions: a WebVTT file begins with WEBVTT and has cues.')
    }
    video.captions = text
    this.save()
  }

  comment(id: string, name: string, text: string): void {
    if (!text.trim()) throw new Refused('A comment says something.')
    const comment = { id: randomUUID(), name: name.trim().slice(0, 60) || 'Somebody', text: text.trim().slice(0, 2000) }
    this.find(id).comments.push({ ...comment, at: new Date().toISOString() })
    this.save()
  }

  private async process(video: Video): Promise<void> {
    await new Promise((done) => setTimeout(done, this.processMs))
    const told = await facts(this.pathOf(video.id)).catch(() => null)
    video.lengthMs = told?.lengthMs ?? 0
    video.reason =
      (!told && 'The file could not be read as a video.') ||
      (!told?.codecs.some((codec) => codec === 'h264' || codec === 'hevc') && 'A video has to be H.264 or H.265.') ||
      (!told?.codecs.includes('aac') && 'A video has to have AAC sound.') ||
      (video.lengthMs > LIMITS.lengthMs && 'A video lasts 12 hours at most.') ||
      ''
    video.state = video.reason ? 'rejected' : 'ready'
    this.save()
  }

  private save(): void {
    writeFileSync(`${this.file}.new`, JSON.stringify(this.list()))
    renameSync(`${this.file}.new`, this.file)
  }
}

async function facts(path: string): Promise<{ lengthMs: number; codecs: string[] }> {
  const args = ['-v', 'error', '-show_entries', 'format=duration:stream=codec_name', '-of', 'json', `file:${path}`]
  const { stdout } = await promisify(execFile)('ffprobe', args)
  const { format, streams } = JSON.parse(stdout) as { format: { duration: string }; streams: { codec_name: string }[] }
  return { lengthMs: Number(format.duration) * 1000, codecs: streams.map(({ codec_name }) => codec_name) }
}

/** Chapters as this host takes them: the lines of a description that begin with a time, all of them or none. */
export function chaptersIn({ description }: Pick<Video, 'description'>): Chapter[] {
  const found = readChapters(description)
  const isRight =
    found.length >= FEWEST_CHAPTERS &&
    found[0]?.atMs === 0 &&
    found.every(({ atMs }, at) => at === 0 || atMs - (found[at - 1]?.atMs ?? 0) >= SHORTEST_CHAPTER_MS)
  return isRight ? found : []
}

/**
 * SIMULATED: how much of its viewers a video still has, in hundredths of its length. Nobody watched; it falls as such
 * curves commonly do, and a little more at each chapter.
 */
export function retentionOf(video: Video): number[] {
  const starts = chaptersIn(video).map(({ atMs }) => Math.floor((100 * atMs) / Math.max(1, video.lengthMs)))
  let share = 1
  return Array.from({ length: 100 }, (_, at) => {
    share *= at < 5 ? 0.965 : starts.includes(at) ? 0.97 : 0.9955
    return Math.round(share * 1000) / 1000
  })
}
