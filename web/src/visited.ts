import { useStorage } from '@vueuse/core'

/** The stop at which each job was last looked at, in this browser. */
const stops = useStorage<Record<string, string>>('stops', {})

export const stopOf = (job: number): string | undefined => stops.value[String(job)]

export function visit(job: number, stop: string): void {
  stops.value = { ...stops.value, [job]: stop }
}
