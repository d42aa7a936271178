<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '@/api/client'
import { askedOf } from '@/composables/triedSteps'
import { counted } from '@/format/counts'
import { formCauses, formsOf, formsOfKinds, inOrder, kinds, passes } from '@/format/rules'
import CrosswalkBeginning from '@/parts/CrosswalkBeginning.vue'
import CommittedInput from '@/parts/CommittedInput.vue'
import PairsEditor from '@/parts/PairsEditor.vue'
import SideForms from '@/parts/SideForms.vue'
import type { Side } from '@/composables/draftChanges'

/** What one pair, or one column of the key, lets pass and how its values are read. */
const props = defineProps<{ draft: Schemas['PlanDraft']; source: string; course: Schemas['Course']; mayWork: boolean }>()
const emit = defineEmits<{
  rule: [source: string, rules: Partial<Schemas['ColumnPair']>]
  declare: [side: Side, column: string, reading: Schemas['Reading']]
  forgiveIn: [sources: readonly string[], forgives: readonly Schemas['FormCause'][]]
  flag: [columns: { source: string; target: string }, isSensitive: boolean]
  byDefault: [forgives: readonly Schemas['FormCause'][]]
  close: []
}>()

const inKey = computed(() => props.draft.key.find((column) => column.source === props.source))
const pair = computed(() => props.draft.columnPairs.find((column) => column.source === props.source))
const target = computed(() => inKey.value?.target ?? pair.value?.target ?? '')
const isSensitive = computed(
  () => props.draft.sensitive?.source?.includes(props.source) === true || props.draft.sensitive?.target?.includes(target.value) === true,
)
const kind = computed(() => pair.value?.kind ?? 'text')
const forgives = computed(() => inKey.value?.forgives ?? pair.value?.forgives ?? [])
const readingOf = (side: Side): Schemas['Reading'] => props.draft.sides?.[side]?.columns?.[side === 'source' ? props.source : target.value] ?? {}
/** The source as it is when it meets the target. */
const asked = computed(() => askedOf(props.draft, 'source', null))
/** Columns that are to forgive the same; none chosen means all. */
const alike = ref<string[]>([])
const others = computed(() => props.draft.columnPairs.map(({ source }) => source).filter((name) => name !== props.source))
const byDefault = computed(() => passes({ forgives: props.draft.defaults?.forgives ?? [] }).join(', '))
const isOfTime = computed(() => kind.value === 'date' || kind.value === 'date-time')
const units = computed(() =>
  kind.value === 'number'
    ? [
        { by: 'absolute' as const, name: 'an amount' },
        { by: 'relative' as const, name: 'a part of the larger value' },
      ]
    : [
        { by: 'days' as const, name: 'days' },
        { by: 'seconds' as const, name: 'seconds' },
      ],
)

/** The form cause of the new kind is forgiven, that of the kind before no longer; rules that fit no more go. */
function read(as: Schemas['Kind']): void {
  emit('rule', props.source, {
    kind: as,
    forgives: inOrder([...forgives.value.filter((cause) => !formsOfKinds.includes(cause)), ...formsOf(as)]),
    tolerance: undefined,
    ...(as === 'number' ? {} : { rounding: undefined }),
  })
}

function forgive(cause: Schemas['FormCause'], yes: boolean): void {
  emit('rule', props.source, { forgives: inOrder(yes ? [...forgives.value, cause] : forgives.value.filter((other) => other !== cause)) })
}

function tolerate(by: NonNullable<Schemas['ColumnPair']['tolerance']>['by'] | '', most: string): void {
  const written = most.trim()
  if (by !== '' && !/^\d+(\.\d+)?$/.test(written)) return
  emit('rule', props.source, { tolerance: by === '' ? undefined : { by, most: written } })
}
</script>

