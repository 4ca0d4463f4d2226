/** Saves what is at an address, or some bytes, as a file of that name. */
export function save(from: string | Blob, name: string): void {
  const link = document.createElement('a')
  link.href = typeof from === 'string' ? from : URL.createObjectURL(from)
  link.download = name
  link.click()
  if (typeof from !== 'string') setTimeout(() => URL.revokeObjectURL(link.href), 60_000)
}

/** Bytes that came in base 64. */
export function blobOf(base64: string, type: string): Blob {
  const bytes = Uint8Array.from(atob(base64), (letter) => letter.charCodeAt(0))
  return new Blob([bytes], { type })
}
