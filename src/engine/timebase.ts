// One instant 0 for every reader of a footage: where the earlier of its picture and sound begins. ffmpeg is told to
// leave the container's times alone (`COPY_TIMES`), and these filters put them on the footage's.
import type { FootageFacts } from './probe'

/** Stands before an input whose times go through the filters below. */
export const COPY_TIMES: readonly string[] = ['-copyts']

type Timebase = Pick<FootageFacts, 'zeroS' | 'pictureFromMs' | 'rate'>

/** Faster than any screen shows; a recorder that claims more is held at this many pictures a second. */
export const MOST_RATE = 60

/**
 * Chains of filters from `input` to `output`. Where the picture begins after the sound, its first picture is held from
 * instant 0 on, at the footage's own rate, so that what is laid over it can change meanwhile.
 * @param shape filters that every picture goes through, e.g. scaling.
 */
export function pictureOnTime(
  facts: Timebase,
  { input, output, shape }: { input: string; output: string; shape: string },
): string {
  const fromS = facts.pictureFromMs / 1000
  const rate = Math.min(MOST_RATE, facts.rate.num / facts.rate.den)
  const held = Math.floor(fromS * rate)
  if (held < 1) {
    const onTime = fromS > 0 ? `setpts='if(eq(N,0),0,PTS-${facts.zeroS}/TB)'` : `setpts=PTS-${facts.zeroS}/TB`
    return `[${input}]${onTime},${shape}[${output}]`
  }
  // Joined end to end the pictures come at `held / rate`; the last filter moves them to where they belong.
  const late = fromS - held / rate
  return [
    `[${input}]setpts=PTS-STARTPTS,${shape},split[filmed][first]`,
    `[first]trim=end_frame=1,loop=loop=${held - 1}:size=1,setpts=N/${rate}/TB[held]`,
    `[held][filmed]concat=n=2:v=1:a=0,setpts='if(lt(N,${held}),PTS,PTS+${late}/TB)'[${output}]`,
  ].join(';')
}

/** Filters for sound: from instant 0 on, silence before it begins and in gaps. */
export const soundOnTime = ({ zeroS }: Pick<FootageFacts, 'zeroS'>): string =>
  `asetpts=PTS-${zeroS}/TB,aresample=async=1:first_pts=0`
