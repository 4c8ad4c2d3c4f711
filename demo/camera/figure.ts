// Odalys, as the simulated camera sees her: joints in a box one unit wide, one pose flowing into the next.
import type { SKRSContext2D } from '@napi-rs/canvas'

type Point = readonly [number, number]
/** Joints in units of body height; x to the right, y down, the floor at 0. */
export interface Pose {
  head: Point
  neck: Point
  hip: Point
  elbowL: Point
  handL: Point
  elbowR: Point
  handR: Point
  kneeL: Point
  footL: Point
  kneeR: Point
  footR: Point
}
interface Motion {
  periodMs: number
  poses: readonly Pose[]
  jug: boolean
}

const STAND: Pose = {
  head: [0, -0.92],
  neck: [0, -0.8],
  hip: [0, -0.47],
  elbowL: [-0.13, -0.64],
  handL: [-0.14, -0.46],
  elbowR: [0.13, -0.64],
  handR: [0.14, -0.46],
  kneeL: [-0.07, -0.25],
  footL: [-0.09, 0],
  kneeR: [0.07, -0.25],
  footR: [0.09, 0],
}
const BREATHE: Pose = {
  ...STAND,
  head: [0.005, -0.905],
  neck: [0, -0.788],
  elbowL: [-0.15, -0.62],
  elbowR: [0.15, -0.62],
  handL: [-0.08, -0.47],
  handR: [0.08, -0.47],
}
const WAVE: Pose = { ...STAND, elbowR: [0.17, -0.72], handR: [0.26, -0.88], head: [0.01, -0.92] }
const OPEN: Pose = {
  ...STAND,
  elbowL: [-0.18, -0.66],
  handL: [-0.27, -0.58],
  elbowR: [0.18, -0.66],
  handR: [0.27, -0.6],
}
const SIP: Pose = { ...STAND, elbowR: [0.17, -0.68], handR: [0.05, -0.86], head: [-0.01, -0.925] }
const JUG_LOW: Pose = {
  ...STAND,
  head: [0.06, -0.7],
  neck: [0.03, -0.58],
  hip: [-0.06, -0.34],
  elbowL: [0.02, -0.4],
  handL: [-0.04, -0.3],
  elbowR: [0.14, -0.38],
  handR: [0.16, -0.17],
  kneeL: [-0.13, -0.24],
  kneeR: [0.12, -0.25],
}
const JUG_HIGH: Pose = {
  ...STAND,
  elbowR: [0.14, -0.96],
  handR: [0.11, -1.13],
  elbowL: [-0.16, -0.66],
  handL: [-0.07, -0.52],
}
const PUSH_UP: Pose = {
  head: [0.5, -0.4],
  neck: [0.4, -0.36],
  hip: [0.02, -0.24],
  elbowL: [0.38, -0.18],
  handL: [0.4, 0],
  elbowR: [0.42, -0.18],
  handR: [0.44, 0],
  kneeL: [-0.24, -0.13],
  footL: [-0.46, 0],
  kneeR: [-0.22, -0.14],
  footR: [-0.44, 0],
}
const PUSH_DOWN: Pose = {
  ...PUSH_UP,
  head: [0.52, -0.19],
  neck: [0.42, -0.16],
  hip: [0.02, -0.13],
  elbowL: [0.3, -0.17],
  elbowR: [0.33, -0.19],
  kneeL: [-0.24, -0.07],
  kneeR: [-0.22, -0.08],
}
const SIT_LEFT: Pose = {
  head: [-0.15, -0.6],
  neck: [-0.12, -0.48],
  hip: [0, -0.1],
  elbowL: [-0.24, -0.34],
  handL: [-0.28, -0.16],
  elbowR: [-0.06, -0.3],
  handR: [-0.25, -0.17],
  kneeL: [0.24, -0.28],
  footL: [0.36, -0.06],
  kneeR: [0.27, -0.26],
  footR: [0.4, -0.06],
}
const SIT_RIGHT: Pose = {
  ...SIT_LEFT,
  head: [-0.11, -0.6],
  elbowL: [0.02, -0.34],
  handL: [0.15, -0.2],
  elbowR: [0.06, -0.3],
  handR: [0.18, -0.18],
}

const mirrored = (pose: Pose): Pose => {
  const flip = ([x, y]: Point): Point => [-x, y]
  return {
    head: flip(pose.head),
    neck: flip(pose.neck),
    hip: flip(pose.hip),
    elbowL: flip(pose.elbowR),
    handL: flip(pose.handR),
    elbowR: flip(pose.elbowL),
    handR: flip(pose.handL),
    kneeL: flip(pose.kneeR),
    footL: flip(pose.footR),
    kneeR: flip(pose.kneeL),
    footR: flip(pose.footL),
  }
}

