import { QueryClient, VueQueryPlugin } from '@tanstack/vue-query'
import { mount } from '@vue/test-utils'
import { describe, expect, it, vi } from 'vitest'
import { ref } from 'vue'
import type { Schemas } from '@/api/client'
import RoleStrip from '@/parts/RoleStrip.vue'

const path = ref('')
vi.mock('vue-router', () => ({ useRoute: () => ({ path: path.value }) }))
const people = ref<Schemas['PersonOfMigration'][]>([])
vi.mock('@/composables/usePeople', () => ({ usePeople: () => people }))

const somebody = (id: number, name: string, role: string, mayWork: boolean) => ({ id, name, role, mayWork, mayRule: role !== 'viewer' })
const said = (station: string, may: { mayWork: boolean; mayRule: boolean }): string => {
  path.value = `/datasets/1/${station}`
  const course = { ...may, migration: { id: 1 } } as unknown as Schemas['Course']
  return mount(RoleStrip, { props: { course }, global: { plugins: [[VueQueryPlugin, { queryClient: new QueryClient() }]] } }).text()
}

describe('whose work a station is', () => {
  it('is said to whoever may only look, by station', () => {
    people.value = [somebody(1, 'Ruth Osei', 'analyst', true), somebody(2, 'Tove Lindqvist', 'data owner', false), somebody(3, 'Ivo Brandt', 'viewer', false)]

    expect(said('deliver', { mayWork: false, mayRule: false })).toContain('To deliver, ask Ruth Osei (analyst).')
    expect(said('review', { mayWork: false, mayRule: false })).toContain('To rule on findings, ask Ruth Osei (analyst), Tove Lindqvist (data owner).')
    expect(said('prove/eye-check', { mayWork: false, mayRule: true })).toBe('')
    expect(said('review', { mayWork: false, mayRule: true })).toBe('')
    expect(said('match', { mayWork: true, mayRule: true })).toBe('')
    expect(said('sign', { mayWork: false, mayRule: false })).toBe('')
  })

  it('says it when nobody may, and names three of many', () => {
    people.value = [somebody(3, 'Ivo Brandt', 'viewer', false)]
    expect(said('match', { mayWork: false, mayRule: false })).toContain('Nobody in this migration may choose the key and tally')

    people.value = ['Ada', 'Bo', 'Cai', 'Dov'].map((name, id) => somebody(id, name, 'analyst', true))
    expect(said('match', { mayWork: false, mayRule: false })).toContain('Cai (analyst) or one other.')
  })
})
