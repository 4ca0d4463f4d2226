import { computed } from 'vue'

import type { Design, Part } from '../api/client'
import type { Label } from '../geometry/names'
import { useJob } from '../stores/job'

/** What lies on one sheet: every part by its id, and where its copies are placed. */
export function useSheet(sheet: () => Design['sheets'][number]) {
  const job = useJob()
  const parts = computed(() => new Map(job.design!.parts.map((part) => [part.id, part])))
  const placed = computed(() => job.design!.placed.filter((one) => one.sheet === sheet().number))
  return { parts, placed }
}

type Placed = Design['placed'][number]
type Box = Part['box']

/** A box on a part, as the part lies on the sheet. */
function onSheet([left, low, right, high]: Box, { x, y, angle }: Placed): Box {
  return angle === 90 ? [x - high, y + left, x - low, y + right] : [x + left, y + low, x + right, y + high]
}

/** What the copies on a sheet are called, and where that has room. */
export function namesOf(placed: readonly Placed[], parts: ReadonlyMap<string, Part>): Label[] {
  return placed.map((one) => {
    const part = parts.get(one.part)!
    const room = part.rooms[one.angle === 90 ? 1 : 0]
    return {
      key: `${one.part}-${one.copy_number}`,
      text: part.quantity > 1 ? `${part.title} ${one.copy_number}` : part.title,
      box: onSheet(part.box, one),
      room: room && onSheet(room, one),
    }
  })
}

/** A placed copy's own transform, as an SVG attribute. */
export function placing({ x, y, angle }: Design['placed'][number]): string {
  return `translate(${x} ${y}) rotate(${angle})`
}