/** What she does while a segment of this kind, label and side runs. */
export function motionOf(kind: string, label: string, side: string | null): Motion {
  if (kind === 'work' && label === 'Jug lift') {
    const poses = [JUG_LOW, JUG_HIGH]
    return { periodMs: 2600, poses: side === 'left' ? poses.map(mirrored) : poses, jug: true }
  }
  if (kind === 'work' && label === 'Lock-gate push') return { periodMs: 2100, poses: [PUSH_UP, PUSH_DOWN], jug: false }
  if (kind === 'work') return { periodMs: 1700, poses: [SIT_LEFT, SIT_RIGHT], jug: false }
  if (kind === 'talk') return { periodMs: 3100, poses: [STAND, OPEN, WAVE], jug: false }
  if (kind === 'break') return { periodMs: 4200, poses: [BREATHE, SIP], jug: false }
  return { periodMs: 2800, poses: [STAND, BREATHE], jug: false }
}

/** The pose at `ms` into a motion, eased from key to key. */
export function poseAt({ poses, periodMs }: Motion, ms: number): Pose {
  const turn = ((ms / periodMs) % 1) * poses.length
  const from = poses[Math.floor(turn) % poses.length] ?? STAND
  const to = poses[(Math.floor(turn) + 1) % poses.length] ?? STAND
  return blend(from, to, 0.5 - 0.5 * Math.cos(Math.PI * (turn % 1)))
}

export function blend(from: Pose, to: Pose, share: number): Pose {
  const mix = (key: keyof Pose): Point => [
    from[key][0] + (to[key][0] - from[key][0]) * share,
    from[key][1] + (to[key][1] - from[key][1]) * share,
  ]
  return Object.fromEntries((Object.keys(from) as (keyof Pose)[]).map((key) => [key, mix(key)])) as unknown as Pose
}

/** Draws her with the floor point at (0, 0) and `tall` pixels of body height. */
export function drawFigure(
  pen: SKRSContext2D,
  pose: Pose,
  { tall, jug, jugSide }: { tall: number; jug: boolean; jugSide: 'left' | 'right' },
): void {
  pen.lineCap = pen.lineJoin = 'round'
  const limb = (colour: string, width: number, ...points: Point[]): void => {
    pen.strokeStyle = colour
    pen.lineWidth = width * tall
    pen.beginPath()
    points.forEach(([x, y], index) => (index ? pen.lineTo(x * tall, y * tall) : pen.moveTo(x * tall, y * tall)))
    pen.stroke()
  }
  const skin = '#b9794f',
    top = '#31615f',
    leggings = '#2b2f45',
    hair = '#3a2a22'
  limb(skin, 0.05, pose.neck, pose.elbowL, pose.handL)
  limb(leggings, 0.075, pose.hip, pose.kneeL, pose.footL)
  limb(leggings, 0.075, pose.hip, pose.kneeR, pose.footR)
  limb('#e6e0d2', 0.05, pose.footL, [pose.footL[0] + 0.05, pose.footL[1]])
  limb('#e6e0d2', 0.05, pose.footR, [pose.footR[0] + 0.05, pose.footR[1]])
  limb(top, 0.15, [pose.neck[0], pose.neck[1] + 0.06], pose.hip)
  limb(skin, 0.045, pose.neck, pose.head)
  limb(top, 0.06, pose.neck, pose.elbowR)
  limb(skin, 0.048, pose.elbowR, pose.handR)
  const disc = (colour: string, [x, y]: Point, radius: number): void => {
    pen.fillStyle = colour
    pen.beginPath()
    pen.arc(x * tall, y * tall, radius * tall, 0, 2 * Math.PI)
    pen.fill()
  }
  disc(hair, [pose.head[0] - 0.012, pose.head[1] - 0.02], 0.072)
  disc(hair, [pose.head[0] - 0.02, pose.head[1] - 0.095], 0.035)
  disc(skin, [pose.head[0] + 0.008, pose.head[1] + 0.008], 0.058)
  if (jug) {
    const [x, y] = jugSide === 'left' ? pose.handL : pose.handR
    pen.fillStyle = '#7fb6c9'
    pen.fillRect((x - 0.05) * tall, (y + 0.01) * tall, 0.1 * tall, 0.14 * tall)
    pen.fillStyle = '#d6523a'
    pen.fillRect((x - 0.025) * tall, (y - 0.02) * tall, 0.05 * tall, 0.035 * tall)
  }
}
