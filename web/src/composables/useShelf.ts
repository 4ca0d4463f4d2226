import { computed, onMounted, ref, shallowRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { sure } from '../api/connection'
import type { Unit } from '../units'
import { useSettings } from '../stores/settings'
import { useRecord } from './useRecord'
import { useShortcuts } from './useShortcuts'

/** How a kind of thing is asked for and changed. */
interface Calls<Thing, New, Changes> {
  list: () => Promise<Thing[]>
  add: (body: New) => Promise<Thing>
  change: (id: number, changes: Changes & { unit: Unit }) => Promise<unknown>
  remove: (id: number) => Promise<void>
  restore: (id: number) => Promise<Thing>
  archived: () => Promise<Thing[]>
}

/** Things of the workshop's, one of them looked at: the one that the address names, else the first.
 *
 * They are changed field by field with undo, added, archived and restored.
 */
export function useShelf<Thing extends { id: number; document: object }, New, Changes extends object>(
  name: 'rack' | 'machines',
  calls: Calls<Thing, New, Changes>,
) {
  const settings = useSettings()
  const route = useRoute()
  const router = useRouter()
  const all = shallowRef<Thing[] | null>(null)
  const archived = shallowRef<Thing[]>([])
  const adding = ref(false)
  const one = computed(() => all.value?.find(({ id }) => id === Number(route.params['id'])) ?? all.value?.[0])

  /** Numbers stay mm whatever unit is shown; only what is typed counts in it. */
  const record = useRecord<Changes>(
    (id) => all.value!.find((thing) => thing.id === id)!.document as Changes,
    async (id, changes) => {
      await sure(() => calls.change(id, { ...changes, unit: settings.unit }))
      await load()
    },
  )
  const change = (changes: Changes) => record.edit(one.value!.id, changes)
  useShortcuts({ undo: () => void record.undo(), redo: () => void record.redo() })

  async function load(): Promise<void> {
    ;[all.value, archived.value] = await Promise.all([calls.list(), calls.archived()])
  }
  onMounted(() => record.tell(load))
  watch(
    () => one.value?.id,
    () => (record.problem.value = null),
  )

  async function add(body: New): Promise<void> {
    const { id } = await calls.add(body)
    adding.value = false
    await load()
    await router.push({ name, params: { id } })
  }

  const archive = () =>
    record.tell(async () => {
      await calls.remove(one.value!.id)
      await router.push({ name })
      await load()
    })

  const restore = (id: number) =>
    record.tell(async () => {
      await calls.restore(id)
      await load()
      await router.push({ name, params: { id } })
    })

  /** Nothing yet, and nothing that went wrong either. */
  const loading = computed(() => all.value === null && record.problem.value === null)

  return { all, one, archived, adding, loading, record, change, load, add, archive, restore }
}
