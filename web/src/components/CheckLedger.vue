<script setup lang="ts">
import type { Check } from '../api/client'
import { useSay } from '../composables/useSay'
import FindingList from './FindingList.vue'

/** What a drawing holds, and what was found in it. */
defineProps<{ check: Check }>()
const emit = defineEmits<{ show: [place: [number, number]] }>()
const say = useSay()
</script>

<template>
  <p class="verdict" :class="{ bad: !check.sound }" role="status">
    {{ check.sound ? 'No blocking problems' : 'Do not cut it as it is' }}
  </p>
  <dl>
    <div>
      <dt>Unit</dt>
      <dd>{{ check.unit || 'not named' }}</dd>
    </div>
    <div v-if="check.box">
      <dt>Drawing</dt>
      <dd class="figure">
        {{ say.size(check.box[2] - check.box[0], check.box[3] - check.box[1]) }} {{ say.unit }}
      </dd>
    </div>
    <div v-if="check.page">
      <dt>Page</dt>
      <dd class="figure">{{ say.size(check.page[0], check.page[1]) }} {{ say.unit }}</dd>
    </div>
  </dl>
  <ElTable class="layers" :data="check.layers" size="small" table-layout="auto">
    <ElTableColumn label="Layer">
      <template #default="{ row }">{{ row.layer || '(none)' }}</template>
    </ElTableColumn>
    <ElTableColumn prop="paths" label="Paths" align="right" class-name="figure" />
    <ElTableColumn prop="closed" label="Closed" align="right" class-name="figure" />
    <ElTableColumn prop="nodes" label="Nodes" align="right" class-name="figure" />
    <ElTableColumn label="Length" align="right" class-name="figure">
      <template #default="{ row }">{{ say.short(row.length) }}</template>
    </ElTableColumn>
  </ElTable>
  <FindingList :findings="check.findings" @show="({ place }) => place && emit('show', place)" />
</template>

<style scoped>
.verdict {
  padding: 10px 18px;
  font-size: 1.1rem;
  font-weight: 600;
  color: var(--deep);
  background: var(--deep-wash);
}
.verdict.bad {
  color: var(--bad);
  background: var(--bad-wash);
}
dl > div {
  display: flex;
  justify-content: space-between;
  padding: 4px 18px;
  border-bottom: 1px solid var(--line);
}
.layers {
  width: calc(100% - 10px);
  margin: 8px 0;
}
.layers :deep(.cell) {
  padding: 0 6px;
}
.layers :deep(.el-table__cell:first-child .cell) {
  padding-left: 18px;
}
</style>
