import { computed, onMounted, onUnmounted, ref, shallowRef, watch } from 'vue'

import { api, type InFiles, type Profile, type ProfileValues, type Task } from '../api/client'
import { whole } from '../api/tasks'
import { useJob } from '../stores/job'
import { useProblem } from './useProblem'

/** Who gets a job's files and how they want them: the job's own machine first. What would be in the files is asked again for each
 * other receiver, answer or state of the job. */
export function useReceiver() {
  const job = useJob()
  const profiles = shallowRef<Profile[] | null>(null)
  const chosen = ref(0)
  /** As it is now, which may be other than it was saved. */
  const profile = shallowRef<ProfileValues | null>(null)
  const inside = shallowRef<InFiles | null>(null)
  /** What is known of the files is of just this state and these answers. */
  const current = ref(false)
  const task = shallowRef<Task | null>(null)
  const busy = ref(false)
  const { problem, tell } = useProblem()
  const { problem: unreadable, tell: look } = useProblem()
  let left = false
  onUnmounted(() => (left = true))

  const machine = computed(() => job.basis!.machine)
  const receiver = computed(() => profiles.value?.find(({ id }) => id === chosen.value) ?? null)
  /** Another machine of the workshop than the job's own: its files are planned anew. */
  const another = computed(() => {
    const theirs = receiver.value?.machine ?? null
    return theirs !== null && String(theirs) !== machine.value.id ? theirs : null
  })
  const others = computed(() => (profiles.value ?? []).filter(({ id }) => id !== chosen.value))
  const changed = computed(() => JSON.stringify(receiver.value?.document) !== JSON.stringify(profile.value))
  /** Whoever gets the file, as the action says it. A plain profile stands in for the machine's own. */
  const whom = computed(() => {
    const name = receiver.value?.document.name
    return `the ${(!name || name === 'Plain' ? machine.value.name : name).toLowerCase()}`
  })

  async function load(id?: number): Promise<void> {
    const found = await api.profiles()
    if (left) return // the job may be closed by now
    const own = found.find((one) => one.machine !== null && String(one.machine) === machine.value.id)
    profiles.value = found
    choose(id ?? own?.id ?? found.find((one) => one.machine === null)?.id ?? 0)
  }
  onMounted(() => tell(load))

  function choose(id: number): void {
    chosen.value = id
    profile.value = receiver.value?.document ?? null
  }

  let asked = 0
  watch(
    [profile, () => job.design?.moves],
    () => {
      const mine = ++asked
      current.value = false
      const given = profile.value
      if (!given || !job.design?.sheets.length) return void (inside.value = null)
      const { id } = job.design
      void look(async () => {
        const unwanted = () => left || mine !== asked
        const watching = { watch: (now: Task | null) => void (unwanted() || (task.value = now)), unwanted }
        const found = await whole(() => api.inFiles(id, given.format, given, another.value), watching)
        if (!found || unwanted()) return
        inside.value = found
        current.value = true
      })
    },
    { immediate: true },
  )

  async function attempt(act: () => Promise<void>): Promise<void> {
    busy.value = true
    await tell(act)
    busy.value = false
  }

  const keep = () =>
    attempt(async () => {
      await api.changeProfile(chosen.value, { ...profile.value!, machine: receiver.value!.machine })
      await load(chosen.value)
    })

  /** As the machine's own where it has none yet, else by a name of its own. */
  const keepAs = () =>
    attempt(async () => {
      const id = machine.value.id ? Number(machine.value.id) : null
      const own = id === null || profiles.value!.some((one) => one.machine === id)
      const name = own ? `${profile.value!.name}, changed` : machine.value.name
      const added = await api.addProfile({ ...profile.value!, name, machine: own ? null : id })
      await load(added.id)
    })

  return {
    profiles, receiver, another, others, whom, machine, profile, changed, inside, current, task, busy, problem, unreadable,
    choose, keep, keepAs,
  } // prettier-ignore
}
