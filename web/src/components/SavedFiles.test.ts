import { flushPromises, mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it } from 'vitest'

import type { Export } from '../api/client'
import SavedFiles from './SavedFiles.vue'

const file = (id: number, verdict: string, sentence: string, unseen: string[] = []) =>
  ({
    id,
    file_name: `tray_${id}.dxf`,
    proof: { verdict, sentence, provided: '', at: '', stops: [], unseen },
  }) as unknown as Export

describe('what the proof of saved files said', () => {
  beforeEach(() => setActivePinia(createPinia()))

  it('tells files of which the same was said together, each sort by itself', async () => {
    const files = [
      file(1, 'fits', 'Fits'),
      file(2, 'fits', 'Fits'),
      file(3, 'as-far-as-seen', 'Fits as far as seen', ['The back was not looked at.']),
    ]
    const said = mount(SavedFiles, { props: { files } })
    await flushPromises()
    const text = said.text()
    expect(text).toContain('✓ 2 files as saved: Fits, read back')
    expect(text).toContain('The file as saved: Fits as far as seen, read back')
    expect(text).toContain('The back was not looked at.')
    expect(text.match(/✓/g)).toHaveLength(1)
  })

  it('says so where a file was not read back', () => {
    const one = { ...file(1, 'fits', 'Fits'), proof: null } as unknown as Export
    expect(mount(SavedFiles, { props: { files: [one] } }).text()).toContain('Not read back')
  })
})
