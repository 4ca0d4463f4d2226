<script setup lang="ts">
import { computed } from 'vue'

import { useSay } from '../composables/useSay'
import ChoiceField from '../kit/ChoiceField.vue'
import { useJob } from '../stores/job'
import BasisChip from './BasisChip.vue'
import DotStrip from './DotStrip.vue'
import FitEditor from './FitEditor.vue'
import MachineEditor from './MachineEditor.vue'
import StockEditor from './StockEditor.vue'

/** Reads like a sum: thickness, kerf, fit, bed, and what follows from them. */
const job = useJob()
const say = useSay()
const basis = computed(() => job.basis!)
const length = (mm: number) => say.length(mm)

/** With several boards, what follows for each of the first few. */
const several = computed(() => (job.design!.boards.length > 1 ? job.design!.boards.slice(0, 3) : []))

/** A beam takes a kerf, a tool its own width: where that comes from goes with it. */
const cutter = computed(() => {
  const { machine, doubts } = basis.value
  const { found } = machine
  if (machine.kind === 'router') {
    return `Tool · ${machine.name}${found ? `, measured ${say.date(found.date)}` : ', as sold'}`
  }
  const from = found ? ', of another board' : ', typed in, not measured'
  return `Kerf · ${machine.name}${doubts.length ? from : ''}`
})

function changed(...keys: string[]): boolean {
  return keys.some((key) => job.changed.figures.has(`basis:${job.board!.id}/${key}`))
}

function wrong(...fields: string[]): boolean {
  const field = job.problem?.field ?? ''
  return fields.map(job.basisPath).some((path) => field === path || field.startsWith(`${path}/`))
}

/** What was typed in a chip that is closed counts no more; the last good state does. */
function forget(): void {
  if (wrong('readings', 'stock', 'kerf', 'machine', 'clearance')) job.problem = null
}
</script>

<template>
  <section class="strip" aria-label="Basis">
    <div class="head">
      <h2>Basis</h2>
      <ChoiceField
        v-if="job.design!.boards.length > 1"
        label="Board"
        hide-label
        :options="job.design!.boards.map(({ id, title }) => ({ value: id, label: title }))"
        :model-value="job.board!.id"
        @update:model-value="job.chosenBoard = $event"
      />
      <p v-else class="small second">what was measured</p>
    </div>
    <BasisChip
      @closed="forget"
      :title="`${basis.stock.name}, nominal ${say.short(basis.stock.nominal)} · ${basis.stock.readings.length} reading${basis.stock.readings.length > 1 ? 's' : ''}`"
      :changed="changed('thickness', 'spread')"
      :problem="wrong('readings', 'stock')"
    >
      <template #value>
        <b class="figure big">{{ length(basis.thickness) }}</b>
        <span class="figure second"
          ><template v-if="basis.stock.readings.length > 1"
            >± {{ length((basis.thick - basis.thin) / 2) }}</template
          >
          {{ say.unit }}</span
        >
        <DotStrip
          :readings="basis.stock.readings"
          :mean="basis.thickness"
          :width="84"
          :outliers="basis.outliers"
        />
      </template>
      <StockEditor />
    </BasisChip>
    <BasisChip
      @closed="forget"
      :title="cutter"
      :changed="changed('kerf')"
      :problem="wrong('kerf', 'machine')"
    >
      <template #value>
        <b class="figure big">{{ length(basis.machine.kerf) }}</b>
        <span v-if="basis.machine.found" class="figure second">{{
          say.within(basis.machine.found.within)
        }}</span>
        <span class="figure second">{{ say.unit }}</span>
        <b v-if="basis.doubts.length && basis.machine.kind !== 'router'" class="ochre">?</b>
      </template>
      <MachineEditor />
    </BasisChip>
    <BasisChip @closed="forget" title="Fit" :changed="changed('clearance')" :problem="wrong('clearance')">
      <template #value>
        <b class="big">{{ basis.fit }}</b>
        <span class="figure second">{{ say.signed(basis.clearance, 2) }}</span>
      </template>
      <FitEditor />
    </BasisChip>
    <div class="bed">
      <span class="small second">Bed</span>
      <span class="figure big">
        {{ say.short(basis.machine.bed_width) }} ×
        {{ say.short(basis.machine.bed_height) }}
      </span>
    </div>
    <div class="sum">
      <template v-if="job.design!.boards.length === 1">
        <span class="small">Slot for this board, {{ say.unit }}</span>
        <span>
          <b class="figure big">{{ length(basis.slot) }}</b>&ensp;
          <span class="figure">cut path {{ length(basis.slot_drawn) }}</span>
        </span>
      </template>
      <span v-for="one in several" :key="one.id" class="small" :class="{ here: one.id === job.board!.id }">
        {{ one.title }}: slot <b class="figure">{{ length(one.basis.slot) }}</b>, cut path
        <span class="figure">{{ length(one.basis.slot_drawn) }}</span>
      </span>
    </div>
  </section>
</template>

<style scoped>
.strip {
  display: flex;
  min-height: 3.9rem;
  background: var(--panel);
  border-bottom: 1px solid var(--line);
}
.head {
  width: 12rem;
  flex: none;
  padding: 8px 16px;
  border-right: 1px solid var(--line);
}
.big {
  font-size: 1.35rem;
}
.bed {
  display: grid;
  align-content: center;
  padding: 4px 14px;
  white-space: nowrap;
}
.bed .big {
  font-size: 1.15rem;
}
.sum {
  display: grid;
  align-content: center;
  margin-left: auto;
  padding: 4px 18px;
  border-left: 3px solid var(--deep);
  background: var(--deep-wash);
  color: var(--deep);
  white-space: nowrap;
}
.here {
  font-weight: 600;
}
@media (max-width: 1240px) {
  .bed {
    display: none;
  }
  .head {
    width: 9.5rem;
  }
}
@media (max-width: 1120px) {
  .strip :deep(.value svg) {
    display: none;
  }
}
@media (max-width: 860px) {
  .strip {
    flex-wrap: wrap;
  }
  .sum {
    flex: 1;
    margin: 0;
  }
}
/* On a phone one row, to be pushed sideways. */
@media (max-width: 600px) {
  .strip {
    flex-wrap: nowrap;
    overflow-x: auto;
  }
  .strip > * {
    flex: none;
  }
  .head {
    width: auto;
    min-width: 8rem;
    padding-inline: 12px;
  }
  .sum {
    order: -1;
  }
}
</style>
