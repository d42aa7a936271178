<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { kinds, policies } from '@/format/rules'
import { ownOf, withOwn, type OwnPolicy } from '@/format/ownPolicies'
import type { Policy } from '@/stations/review/repeats/policies'

/** What becomes of the groups whose rows differ in certain columns, where they shall not go the way of all others. */
const props = defineProps<{
  policy: Policy
  differing: readonly string[]
  columns: readonly string[]
  label: string
  looksLike: (column: string) => Schemas['Kind']
}>()
const emit = defineEmits<{ change: [policy: Policy] }>()

const own = computed(() => ownOf(props.policy, props.differing))
const known = policies.filter(({ policy }) => policy !== 'pair-in-order')
const needsColumn = (policy: string): boolean => policy === 'keep-highest' || policy === 'keep-lowest'
const set = (one: Omit<OwnPolicy, 'differ'> | null): void => emit('change', withOwn(props.policy, props.differing, one))
function choose(policy: OwnPolicy['policy'] | ''): void {
  // Of the columns that differ one can decide, which is why they are asked about.
  const column = props.differing[0] ?? props.columns[0]
  set(policy === '' ? null : needsColumn(policy) && column !== undefined ? { policy, column, kind: props.looksLike(column) } : { policy })
}
function decide(part: { column?: string; kind?: Schemas['Kind'] }): void {
  if (own.value !== undefined) set({ ...own.value, ...part })
}
</script>

<template>
  <p v-if="policy.policy === 'pair-in-order'" class="quiet">The plan pairs rows in order: no groups have a policy of their own.</p>
  <p v-else class="own">
    <span>What becomes of these groups</span>
    <el-select
      :model-value="own?.policy ?? ''"
      :empty-values="[null, undefined]"
      size="small"
      :aria-label="`${label}: what becomes of these groups`"
      @update:model-value="choose"
    >
      <el-option value="" label="as of all others" />
      <el-option v-for="one in known" :key="one.policy" :value="one.policy" :label="one.name" />
    </el-select>
    <template v-if="own !== undefined && needsColumn(own.policy)">
      <el-select
        :model-value="own.column ?? ''"
        size="small"
        filterable
        :aria-label="`${label}: column that decides in these groups`"
        @update:model-value="decide({ column: $event, kind: looksLike($event) })"
      >
        <el-option v-for="name in columns" :key="name" :value="name" :label="`by ${name}`" />
      </el-select>
      <el-select
        :model-value="own.kind ?? 'text'"
        size="small"
        :aria-label="`${label}: kind of the column that decides in these groups`"
        @update:model-value="decide({ kind: $event })"
      >
        <el-option v-for="one in kinds" :key="one.kind" :value="one.kind" :label="`read as ${one.name}`" />
      </el-select>
    </template>
  </p>
</template>

<style scoped>
.own {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 8px;
  align-items: center;
  margin: 0;
}
.own :deep(.el-select) {
  inline-size: 200px;
}
</style>
