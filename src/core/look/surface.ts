// The part of the canvas 2D interface that Jivet draws with; a browser's canvas and the server's both fit it.
export type Surface = Pick<CanvasRenderingContext2D,
  | 'save' | 'restore' | 'beginPath' | 'closePath' | 'moveTo' | 'lineTo' | 'arc' | 'rect' | 'quadraticCurveTo' | 'clip' | 'fill' | 'stroke'
  | 'fillRect' | 'clearRect' | 'fillText' | 'measureText' | 'translate' | 'scale'
  | 'fillStyle' | 'strokeStyle' | 'lineWidth' | 'lineCap' | 'lineJoin' | 'font' | 'textAlign' | 'textBaseline' | 'globalAlpha'>
