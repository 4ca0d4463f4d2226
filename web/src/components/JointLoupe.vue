<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import type { Mate } from '../api/client'
import type { Box } from '../geometry/view'
import { useSay } from '../composables/useSay'
import { useJob } from '../stores/job'
import DrawingFrame from './DrawingFrame.vue'
import GapPanels from './GapPanels.vue'

/** What goes into what at a joint, to scale, looked at along the way it goes in: the two members and the gap between them.
 *
 * The slider runs from the thinnest to the thickest reading of the board that goes in.
 */
const props = defineProps<{ mate: Mate }>()
const job = useJob()
const say = useSay()
const drawing = ref<InstanceType<typeof DrawingFrame> | null>(null)

/** One that is cut to its width, into the first member where there is one; else the board itself goes in. */
const contact = computed(() => {
  const cut = props.mate.contacts.filter((one) => !one.by_thickness)
  return cut.find((one) => one.outer_part === props.mate.first.part) ?? cut[0] ?? props.mate.contacts[0]
})
/** How what goes in is held across its thickness, where it is. */
const across = computed(() => {
  const { inner_part: inner, outer_part: outer, by_thickness: itself } = contact.value ?? {}
  if (itself) return undefined
  return props.mate.contacts.find(
    (one) => one.by_thickness && one.inner_part === inner && one.outer_part === outer,
  )
})
const basis = computed(() => {
  const part = job.design!.parts.find(({ id }) => id === contact.value?.inner_part)
  return (job.design!.boards.find(({ id }) => id === part?.board) ?? job.design!.boards[0]!).basis
})
const board = ref(0)

watch([() => basis.value.thickness, () => props.mate.id], () => (board.value = basis.value.thickness), {
  immediate: true,
})

/** What goes in and what it goes into, in mm: `open` is the opening's height, the inner's top lies at its own. */
const picture = computed(() => {
  const { width = 0, clearance = 0, depth = 0, by_thickness: byThickness = false } = contact.value ?? {}
  const opening = width + clearance
  const shown = Math.min(depth, 6 * opening)
  const inner = byThickness ? board.value : width
  const held = across.value ? across.value.width + across.value.clearance : null
  return {
    opening,
    inner,
    gap: (opening - inner) / 2,
    open: byThickness ? shown : (held ?? basis.value.thickness),
    height: byThickness ? shown : board.value,
    lift: held ? (held - board.value) / 2 : 0,
    closed: held !== null,
    byThickness,
  }
})
const proud = computed(() => basis.value.thickness - board.value)
const box = computed<Box>(() => {
  const { opening, open } = picture.value
  return [-opening * 0.4, -open * 0.5, opening * 1.4, open * 1.6]
})
const verdict = computed(() => {
  if (picture.value.byThickness || picture.value.closed) {
    const room = (picture.value.closed ? picture.value.open : picture.value.opening) - board.value
    return `${say.length(room, 3)} of clearance across it`
  }
  const off = Math.abs(proud.value)
  if (off < 0.005) return 'its face is flush'
  return `its face is ${say.length(off)} ${proud.value > 0 ? 'below' : 'proud of'} the ${props.mate.inner}s`
})
/** The member that is gone into, cut through: open at the top, or round about. */
const around = computed(() => {
  const { opening, open, closed } = picture.value
  const left = -opening
  const right = 2 * opening
  if (!closed) return `M${left} ${open}H0V0H${opening}V${open}H${right}V${-2 * open}H${left}Z`
  return `M${left} ${2 * open}H${right}V${-open}H${left}ZM0 0V${open}H${opening}V0Z`
})

/** Close enough to see the gap beside what goes in. */
function lookAtGap(): void {
  const reach = Math.max(Math.abs(picture.value.gap) * 6, 0.06)
  const top = picture.value.open
  drawing.value?.lookAt([-reach, top - 1.4 * reach, reach, top + 0.6 * reach])
}
</script>

