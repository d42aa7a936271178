import { flushPromises, mount } from '@vue/test-utils'
import { afterEach, expect, it, vi } from 'vitest'
import CopyLink from '@/parts/CopyLink.vue'

afterEach(() => vi.unstubAllGlobals())

it('copies the address of what is open, and shows it where the browser does not let it', async () => {
  const writeText = vi.fn<(text: string) => Promise<void>>().mockResolvedValueOnce(undefined).mockRejectedValueOnce(new Error('not allowed'))
  vi.stubGlobal('navigator', { clipboard: { writeText } })
  const wrapper = mount(CopyLink)

  await wrapper.get('button').trigger('click')
  await flushPromises()
  expect(writeText).toHaveBeenCalledWith(location.href)
  expect(wrapper.get('[role=status]').text()).toBe('copied')

  await wrapper.get('button').trigger('click')
  await flushPromises()
  expect(wrapper.get('input').element.value).toBe(location.href)
})
