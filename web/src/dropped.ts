/** A file that was dropped on one page to be looked at on another; taken once. */
let dropped: File | null = null

export function drop(file: File): void {
  dropped = file
}

export function takeDropped(): File | null {
  const file = dropped
  dropped = null
  return file
}
