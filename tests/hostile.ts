// Hostile and odd media, made by ffmpeg and by hand: what a camera, a broken card or somebody with bad intentions may
// hand over. Nothing of it is committed.
import { execFileSync } from 'node:child_process'
import { copyFileSync, readFileSync, truncateSync, statSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'

export interface Media {
  name: string
  /** `footage`: it has to be usable. `refused`: one sentence. `either`: one of the two, but never both nor neither. */
  ends: 'footage' | 'refused' | 'either'
}

const ffmpeg = (...args: string[]): void =>
  void execFileSync('ffmpeg', ['-v', 'error', '-y', ...args], { stdio: ['ignore', 'ignore', 'ignore'] })
const picture = (seconds = 2, size = '64x48', rate = '25'): string[] => [
  ...['-f', 'lavfi', '-i', `testsrc2=s=${size}:r=${rate}:d=${seconds}`],
]
const sound = (seconds = 2, rate = 48_000): string[] => ['-f', 'lavfi', '-i', `sine=r=${rate}:d=${seconds}`]
const X264 = ['-c:v', 'libx264', '-preset', 'ultrafast', '-pix_fmt', 'yuv420p']
const BOTH = [...X264, '-c:a', 'aac']

/**
 * Texts that some reader of ffmpeg's takes for a list of other files, a description of a stream or a script.
 * @param film another film on this disk. @param fifo a pipe on which a reader would wait for ever.
 * @param url an address on loopback.
 */
const lists = (film: string, fifo: string, url: string): Record<string, string> => ({
  'hls.mp4': `#EXTM3U\n#EXT-X-TARGETDURATION:10\n#EXTINF:10,\n${film}\n#EXT-X-ENDLIST\n`,
  'hls-file.m3u8': `#EXTM3U\n#EXT-X-TARGETDURATION:10\n#EXTINF:10,\nfile:${fifo}\n#EXT-X-ENDLIST\n`,
  'hls-net.mp4': `#EXTM3U\n#EXT-X-TARGETDURATION:10\n#EXTINF:10,\n${url}/a.ts\n#EXT-X-ENDLIST\n`,
  'hls-endless.mp4': `#EXTM3U\n#EXT-X-TARGETDURATION:1\n#EXT-X-MEDIA-SEQUENCE:0\n#EXTINF:1,\n${film}\n`,
  'hls-key.mp4': `#EXTM3U\n#EXT-X-TARGETDURATION:10\n#EXT-X-KEY:METHOD=AES-128,URI="${url}/key"\n#EXTINF:10,\n${film}\n#EXT-X-ENDLIST\n`,
  'concat.mp4': `ffconcat version 1.0\nfile '${film}'\n`,
  'concat-pipe.ffconcat': `ffconcat version 1.0\nfile '${fifo}'\n`,
  'concat-net.mkv': `ffconcat version 1.0\nfile '${url}/film.mp4'\n`,
  'sdp.mp4':
    'v=0\no=- 0 0 IN IP4 127.0.0.1\ns=x\nc=IN IP4 127.0.0.1\nt=0 0\nm=video 9 RTP/AVP 96\na=rtpmap:96 H264/90000\n',
  'dash.mp4': `<?xml version="1.0"?><MPD xmlns="urn:mpeg:dash:schema:mpd:2011" type="static" mediaPresentationDuration="PT10S"><Period><AdaptationSet mimeType="video/mp4"><Representation id="1" bandwidth="1"><BaseURL>${url}/a.mp4</BaseURL></Representation></AdaptationSet></Period></MPD>`,
  'smil.mov': `<smil><body><video src="${url}/a.mp4"/></body></smil>`,
  'rtsptext.mov': `rtsptext\n${url}\n`,
  'svg.mp4': `<svg xmlns="http://www.w3.org/2000/svg" width="64" height="48"><image href="file://${film}"/></svg>`,
  'asx.wmv': `<asx version="3.0"><entry><ref href="${url}/a.wmv"/></entry></asx>`,
  'avisynth.avs': `AviSource("${film}")\n`,
  'subtitle.mp4': '1\n00:00:00,000 --> 00:00:05,000\nJug lift\n',
  'metadata.mp4': ';FFMETADATA1\ntitle=x\n',
  'ansi.mp4': '\u001b[31mdeck\u001b[0m\n'.repeat(200),
  'page.mp4': '<!doctype html><html><body><video src="a.mp4"></video></body></html>',
})

/** Makes all of them in a folder. @returns what each has to end in. */
export function makeMedia(folder: string, fifo: string, url: string): Media[] {
  const at = (name: string): string => join(folder, name)
  const made: Media[] = []
  const add = (name: string, ends: Media['ends'], make: () => void): void => {
    make()
    made.push({ name, ends })
  }
  const film = at('another-film.mp4')
  ffmpeg(...picture(3), ...sound(3), ...BOTH, film)
  for (const [name, text] of Object.entries(lists(film, fifo, url)))
    add(name, 'refused', () => writeFileSync(at(name), text))
  for (const { name, ends, make } of [...whatIsNoFilm(film), ...oddFilms(), ...brokenFilms(film)])
    add(name, ends, () => make(at(name)))
  return made
}

interface Recipe extends Media {
  make: (path: string) => void
}
const recipe = (name: string, ends: Media['ends'], make: (path: string) => void): Recipe => ({ name, ends, make })

function whatIsNoFilm(film: string): Recipe[] {
  const bytes =
    (...data: (string | Buffer)[]) =>
    (path: string): void =>
      writeFileSync(
        path,
        Buffer.concat(data.map((one) => (typeof one === 'string' ? Buffer.from(one, 'latin1') : one))),
      )
  let state = 12
  const noise = Buffer.from(
    Array.from({ length: 40_000 }, () => (state = (state * 1_103_515_245 + 12_345) >>> 0) >>> 24),
  )
  return [
    recipe('empty.mp4', 'refused', bytes('')),
    recipe('one-byte.mp4', 'refused', bytes('\x00')),
    recipe('zeros.mp4', 'refused', bytes(Buffer.alloc(100_000))),
    recipe('noise.mp4', 'refused', bytes(noise)),
    recipe('noise-under-ftyp.mp4', 'refused', bytes('\x00\x00\x00\x18ftypisom\x00\x00\x02\x00isomiso2', noise)),
    recipe('program.mp4', 'refused', (path) => copyFileSync('/bin/true', path)),
    recipe('document.mp4', 'refused', bytes('%PDF-1.4\n%\xe2\xe3\xcf\xd3\n', noise)),
    recipe('archive.mp4', 'refused', bytes('PK\x03\x04', noise)),
    recipe('still.mp4', 'refused', (path) =>
      ffmpeg(...picture(), '-frames:v', '1', '-c:v', 'png', '-f', 'image2', path),
    ),
    recipe('photo.mov', 'refused', (path) =>
      ffmpeg(...picture(), '-frames:v', '1', '-c:v', 'mjpeg', '-f', 'image2', path),
    ),
    recipe('moving-gif.mp4', 'refused', (path) => ffmpeg(...picture(), '-f', 'gif', path)),
    recipe('sound.wav', 'refused', (path) => ffmpeg(...sound(), path)),
    recipe('sound.mp3', 'refused', (path) => ffmpeg(...sound(), path)),
    recipe('sound-with-cover.m4a', 'refused', (path) =>
      ffmpeg(
        ...picture(),
        ...sound(),
        '-frames:v',
        '1',
        '-c:v',
        'mjpeg',
        '-disposition:v',
        'attached_pic',
        '-f',
        'mp4',
        path,
      ),
    ),
    // The name of another film in the box that refers to media outside the file.
    recipe('outside-media.mov', 'either', (path) => {
      const moov = readFileSync(film).toString('latin1').replaceAll('url \x00\x00\x00\x01', 'url \x00\x00\x00\x00')
      writeFileSync(path, Buffer.from(moov, 'latin1'))
    }),
  ]
}

function oddFilms(): Recipe[] {
  const filmed = (name: string, ...args: string[]): Recipe => recipe(name, 'footage', (path) => ffmpeg(...args, path))
  return [
    filmed('plain.mp4', ...picture(), ...sound(), ...BOTH),
    filmed("Jug's [lift] %d ;&$(x) 'ä🪢.mp4", ...picture(), ...sound(), ...BOTH),
    filmed('silent.mp4', ...picture(), ...X264),
    filmed('tiny.mkv', ...picture(2, '2x2'), ...sound(), '-c:v', 'ffv1', '-c:a', 'flac'),
    filmed('ribbon.mkv', ...picture(2, '2048x16'), ...sound(), ...BOTH),
    filmed('odd-size.mkv', ...picture(2, '63x47'), ...sound(), '-c:v', 'libx264', '-pix_fmt', 'yuv444p', '-c:a', 'aac'),
    filmed('ten-bit.mkv', ...picture(), ...sound(), '-c:v', 'libx264', '-pix_fmt', 'yuv420p10le', '-c:a', 'aac'),
    filmed('wide-pixels.mp4', ...picture(), ...sound(), ...BOTH, '-aspect', '16:9'),
    filmed('surround.mp4', ...picture(), ...sound(), ...BOTH, '-ac', '6'),
    filmed('telephone.mov', ...picture(), ...sound(2, 8000), ...X264, '-c:a', 'pcm_mulaw', '-ar', '8000'),
    filmed('studio.mov', ...picture(), ...sound(2, 96_000), '-c:v', 'prores_ks', '-c:a', 'pcm_s24le'),
    filmed('one-a-second.mp4', ...picture(4, '64x48', '1'), ...sound(4), ...BOTH),
    filmed('fast.mp4', ...picture(1, '64x48', '240'), ...sound(1), ...BOTH),
    filmed('one-picture.mp4', ...picture(), ...sound(), ...BOTH, '-frames:v', '1'),
    filmed(
      'interlaced.ts',
      ...picture(),
      ...sound(),
      '-c:v',
      'mpeg2video',
      '-flags',
      '+ildct+ilme',
      '-c:a',
      'mp2',
      '-f',
      'mpegts',
    ),
    filmed('camcorder.mpg', ...picture(2, '352x288'), ...sound(), '-c:v', 'mpeg2video', '-c:a', 'mp2', '-f', 'mpeg'),
    filmed('old.avi', ...picture(), ...sound(), '-c:v', 'mjpeg', '-c:a', 'pcm_s16le'),
    filmed('old.flv', ...picture(), ...sound(2, 44_100), '-c:v', 'flv1', '-c:a', 'aac'),
    filmed('old.wmv', ...picture(), ...sound(2, 44_100), '-c:v', 'wmv2', '-c:a', 'wmav2', '-f', 'asf'),
    filmed('old.ogv', ...picture(), ...sound(), '-c:v', 'libtheora', '-c:a', 'libvorbis'),
    filmed('broadcast.mxf', ...picture(2, '720x576'), ...sound(), '-c:v', 'mpeg2video', '-c:a', 'pcm_s16le'),
    filmed('browser.webm', ...picture(), ...sound(), '-c:v', 'libvpx', '-c:a', 'libopus'),
    filmed('pieces.mp4', ...picture(), ...sound(), ...BOTH, '-movflags', 'frag_keyframe+empty_moov'),
    filmed('from-a-thousand.mkv', ...picture(), ...sound(), ...BOTH, '-output_ts_offset', '1000'),
    filmed(
      'before-zero.mp4',
      ...picture(),
      ...sound(),
      ...BOTH,
      '-bf',
      '2',
      '-avoid_negative_ts',
      'disabled',
      '-output_ts_offset',
      '-0.5',
    ),
    filmed(
      'two-pictures.mkv',
      ...picture(),
      ...picture(2, '32x32'),
      ...sound(),
      ...BOTH,
      '-map',
      '0',
      '-map',
      '1',
      '-map',
      '2',
    ),
    filmed(
      'varying.mkv',
      ...picture(),
      ...sound(),
      ...BOTH,
      '-vf',
      "setpts='PTS+mod(N,3)*0.01/TB'",
      '-fps_mode',
      'vfr',
    ),
    recipe('turned.mp4', 'footage', (path) => {
      ffmpeg(...picture(), ...sound(), ...BOTH, `${path}.mov`)
      ffmpeg('-i', `${path}.mov`, '-c', 'copy', '-metadata:s:v:0', 'rotate=90', path)
    }),
    recipe('trimmed.mp4', 'footage', (path) => {
      ffmpeg(...picture(6), ...sound(6), ...BOTH, '-g', '250', `${path}.mov`)
      ffmpeg('-ss', '2.5', '-t', '2', '-i', `${path}.mov`, '-c', 'copy', path)
    }),
    recipe('picture-ends-early.mkv', 'footage', (path) => ffmpeg(...picture(2), ...sound(9), ...BOTH, path)),
    recipe('22000-hours.mkv', 'refused', (path) =>
      ffmpeg(...picture(), ...sound(), ...BOTH, '-bsf:v', "setts=ts='if(gte(N,25),TS+79200000/TB,TS)'", path),
    ),
    recipe('sound-leaps.mkv', 'footage', (path) =>
      ffmpeg(...picture(), ...sound(), ...BOTH, '-bsf:a', "setts=ts='if(gte(N,40),TS+79200000/TB,TS)'", path),
    ),
    recipe('too-large.mkv', 'refused', (path) =>
      ffmpeg(...picture(1, '8192x8192', '1'), '-frames:v', '1', '-c:v', 'ffv1', path),
    ),
  ]
}

function brokenFilms(film: string): Recipe[] {
  const cutAt =
    (share: number) =>
    (path: string): void => {
      copyFileSync(film, path)
      truncateSync(path, Math.floor(statSync(film).size * share))
    }
  const hurt =
    (seed: number) =>
    (path: string): void => {
      const bytes = readFileSync(film)
      let state = seed
      for (let wound = 0; wound < 60; wound++) {
        state = (state * 1_103_515_245 + 12_345) >>> 0
        bytes[state % bytes.length] = state >>> 24
      }
      writeFileSync(path, bytes)
    }
  return [
    recipe('cut-at-a-tenth.mp4', 'refused', cutAt(0.1)),
    recipe('cut-before-its-index.mp4', 'refused', cutAt(0.9)),
    recipe('index-first-cut.mp4', 'either', (path) => {
      ffmpeg('-i', film, '-c', 'copy', '-movflags', '+faststart', path)
      truncateSync(path, Math.floor(statSync(path).size * 0.6))
    }),
    recipe('cut.ts', 'either', (path) => {
      ffmpeg('-i', film, '-c', 'copy', '-f', 'mpegts', path)
      truncateSync(path, Math.floor(statSync(path).size * 0.55))
    }),
    ...[1, 2, 3, 4, 5, 6].map((seed) => recipe(`hurt-${seed}.mp4`, 'either', hurt(seed))),
    recipe('film-behind-noise.mp4', 'either', (path) =>
      writeFileSync(path, Buffer.concat([Buffer.alloc(5000, 7), readFileSync(film)])),
    ),
  ]
}
