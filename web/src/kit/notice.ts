import { ElButton, ElMessage } from 'element-plus'
import { h } from 'vue'

const SHOWN_MS = 8000

/** Says what was done, with the way back: what can be undone is done at once, and not asked about first. */
export function notice(text: string, undo?: () => void): void {
  const close = () => shown.close()
  const back = () => {
    close()
    undo?.()
  }
  const shown = ElMessage({
    message: h('span', { class: 'acts', role: 'status' }, [
      text,
      ...(undo ? [h(ElButton, { link: true, type: 'primary', onClick: back }, () => 'Undo')] : []),
    ]),
    duration: SHOWN_MS,
    showClose: true,
    placement: 'bottom',
    grouping: false,
  })
}
