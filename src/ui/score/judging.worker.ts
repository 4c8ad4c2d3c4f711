// The page's worker that judges: takes a score, answers with what was found in it.
import { judge, told } from '@/core/check/check'
import type { Score } from '@/core/score/score'

self.onmessage = ({ data }: MessageEvent<Score>): void => self.postMessage(told(judge(data)))