<template>
  <section aria-label="Rules of the pair">
    <header>
      <h2>{{ source === target ? source : `${source} → ${target}` }}</h2>
      <el-button link @click="emit('close')">Close</el-button>
    </header>
    <p v-if="inKey" class="quiet">A column of the key: rows meet although their keys differ by what is ticked, and each such cell is counted.</p>
    <div v-else class="field">
      <span>Read as</span>
      <el-select :model-value="kind" aria-label="Read as" :disabled="!mayWork" @update:model-value="read">
        <el-option v-for="known in kinds" :key="known.kind" :value="known.kind" :label="known.name" />
      </el-select>
    </div>
    <SideForms
      v-for="side in ['source', 'target'] as const"
      :key="side"
      :side="side"
      :label="side === 'source' ? course.migration.sourceLabel : course.migration.targetLabel"
      :kind="kind"
      :reading="readingOf(side)"
      :inherited="draft.sides?.[side] ?? {}"
      :may-work="mayWork"
      @declare="emit('declare', side, side === 'source' ? source : target, $event)"
    />
    <fieldset>
      <legend>Still agrees when only this differs</legend>
      <el-checkbox
        v-for="known in formCauses"
        :key="known.cause"
        :model-value="forgives.includes(known.cause)"
        :disabled="!mayWork"
        @update:model-value="forgive(known.cause, $event === true)"
      >
        {{ known.name }} <span class="quiet">{{ known.example }}</span>
      </el-checkbox>
      <div v-if="pair && mayWork" class="many">
        <el-select v-model="alike" multiple filterable collapse-tags placeholder="Other columns" aria-label="Other columns that forgive the same">
          <el-option v-for="other in others" :key="other" :value="other" :label="other" />
        </el-select>
        <el-button size="small" :disabled="others.length === 0" @click="(emit('forgiveIn', alike.length > 0 ? alike : others, forgives), (alike = []))"
          >Forgive the same in {{ alike.length > 0 ? counted(alike.length, 'column') : 'all columns' }}</el-button
        >
        <el-button size="small" @click="emit('byDefault', forgives)">Use these rules for new pairs</el-button>
        <span v-if="byDefault !== ''" class="quiet">New pairs begin with {{ byDefault }}.</span>
      </div>
    </fieldset>
    <template v-if="pair">
      <fieldset v-if="kind === 'number' || isOfTime">
        <legend>Or when the values are this close</legend>
        <div class="close">
          <el-select
            :empty-values="[null, undefined]"
            :model-value="pair.tolerance?.by ?? ''"
            aria-label="Unit of the tolerance"
            :disabled="!mayWork"
            @update:model-value="tolerate($event, pair.tolerance?.most ?? (isOfTime ? '1' : '0.01'))"
          >
            <el-option value="" label="no tolerance" />
            <el-option v-for="{ by, name } in units" :key="by" :value="by" :label="name" />
          </el-select>
          <CommittedInput
            v-if="pair.tolerance"
            :value="pair.tolerance.most"
            aria-label="Largest difference that passes"
            inputmode="decimal"
            :disabled="!mayWork"
            @commit="tolerate(pair.tolerance.by, $event)"
          />
        </div>
      </fieldset>
      <fieldset v-if="kind === 'number'">
        <legend>Or when one side is rounded to</legend>
        <el-select
          :model-value="pair.rounding?.places ?? -1"
          aria-label="Decimal places"
          :disabled="!mayWork"
          @update:model-value="emit('rule', source, { rounding: $event === -1 ? undefined : { places: $event, mode: pair.rounding?.mode ?? 'half-up' } })"
        >
          <el-option :value="-1" label="no rounding" />
          <el-option v-for="places in [0, 1, 2, 3, 4]" :key="places" :value="places" :label="places === 1 ? '1 decimal place' : `${places} decimal places`" />
        </el-select>
        <el-select
          v-if="pair.rounding"
          :model-value="pair.rounding.mode"
          aria-label="How it is rounded"
          :disabled="!mayWork"
          @update:model-value="emit('rule', source, { rounding: { places: pair.rounding.places, mode: $event } })"
        >
          <el-option value="half-up" label="halves away from zero" />
          <el-option value="half-even" label="halves to the even digit" />
          <el-option value="half-down" label="halves towards zero" />
          <el-option value="cut" label="cut off" />
          <el-option value="up" label="always away from zero" />
          <el-option value="floor" label="always down" />
          <el-option value="ceiling" label="always up" />
        </el-select>
      </fieldset>
      <PairsEditor
        label="Crosswalk: source value, and what it becomes"
        :pairs="pair.crosswalk ?? []"
        :names="['source', 'target']"
        :columns="[]"
        :may-work="mayWork"
        @update="emit('rule', source, { crosswalk: $event.length > 0 ? ($event as Schemas['KeyColumn'][]) : undefined })"
      />
      <CrosswalkBeginning
        v-if="mayWork"
        :dataset="course.id"
        :asked="asked"
        :column="source"
        :entries="pair.crosswalk ?? []"
        @begin="emit('rule', source, { crosswalk: $event })"
      />
    </template>
    <fieldset>
      <legend>Who sees the values</legend>
      <el-checkbox :model-value="isSensitive" :disabled="!mayWork" @update:model-value="emit('flag', { source, target }, $event === true)">
        Sensitive <span class="quiet">masked in Review, reports and files; shown for an hour to who may see them, on record</span>
      </el-checkbox>
      <p v-if="isSensitive && inKey" class="quiet">
        In keys a pseudonym stands for each value, so that rows can still be told apart; nobody for whom they are masked can look for one.
      </p>
    </fieldset>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 12px;
}
header {
  display: flex;
  justify-content: space-between;
  gap: 8px;
}
h2 {
  overflow-wrap: anywhere;
}
p {
  margin: 0;
  font-size: 13px;
}
.field {
  display: grid;
  gap: 4px;
  font-size: 12.5px;
}
legend {
  font-size: 12.5px;
  padding: 0 0 4px;
  color: var(--ink-2);
}
fieldset .el-checkbox .quiet {
  font-weight: 400;
}
fieldset .el-checkbox {
  block-size: auto;
  min-block-size: 24px;
  margin: 0;
  white-space: normal;
}
.many {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin-block-start: 8px;
  font-size: 12.5px;
}
.many .el-button {
  margin: 0;
}
.close {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 96px;
  gap: 6px;
}
</style>
