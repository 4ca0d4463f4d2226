let pen: CanvasRenderingContext2D | null | undefined

/** How wide a name on a drawing is written, in px. */
export function textWidth(text: string): number {
  if (pen === undefined) {
    pen = document.createElement('canvas').getContext('2d')
    if (pen) pen.font = `500 15px ${getComputedStyle(document.body).fontFamily}`
  }
  return pen ? pen.measureText(text).width : 8 * text.length
}
