// What Jivet asks of a video host. Each host is one file that answers to this.
import type { HostComment, HostedVideo, HostLimits, HostVideo } from '../../core/publish/host'
import type { Share } from '../../core/units'

/** All of these throw Problem `host-away` where the host cannot be reached, else `host-refused` with its reason. */
export interface VideoHost {
  name: string
  /** Stands in for a host, and is none. */
  isSimulated: boolean
  limits(signal: AbortSignal): Promise<HostLimits>
  /** Tells of a video. The same key is the same video. */
  begin(video: HostedVideo, signal: AbortSignal): Promise<HostVideo>
  /** Sends its bytes, from where they broke off. */
  send(id: string, path: string, how: { signal: AbortSignal; onShare: (share: Share) => void }): Promise<void>
  caption(id: string, vtt: string, signal: AbortSignal): Promise<void>
  video(id: string, signal: AbortSignal): Promise<HostVideo>
  comments(id: string, signal: AbortSignal): Promise<HostComment[]>
  /** Of 100 steps through the video, the share of viewers who are still there; null where there is no telling. */
  retention(id: string, signal: AbortSignal): Promise<Share[] | null>
}
