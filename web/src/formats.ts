import type { FileFormat, Operation } from './api/client'

/** The files that are written, the plainest name first. */
export const FORMATS: readonly { format: FileFormat; name: string; about: string }[] = [
  { format: 'svg', name: 'SVG', about: '1:1, a group for each operation' },
  { format: 'dxf', name: 'DXF', about: 'R2000, a layer for each operation' },
  { format: 'dxf-r12', name: 'DXF R12', about: 'for older software' },
  { format: 'pdf', name: 'PDF', about: '1:1, a layer that can be switched off for each operation' },
]

export const formatName = (format: FileFormat): string => FORMATS.find((one) => one.format === format)!.name

/** What is done, as things in a file. */
export const WORKS: Record<Operation, string> = {
  engrave: 'engraved areas', score: 'scored lines', fold: 'fold lines', pocket: 'pockets', cut: 'cuts', reference: 'names and reference lines',
} // prettier-ignore
