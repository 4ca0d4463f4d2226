<script setup lang="ts">
import { computed, onMounted, onUnmounted, ref, shallowRef, watch } from 'vue'

import {
  api,
  type Choices,
  type Export,
  type FileFormat,
  type Profile,
  type ProfileValues,
  type Task,
} from '../api/client'
import { whole } from '../api/tasks'
import LedgerPanel from '../components/LedgerPanel.vue'
import ProblemNote from '../components/ProblemNote.vue'
import ProfileEditor from '../components/ProfileEditor.vue'
import StopLayout from '../components/StopLayout.vue'
import TaskNote from '../components/TaskNote.vue'
import TimesLedger from '../components/TimesLedger.vue'
import { useProblem } from '../composables/useProblem'
import { useJob } from '../stores/job'
import { useSettings } from '../stores/settings'
import { inUnit } from '../units'

const job = useJob()
const settings = useSettings()
const profiles = shallowRef<Profile[]>([])
const chosen = ref(0)
const profile = shallowRef<ProfileValues | null>(null)
const choices = shallowRef<Choices | null>(null)
const editing = ref(false)
const busy = ref('')
const made = shallowRef<Export[]>([])
const task = shallowRef<Task | null>(null)
let left = false
const { problem, tell } = useProblem()
const FORMATS: { format: FileFormat; name: string; about: string }[] = [
  { format: 'svg', name: 'SVG', about: '1:1, a group for each operation' },
  { format: 'dxf', name: 'DXF', about: 'release R2000, a layer for each operation' },
  { format: 'dxf-r12', name: 'DXF, old', about: 'release R12, for readers that know nothing newer' },
  { format: 'pdf', name: 'PDF', about: '1:1, a layer to switch for each operation' },
]

const said = computed(() => {
  const sentence = inUnit(job.proof?.sentence ?? '', settings.unit)
  return sentence.charAt(0).toLowerCase() + sentence.slice(1)
})
/** What is known of the files for just this state. */
const about = computed(() => {
  const count = job.design!.sheets.length
  const sheets = `${count} sheet${count === 1 ? '' : 's'}`
  if (job.proof?.moves !== job.design!.moves) return `${sheets}, not proved yet`
  return `${sheets}, read back: ${said.value}`
})
const saved = computed(() => profiles.value.find(({ id }) => id === chosen.value)?.document)
const changed = computed(() => JSON.stringify(saved.value) !== JSON.stringify(profile.value))

onMounted(async () => {
  choices.value = await api.choices()
  await loadProfiles()
})
onMounted(load)
onUnmounted(() => (left = true))
watch(() => job.design?.moves, load)

async function load(): Promise<void> {
  made.value = await api.exports(job.design!.id)
}

async function loadProfiles(id?: number): Promise<void> {
  profiles.value = await api.profiles()
  choose(id ?? profiles.value[0]?.id ?? 0)
}

function choose(id: number): void {
  chosen.value = id
  profile.value = saved.value ?? null
}

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
    await load()
  })

const save = () =>
  attempt('profile', async () => {
    await api.changeProfile(chosen.value, profile.value!)
    await loadProfiles(chosen.value)
  })

const saveAs = () =>
  attempt('profile', async () => {
    const name = `${profile.value!.name}, changed`
    const added = await api.addProfile({ ...profile.value!, name })
    await loadProfiles(added.id)
  })

function download(file: Export): void {
  const link = document.createElement('a')
  link.href = api.fileAddress(file.id)
  link.download = file.file_name
  link.click()
}

function time(made: string): string {
  return new Date(made).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'short' })
}
</script>

