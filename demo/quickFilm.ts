// How simulated recordings and films of tests are encoded: soon, rather than small.
import { QUICK_SOUND } from '../src/engine/encoding'

export const QUICK_PICTURE: readonly string[] = ['-c:v', 'libx264', '-preset', 'ultrafast']
export const QUICK_AAC: readonly string[] = ['-c:a', 'aac', ...QUICK_SOUND]
