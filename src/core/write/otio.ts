// A timeline in OpenTimelineIO's JSON: one track of clips, one for each interval, with markers where sections begin.
import type { ShownSegment } from '../cut/cut'
import type { Rate } from '../units'
import { editsOf } from './edits'

/** @param lane in the video's own time. */
export function writeOtio(lane: readonly ShownSegment[], title: string, rate: Rate): string {
  const perSecond = rate.num / rate.den
  const time = (value: number): object => ({ OTIO_SCHEMA: 'RationalTime.1', rate: perSecond, value })
  const range = (from: number, length: number): object => ({
    ...{ OTIO_SCHEMA: 'TimeRange.1', duration: time(length), start_time: time(from) },
  })
  const edits = editsOf(lane, rate)
  const whole = range(0, edits.at(-1)?.to ?? 0)
  const empty = { effects: [], markers: [], metadata: {}, enabled: true }
  const media = {
    ...{ OTIO_SCHEMA: 'ExternalReference.1', name: 'footage', target_url: 'footage', available_range: whole },
    ...{ available_image_bounds: null, metadata: {} },
  }
  const clips = edits.map(({ name, section, from, to }, at) => ({
    ...empty,
    ...{ OTIO_SCHEMA: 'Clip.2', name, source_range: range(from, to - from) },
    ...{ media_references: { DEFAULT_MEDIA: media }, active_media_reference_key: 'DEFAULT_MEDIA' },
    markers:
      section && section !== edits[at - 1]?.section
        ? [
            {
              OTIO_SCHEMA: 'Marker.2',
              name: section,
              color: 'YELLOW',
              comment: '',
              marked_range: range(from, 0),
              metadata: {},
            },
          ]
        : [],
  }))
  const gap = edits[0]?.from
    ? [{ ...empty, OTIO_SCHEMA: 'Gap.1', name: '', source_range: range(0, edits[0].from) }]
    : []
  const track = {
    ...empty,
    OTIO_SCHEMA: 'Track.1',
    name: 'session',
    kind: 'Video',
    source_range: null,
    children: [...gap, ...clips],
  }
  const tracks = { ...empty, OTIO_SCHEMA: 'Stack.1', name: 'tracks', source_range: null, children: [track] }
  return `${JSON.stringify({ OTIO_SCHEMA: 'Timeline.1', name: title, global_start_time: null, metadata: {}, tracks }, null, 2)}\n`
}