<template>
  <section v-if="contact" class="loupe" aria-label="Loupe">
    <header>
      <b>Loupe · one {{ mate.inner }}</b>
      <span>
        <ElButton link size="small" @click="lookAtGap">Gap</ElButton>
        <ElButton link size="small" @click="drawing?.fitAll()">Whole {{ mate.inner }}</ElButton>
      </span>
    </header>
    <DrawingFrame
      ref="drawing"
      class="picture"
      :box="box"
      label="Cross-section of the joint"
      :readout="false"
    >
      <template #default>
        <path class="first" :d="around" />
        <rect
          class="second"
          :x="picture.gap"
          :y="picture.lift"
          :width="picture.inner"
          :height="picture.height"
        />
      </template>
      <template #over="{ at, pxPerMm }">
        <text
          v-if="picture.inner * pxPerMm < 2000"
          :x="at([picture.opening / 2, 0])[0]"
          :y="at([0, picture.height / 2])[1] + 4"
        >
          {{ say.length(picture.inner) }}
        </text>
        <g class="ochre gap">
          <line
            :x1="at([picture.gap / 2, 0])[0]"
            :x2="at([picture.gap / 2, 0])[0]"
            :y1="at([0, picture.open])[1] - 18"
            :y2="at([0, picture.open])[1] - 3"
          />
          <text :x="at([picture.gap / 2, 0])[0]" :y="Math.max(at([0, picture.open])[1] - 23, 15)"
            >gap {{ say.length(picture.gap, 3) }}</text
          >
        </g>
      </template>
    </DrawingFrame>
    <GapPanels
      v-if="mate.gap"
      :gap="mate.gap"
      :thin="basis.thin"
      :mean="basis.thickness"
      :thick="basis.thick"
      :board="board"
      @look="board = $event"
    />
    <div class="slider small">
      <span class="second">Board {{ say.length(basis.thin) }}</span>
      <ElSlider
        v-model="board"
        aria-label="Thickness of the board"
        size="small"
        :min="basis.thin"
        :max="basis.thick"
        :step="Math.max((basis.thick - basis.thin) / 100, 0.0001)"
        :show-tooltip="false"
      />
      <span class="second">{{ say.length(basis.thick) }}</span>
    </div>
    <p class="small">
      <span class="figure">{{ say.length(board) }}</span> thick: <b>{{ verdict }}</b>. The joint is
      <b>{{ mate.fit.verdict }}</b>.
      <span v-if="mate.fit.wants" :class="mate.fit.fails ? 'bad' : 'ochre'"
        >It {{ say.sentence(mate.fit.wants) }}.</span
      >
    </p>
  </section>
</template>

<style scoped>
.loupe {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  grid-template-rows: auto minmax(7rem, 11rem);
  grid-auto-rows: auto;
  min-height: 0;
  border: 1.5px solid var(--ink);
  background: var(--panel);
  box-shadow: 0 2px 10px #0002;
}
header {
  display: flex;
  align-items: center;
  justify-content: space-between;
  flex-wrap: wrap;
  white-space: nowrap;
  padding: 7px 12px 3px;
}
.first {
  fill: var(--board);
  stroke: var(--ink);
}
.second {
  color: var(--second);
}
rect.second {
  fill: var(--deep-wash);
  stroke: var(--deep);
  stroke-width: 1.5;
}
text {
  text-anchor: middle;
  fill: var(--ink);
  font-family: var(--figures);
  font-size: 0.85rem;
}
.gap text {
  fill: var(--ochre-text);
}
.gap line {
  stroke: var(--ochre);
  stroke-width: 1.5;
}
.slider {
  display: grid;
  grid-template-columns: auto 1fr auto;
  gap: 14px;
  align-items: center;
  padding: 4px 12px 0;
}
p {
  padding: 2px 12px 10px;
}
b {
  font-weight: 500;
}
</style>
