import type { Operation } from './api/client'

/** What is done, as things in a file. */
export const WORKS: Record<Operation, string> = {
  engrave: 'engraved areas', score: 'scored lines', fold: 'fold lines', pocket: 'pockets', cut: 'cuts', reference: 'names and reference lines',
} // prettier-ignore
