<script setup lang="ts">
import { computed, onMounted, onUnmounted, ref, shallowRef, watch } from 'vue'

import { api, type Export, type FileFormat, type Profile, type ProfileValues, type Task } from '../api/client'
import { whole } from '../api/tasks'
import ExportList from '../components/ExportList.vue'
import FormatList from '../components/FormatList.vue'
import LedgerPanel from '../components/LedgerPanel.vue'
import ProblemNote from '../components/ProblemNote.vue'
import ProfileEditor from '../components/ProfileEditor.vue'
import ProofMark from '../components/ProofMark.vue'
import StopLayout from '../components/StopLayout.vue'
import TaskNote from '../components/TaskNote.vue'
import TimesLedger from '../components/TimesLedger.vue'
import { useProblem } from '../composables/useProblem'
import ChoiceField from '../kit/ChoiceField.vue'
import PlainField from '../kit/PlainField.vue'
import { useJob } from '../stores/job'
import { useSettings } from '../stores/settings'

const job = useJob()
const settings = useSettings()
const profiles = shallowRef<Profile[] | null>(null)
const chosen = ref(0)
const profile = shallowRef<ProfileValues | null>(null)
const editing = ref(false)
const busy = ref('')
const made = shallowRef<Export[] | null>(null)
const task = shallowRef<Task | null>(null)
let left = false
const { problem, tell } = useProblem()

const sheets = computed(() => job.design!.sheets)
const saved = computed(() => profiles.value?.find(({ id }) => id === chosen.value)?.document)
const changed = computed(() => JSON.stringify(saved.value) !== JSON.stringify(profile.value))
/** A file of parts that are not proved to fit says so: on its button, and in its name. */
const label = computed(() => (job.fresh?.fits ? 'Download' : 'Download, not proved:'))
const sheetAddress = computed(() => api.jobSheetAddress(job.design!.id, settings.style))

const load = () =>
  tell(async () => {
    made.value = await api.exports(job.design!.id)
  })

onMounted(() => tell(loadProfiles))
onMounted(load)
onUnmounted(() => (left = true))
watch(() => job.design?.moves, load)

async function loadProfiles(id?: number): Promise<void> {
  profiles.value = await api.profiles()
  choose(id ?? profiles.value[0]?.id ?? 0)
}

function choose(id: number): void {
  chosen.value = id
  profile.value = saved.value ?? null
}

/** Sheet by sheet each has a name already; parts and operations are named when they are written. */
const names = (format: FileFormat): string[] =>
  profile.value?.split === 'sheet'
    ? sheets.value.map(({ file_names }) => file_names[format]!)
    : [`One file for each ${profile.value?.split ?? 'sheet'}`]

async function attempt(what: string, act: () => Promise<void>): Promise<void> {
  busy.value = what
  await tell(act)
  busy.value = ''
}

const write = (format: FileFormat) =>
  attempt(format, async () => {
    const ask = () => api.export(job.design!.id, format, profile.value!)
    const files = await whole(ask, { watch: (now) => (task.value = now), unwanted: () => left })
    for (const file of files ?? []) download(file)
    made.value = await api.exports(job.design!.id)
  })

const save = () =>
  attempt('profile', async () => {
    await api.changeProfile(chosen.value, profile.value!)
    await loadProfiles(chosen.value)
  })

const saveAs = () =>
  attempt('profile', async () => {
    const added = await api.addProfile({ ...profile.value!, name: `${profile.value!.name}, changed` })
    await loadProfiles(added.id)
  })

function download(file: Export): void {
  const link = document.createElement('a')
  link.href = api.fileAddress(file.id)
  link.download = file.file_name
  link.click()
}
</script>

<template>
  <StopLayout title="Hand over" :about="`${sheets.length} sheet${sheets.length === 1 ? '' : 's'}`">
    <div class="out">
      <ElSkeleton v-if="!profiles && !problem" class="profiles" animated :rows="1" />
      <div v-if="profile" class="who">
        <ChoiceField
          label="For"
          :options="(profiles ?? []).map(({ id, document }) => ({ value: id, label: document.name }))"
          :model-value="chosen"
          @update:model-value="choose"
        />
        <ElButton :aria-expanded="editing" @click="editing = !editing">
          {{ editing ? 'Close' : 'How it is written' }}
        </ElButton>
        <span v-if="changed" class="ochre">Changed for this export only</span>
      </div>
      <div v-if="editing && profile" class="card editor">
        <div class="who">
          <PlainField
            label="Name of the profile"
            words
            :model-value="profile.name"
            @update:model-value="profile = { ...profile!, name: $event }"
          />
          <ElButton :disabled="!changed" :loading="busy === 'profile'" @click="save">Save</ElButton>
          <ElButton @click="saveAs">Save as new</ElButton>
        </div>
        <ProfileEditor :profile="profile" :problem="problem" @change="profile = $event" />
      </div>
      <ProblemNote v-if="problem" :problem="problem" />
      <TaskNote v-if="task" :task="task" />
      <FormatList
        :busy="busy"
        :disabled="!profile || !sheets.length"
        :label="label"
        :names="names"
        @write="write"
      >
        <li>
          <ElButton tag="a" :href="api.packedAddress(job.design!.id)" download>Download the job</ElButton>
          <span class="second small"
            >the design, what was measured, and the files it uses, in one open file</span
          >
        </li>
        <li>
          <ElButton tag="a" :href="sheetAddress" target="_blank">Open the job sheet</ElButton>
          <span class="second small">parts, work and times on a page for beside the machine</span>
        </li>
      </FormatList>
      <ExportList :files="made" />
    </div>
    <template #ledger>
      <ProofMark />
      <TimesLedger v-if="job.fresh" :proof="job.fresh" />
      <ElSkeleton v-else-if="job.proofState === 'waiting'" class="times" animated :rows="8" />
      <LedgerPanel
        v-for="board in job.design!.boards"
        :key="board.id"
        :subject="`basis:${board.id}`"
        :title="job.design!.boards.length > 1 ? `Cut for: ${board.title}` : 'Cut for'"
      />
    </template>
  </StopLayout>
</template>

<style scoped>
.out {
  padding: 6px 22px 22px;
  overflow-y: auto;
}
.who {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 12px;
  margin-bottom: 14px;
}
.who > .field {
  width: 15rem;
}
/* As high as what comes in their place: nothing below them jumps. */
.profiles {
  height: 3.7rem;
  margin-bottom: 14px;
}
.times {
  height: 23rem;
  padding: 14px 18px;
}
.editor {
  margin-bottom: 16px;
}
</style>