<template>
  <StopLayout title="Hand over" :about="about">
    <div class="out">
      <TaskNote v-if="task" :task="task" />
      <p v-if="job.proof && job.proof.moves === job.design!.moves && !job.proof.fits" class="warn">
        {{
          job.proof.verdict === 'does-not-fit'
            ? 'The proof found something to mend. Look at Prove before you cut.'
            : 'Not everything was looked at. Prove says what.'
        }}
      </p>
      <div v-if="profile" class="who">
        <label>
          For
          <select
            class="boxed"
            :value="chosen"
            @change="choose(Number(($event.target as HTMLSelectElement).value))"
          >
            <option v-for="one in profiles" :key="one.id" :value="one.id">{{ one.document.name }}</option>
          </select>
        </label>
        <button class="link" :aria-expanded="editing" @click="editing = !editing">
          {{ editing ? 'close' : 'layers and options' }}
        </button>
        <span v-if="changed" class="ochre small">changed for this time</span>
        <template v-if="editing">
          <input
            class="boxed name"
            aria-label="the profile's name"
            :value="profile.name"
            @change="profile = { ...profile!, name: ($event.target as HTMLInputElement).value }"
          />
          <button class="plain small" :disabled="!changed" @click="save">keep</button>
          <button class="plain small" @click="saveAs">keep as another</button>
        </template>
      </div>
      <ProfileEditor
        v-if="editing && profile && choices"
        class="editor"
        :profile="profile"
        :titles="choices.operations"
        @change="profile = $event"
      />
      <ProblemNote v-if="problem" :problem="problem" />
      <ul class="formats">
        <li v-for="{ format, name, about } in FORMATS" :key="format">
          <button
            class="strong"
            :disabled="!profile || busy !== '' || !job.design!.sheets.length"
            @click="write(format)"
          >
            {{ busy === format ? 'writing' : `Download ${name}` }}
          </button>
          <span>
            <template v-if="profile?.split === 'sheet'">
              <span v-for="sheet in job.design!.sheets" :key="sheet.number" class="file">{{
                sheet.file_names[format]
              }}</span>
            </template>
            <span v-else class="file">one file for each {{ profile?.split }}</span>
            <span class="second small">{{ about }}</span>
          </span>
        </li>
        <li>
          <a class="plain sheet" :href="api.packedAddress(job.design!.id)" download>Download the job</a>
          <span class="second small"
            >the design, what was measured, and the files it uses, as one open file</span
          >
        </li>
        <li>
          <a class="plain sheet" :href="api.jobSheetAddress(job.design!.id)" target="_blank"
            >Open the job sheet</a
          >
          <span class="second small">parts, work and times on a page to lie beside the machine</span>
        </li>
      </ul>
      <h2>Handed over so far</h2>
      <p v-if="!made.length" class="second">
        Nothing yet. Every file that is written is kept here, byte for byte.
      </p>
      <ul class="made">
        <li v-for="file in made" :key="file.id">
          <a :href="api.fileAddress(file.id)" :download="file.file_name">{{ file.file_name }}</a>
          <span class="small second figure">{{ (file.bytes / 1024).toFixed(1) }} kB</span>
          <span class="small second">{{ time(file.made) }}</span>
        </li>
      </ul>
    </div>
    <template #ledger>
      <TimesLedger v-if="job.proof" :proof="job.proof" />
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
  padding: 6px 22px;
  overflow-y: auto;
}
.who {
  display: flex;
  align-items: center;
  gap: 12px;
  margin-bottom: 14px;
}
.who label {
  display: flex;
  align-items: center;
  gap: 8px;
  color: var(--second);
}
.who select {
  width: 200px;
}
.name {
  width: 180px;
}
.editor {
  margin: -4px 0 16px;
  padding: 10px 14px;
  background: var(--panel);
  border: 1px solid var(--line);
}
.formats {
  margin: 6px 0 24px;
}
.formats li {
  display: grid;
  grid-template-columns: 170px 1fr;
  align-items: center;
  gap: 14px;
  margin-bottom: 8px;
}
.file {
  display: block;
}
.sheet {
  padding: 7px 14px;
  border: 1px solid var(--line);
  border-radius: 3px;
  text-decoration: none;
}
h2 {
  font-size: 15px;
  font-weight: 600;
  margin-bottom: 6px;
}
.made li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 80px 160px;
  gap: 12px;
  padding: 5px 0;
  border-top: 1px solid var(--line);
}
a {
  color: var(--deep);
}
.warn {
  margin-bottom: 14px;
  padding: 6px 12px;
  background: var(--bad-wash);
  border-left: 3px solid var(--bad);
}
</style>
