import type { Machine } from './api/client'

/** The machine that a new job is offered first: a laser, if there is one. */
export function usualMachine(machines: readonly Machine[]): number {
  return (machines.find(({ document }) => document.kind === 'laser') ?? machines[0])?.id ?? 0
}
