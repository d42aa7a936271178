<script setup lang="ts">
import type { Schemas } from '@/api/client'
import { kinds, policies } from '@/format/rules'
import type { Side } from '@/composables/draftChanges'
import { keepingOwn } from '@/format/ownPolicies'

/** What happens to rows of each side that share a key. */
const props = defineProps<{ plan: Schemas['Plan']; draft: Schemas['PlanDraft']; course: Schemas['Course']; mayWork: boolean }>()
const emit = defineEmits<{ repeat: [side: Side, policy: Schemas['RepeatsPolicy']] }>()

const policyOf = (side: Side): Schemas['RepeatsPolicy'] => props.draft.sides?.[side]?.repeats ?? { policy: 'set-aside' }
const needsColumn = (policy: string): boolean => policy === 'keep-highest' || policy === 'keep-lowest'
const keepsOf = (side: Side): 'highest' | 'lowest' => policyOf(side).then?.keeps ?? 'highest'
const columnsOf = (side: Side): string[] => (props.plan[side]?.columns ?? []).map((column) => column.name)

function choose(side: Side, policy: Schemas['RepeatsPolicy']['policy']): void {
  const inKey = new Set(props.draft.key.map((column) => column[side]))
  const first = columnsOf(side).find((name) => !inKey.has(name)) ?? columnsOf(side)[0] ?? ''
  const chosen = needsColumn(policy) ? { policy, column: policyOf(side).column ?? first, kind: policyOf(side).kind ?? 'text' } : { policy }
  emit('repeat', side, keepingOwn(chosen, policyOf(side)))
}

function decide(side: Side, part: Partial<NonNullable<Schemas['RepeatsPolicy']['then']>> | null): void {
  const { then, ...policy } = policyOf(side)
  const column = part?.column ?? then?.column
  emit('repeat', side, part === null || column === undefined ? policy : { ...policy, then: { ...then, ...part, column } })
}
</script>

<template>
  <section aria-label="Rows that share a key">
    <h2>Rows that share a key</h2>
    <div v-for="side in ['source', 'target'] as const" :key="side" class="side" :class="side">
      <span>{{ side === 'source' ? course.migration.sourceLabel : course.migration.targetLabel }}</span>
      <el-select
        :model-value="policyOf(side).policy"
        :aria-label="`${side}: rows that share a key`"
        :disabled="!mayWork"
        @update:model-value="choose(side, $event)"
      >
        <el-option v-for="known in policies" :key="known.policy" :value="known.policy" :label="known.name" />
      </el-select>
      <template v-if="needsColumn(policyOf(side).policy)">
        <el-select
          :model-value="policyOf(side).column"
          filterable
          :aria-label="`${side}: column that decides`"
          :disabled="!mayWork"
          @update:model-value="emit('repeat', side, { ...policyOf(side), column: $event })"
        >
          <el-option v-for="name in columnsOf(side)" :key="name" :value="name" :label="`by ${name}`" />
        </el-select>
        <el-select
          :model-value="policyOf(side).kind ?? 'text'"
          :aria-label="`${side}: kind of the column that decides`"
          :disabled="!mayWork"
          @update:model-value="emit('repeat', side, { ...policyOf(side), kind: $event })"
        >
          <el-option v-for="known in kinds" :key="known.kind" :value="known.kind" :label="`read as ${known.name}`" />
        </el-select>
        <el-select
          :empty-values="[null, undefined]"
          :model-value="policyOf(side).then?.column ?? ''"
          filterable
          :aria-label="`${side}: column that decides between equal ones`"
          :disabled="!mayWork"
          @update:model-value="decide(side, $event === '' ? null : { column: $event })"
        >
          <el-option value="" label="of equal ones the first" />
          <el-option
            v-for="name in columnsOf(side).filter((other) => other !== policyOf(side).column)"
            :key="name"
            :value="name"
            :label="`equal ones: by ${name}`"
          />
        </el-select>
        <template v-if="policyOf(side).then">
          <el-select
            :model-value="policyOf(side).then?.kind ?? 'text'"
            :aria-label="`${side}: kind of the column that decides between equal ones`"
            :disabled="!mayWork"
            @update:model-value="decide(side, { kind: $event })"
          >
            <el-option v-for="known in kinds" :key="known.kind" :value="known.kind" :label="`read as ${known.name}`" />
          </el-select>
          <el-select
            :model-value="keepsOf(side)"
            :aria-label="`${side}: which of the equal ones is kept`"
            :disabled="!mayWork"
            @update:model-value="decide(side, { keeps: $event })"
          >
            <el-option value="highest" label="the highest is kept" />
            <el-option value="lowest" label="the lowest is kept" />
          </el-select>
        </template>
      </template>
      <el-select
        v-if="policyOf(side).policy === 'collapse-copies'"
        :model-value="policyOf(side).except ?? []"
        multiple
        filterable
        :aria-label="`${side}: columns in which copies may differ`"
        placeholder="copies may differ in no column"
        :disabled="!mayWork"
        @update:model-value="
          emit('repeat', side, keepingOwn($event.length > 0 ? { policy: 'collapse-copies', except: $event } : { policy: 'collapse-copies' }, policyOf(side)))
        "
      >
        <el-option v-for="name in columnsOf(side)" :key="name" :value="name" :label="`may differ in ${name}`" />
      </el-select>
      <p v-if="(policyOf(side).own ?? []).length > 0" class="quiet">
        Rows that differ in certain columns alone have a policy of their own:
        <RouterLink :to="`/datasets/${course.id}/repeats`">{{ policyOf(side).own?.length }} of them</RouterLink>.
      </p>
      <p class="quiet">{{ policies.find((known) => known.policy === policyOf(side).policy)?.sentence }}</p>
    </div>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 10px;
}
.side {
  display: grid;
  gap: 4px;
  font-size: 12.5px;
  border-inline-start: 3px solid var(--src);
  padding-inline-start: 8px;
}
.side.target {
  border-color: var(--tgt);
}
p {
  margin: 0;
}
</style>
