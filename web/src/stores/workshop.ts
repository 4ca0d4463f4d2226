import { defineStore } from 'pinia'
import { computed, shallowRef } from 'vue'

import { api, type Machine, type MachineIn, type Stock, type StockIn } from '../api/client'
import { useSay } from '../composables/useSay'
import type { Option } from '../kit/options'

/** The workshop's boards and machines, shared by every view that offers them. */
export const useWorkshop = defineStore('workshop', () => {
  const say = useSay()
  const boards = shallowRef<readonly Stock[] | null>(null)
  const machines = shallowRef<readonly Machine[] | null>(null)

  /** Asked for again each time a view opens: somebody else may have measured meanwhile. */
  async function load(): Promise<void> {
    await Promise.all([loadBoards(), loadMachines()])
  }

  async function loadBoards(): Promise<void> {
    boards.value = await api.stocks()
  }

  async function loadMachines(): Promise<void> {
    machines.value = await api.machines()
  }

  async function addBoard(body: StockIn): Promise<Stock> {
    const added = await api.addStock(body)
    await loadBoards()
    return added
  }

  async function addMachine(body: MachineIn): Promise<Machine> {
    const added = await api.addMachine(body)
    await loadMachines()
    return added
  }

  const boardOptions = computed<Option<number>[]>(() =>
    (boards.value ?? []).map(({ id, document, thickness, readings }) => ({
      value: id,
      label: document.name,
      detail: `${say.length(thickness)} ${say.unit}, ${readings.values.length} reading${readings.values.length === 1 ? '' : 's'}; nominal ${say.short(document.nominal)}`,
    })),
  )
  const machineOptions = computed<Option<number>[]>(() =>
    (machines.value ?? []).map(({ id, document }) => ({
      value: id,
      label: document.name,
      detail: `${document.kind}, bed ${say.size(document.bed_width, document.bed_height)} ${say.unit}`,
    })),
  )

  return {
    boards, machines, load, loadBoards, loadMachines, addBoard, addMachine, boardOptions, machineOptions,
  } // prettier-ignore
})
