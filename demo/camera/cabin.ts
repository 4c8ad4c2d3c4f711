// The cabin of the Second Kettle: planks, portholes, a step, a stove. Drawn once: only the figure moves.
import { createCanvas, type Canvas, type SKRSContext2D } from '@napi-rs/canvas'

export const PICTURE = { width: 1280, height: 720, rate: 30 } as const
export const FLOOR_Y = 590
/** The part of the picture that she moves in; only this is drawn frame by frame. */
export const STAGE = { x: 320, y: 80, width: 640, height: 540 } as const

export function drawCabin(): Canvas {
  const canvas = createCanvas(PICTURE.width, PICTURE.height)
  const pen = canvas.getContext('2d')
  pen.fillStyle = '#8a6f52'
  pen.fillRect(0, 0, 1280, 500)
  for (let plank = 0; plank < 16; plank++) {
    pen.fillStyle = plank % 2 ? '#84694d' : '#907558'
    pen.fillRect(plank * 80, 0, 78, 500)
  }
  pen.fillStyle = '#5c4632'
  pen.fillRect(0, 0, 1280, 34)
  pen.fillRect(0, 486, 1280, 16)
  for (let board = 0; board < 9; board++) {
    pen.fillStyle = board % 2 ? '#6d553c' : '#745b41'
    pen.fillRect(0, 502 + board * 25, 1280, 24)
  }
  pen.fillStyle = '#39524b'
  pen.fillRect(330, 566, 620, 44)
  drawPorthole(pen, 250, 200)
  drawPorthole(pen, 1030, 200)
  pen.fillStyle = '#4a5a3c'
  pen.fillRect(60, 380, 150, 122)
  pen.fillStyle = '#2c2c2c'
  pen.fillRect(1110, 350, 110, 152)
  pen.fillRect(1155, 34, 18, 316)
  pen.fillStyle = '#e39c4a'
  pen.fillRect(1130, 400, 70, 46)
  return canvas
}

function drawPorthole(pen: SKRSContext2D, x: number, y: number): void {
  for (const [radius, colour] of [
    [84, '#c7a54f'],
    [68, '#bcd7de'],
  ] as const) {
    pen.fillStyle = colour
    pen.beginPath()
    pen.arc(x, y, radius, 0, 2 * Math.PI)
    pen.fill()
  }
  pen.fillStyle = '#3f7f86'
  pen.beginPath()
  pen.arc(x, y, 68, 0.3, Math.PI - 0.3)
  pen.fill()
}
