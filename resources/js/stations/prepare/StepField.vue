<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { formCauses, kinds } from '@/format/rules'
import CommittedInput from '@/parts/CommittedInput.vue'
import PairsEditor from '@/parts/PairsEditor.vue'
import ReadingFields from '@/parts/ReadingFields.vue'
import ConditionEditor from '@/stations/prepare/ConditionEditor.vue'
import FormulaField from '@/stations/prepare/FormulaField.vue'
import type { Field } from '@/stations/prepare/stepKinds'
import { actions, held, totals } from '@/stations/prepare/stepOptions'

/** One part of a step, in the control that fits it. */
const props = defineProps<{ field: Field; value: unknown; columns: readonly string[]; mayWork: boolean }>()
const emit = defineEmits<{ update: [value: unknown] }>()

type Action = NonNullable<Schemas['Step']['actions']>[number]
type Total = NonNullable<Schemas['Step']['totals']>[number]
type Held = NonNullable<Schemas['Step']['holds']>[number]
type Order = NonNullable<Schemas['Step']['order']>

const asText = computed(() => (typeof props.value === 'string' ? props.value : Array.isArray(props.value) ? String(props.value[0] ?? '') : ''))
const asTexts = computed(() => (Array.isArray(props.value) ? props.value.map(String) : typeof props.value === 'string' ? [props.value] : []))
const asActions = computed(() => (props.value ?? []) as Action[])
const asTotals = computed(() => (props.value ?? []) as Total[])
const asHeld = computed(() => (props.value ?? []) as Held[])
const asOrder = computed(() => props.value as Order | undefined)
const asReading = computed(() => (props.value ?? {}) as Schemas['Reading'])
const reading = (part: Schemas['Reading']): void =>
  emit(
    'update',
    Object.fromEntries(
      Object.entries({ ...asReading.value, ...part }).filter(([, value]) => value !== undefined && (!Array.isArray(value) || value.length > 0)),
    ),
  )
const replaced = <Item,>(items: readonly Item[], place: number, item: Item): Item[] => items.map((other, at) => (at === place ? item : other))
const without = <Item,>(items: readonly Item[], place: number): Item[] => items.filter((_, at) => at !== place)
const needs = (action: string): 'find' | 'length' | null => (action.startsWith('replace') ? 'find' : action === 'pad-zeros' ? 'length' : null)
const newAction = (action: string): Action =>
  needs(action) === 'length' ? { action, length: 3 } : needs(action) === 'find' ? { action, find: '', with: '' } : { action }
</script>

<template>
  <el-checkbox
    v-if="field.type === 'flag'"
    :model-value="value === true || (value === undefined && field.name === 'keepBlanks')"
    :disabled="!mayWork"
    class="flag"
    @update:model-value="emit('update', $event === true)"
    >{{ field.label }}</el-checkbox
  >
  <ConditionEditor
    v-else-if="field.type === 'condition'"
    :condition="value as Schemas['Condition']"
    :columns="columns"
    :may-work="mayWork"
    @update="emit('update', $event)"
  />
  <FormulaField v-else-if="field.type === 'formula'" :formula="asText" :columns="columns" :may-work="mayWork" @update="emit('update', $event)" />
  <PairsEditor
    v-else-if="field.type === 'renames' || field.type === 'entries' || field.type === 'on' || field.type === 'take'"
    :label="field.label"
    :pairs="(value as Record<string, string>[] | undefined) ?? []"
    :names="{ renames: ['from', 'to'], entries: ['source', 'target'], on: ['column', 'reference'], take: ['reference', 'into'] }[field.type]"
    :columns="field.type === 'renames' || field.type === 'on' ? columns : []"
    :may-work="mayWork"
    @update="emit('update', $event)"
  />
  <fieldset v-else-if="field.type === 'actions'">
    <legend>{{ field.label }}</legend>
    <div v-for="(action, place) in asActions" :key="place" class="line">
      <el-select
        :model-value="action.action"
        size="small"
        :disabled="!mayWork"
        :aria-label="`Action ${place + 1}`"
        @update:model-value="emit('update', replaced(asActions, place, newAction($event)))"
      >
        <el-option v-for="known in actions" :key="known.value" :value="known.value" :label="known.label" />
      </el-select>
      <template v-if="needs(action.action) === 'find'">
        <CommittedInput
          :value="action.find ?? ''"
          size="small"
          aria-label="Find"
          placeholder="find"
          @commit="emit('update', replaced(asActions, place, { ...action, find: $event }))"
        />
        <CommittedInput
          :value="action.with ?? ''"
          size="small"
          aria-label="Replace with"
          placeholder="with"
          @commit="emit('update', replaced(asActions, place, { ...action, with: $event }))"
        />
      </template>
      <CommittedInput
        v-else-if="needs(action.action) === 'length'"
        :value="String(action.length ?? 3)"
        size="small"
        inputmode="numeric"
        aria-label="Length"
        @commit="/^[1-9]\d{0,2}$/.test($event) && emit('update', replaced(asActions, place, { ...action, length: Number($event) }))"
      />
      <el-button v-if="mayWork && asActions.length > 1" link :aria-label="`Remove action ${place + 1}`" @click="emit('update', without(asActions, place))"
        >Remove</el-button
      >
    </div>
    <el-button v-if="mayWork" size="small" @click="emit('update', [...asActions, { action: 'squeeze' }])">Add an action</el-button>
  </fieldset>
  <fieldset v-else-if="field.type === 'totals'">
    <legend>{{ field.label }}</legend>
    <div v-for="(total, place) in asTotals" :key="place" class="line">
      <el-select
        :model-value="total.total"
        size="small"
        :disabled="!mayWork"
        :aria-label="`Total ${place + 1}`"
        @update:model-value="
          emit(
            'update',
            replaced(
              asTotals,
              place,
              $event === 'count' ? { total: 'count', into: total.into } : { ...total, total: $event, column: total.column ?? columns[0] ?? '' },
            ),
          )
        "
      >
        <el-option v-for="known in totals" :key="known.value" :value="known.value" :label="known.label" />
      </el-select>
      <el-select
        :empty-values="[null, undefined]"
        :model-value="total.column ?? ''"
        size="small"
        filterable
        :aria-label="`Column of total ${place + 1}`"
        @update:model-value="emit('update', replaced(asTotals, place, $event === '' ? { total: total.total, into: total.into } : { ...total, column: $event }))"
      >
        <el-option v-if="total.total === 'count'" value="" label="(all rows)" />
        <el-option v-for="name in columns" :key="name" :value="name" :label="name" />
      </el-select>
      <CommittedInput
        :value="total.into"
        size="small"
        :aria-label="`Name of total ${place + 1}`"
        @commit="$event !== '' && emit('update', replaced(asTotals, place, { ...total, into: $event }))"
      />
      <el-button v-if="mayWork" link :aria-label="`Remove total ${place + 1}`" @click="emit('update', without(asTotals, place))">Remove</el-button>
    </div>
    <el-button
      v-if="mayWork"
      size="small"
      @click="emit('update', [...asTotals, { total: 'sum', column: columns[0] ?? '', into: `sum_${asTotals.length + 1}` }])"
      >Add a total</el-button
    >
  </fieldset>
  <fieldset v-else-if="field.type === 'holds'">
    <legend>{{ field.label }}</legend>
    <div v-for="(holds, place) in asHeld" :key="place" class="line">
      <el-select
        :model-value="holds.total"
        size="small"
        :disabled="!mayWork"
        :aria-label="`What is held ${place + 1}`"
        @update:model-value="emit('update', replaced(asHeld, place, { ...holds, total: $event }))"
      >
        <el-option v-for="known in held" :key="known.value" :value="known.value" :label="known.label" />
      </el-select>
      <el-select
        :model-value="holds.column"
        size="small"
        filterable
        :disabled="!mayWork"
        :aria-label="`Column of what is held ${place + 1}`"
        @update:model-value="emit('update', replaced(asHeld, place, { ...holds, column: $event }))"
      >
        <el-option v-for="name in columns" :key="name" :value="name" :label="name" />
      </el-select>
      <el-button v-if="mayWork" link :aria-label="`Remove what is held ${place + 1}`" @click="emit('update', without(asHeld, place))">Remove</el-button>
    </div>
    <el-button v-if="mayWork" size="small" @click="emit('update', [...asHeld, { column: columns[columns.length - 1] ?? '', total: 'longest' }])"
      >Add a column</el-button
    >
  </fieldset>
  <label v-else class="field">
    <span>{{ field.type === 'reading' ? 'Written' : field.label }}</span>
    <el-select
      v-if="field.type === 'columns'"
      :model-value="asTexts"
      multiple
      filterable
      collapse-tags
      :max-collapse-tags="4"
      :disabled="!mayWork"
      :aria-label="field.label"
      :placeholder="field.hint ?? 'none'"
      @update:model-value="emit('update', $event.length > 0 || field.name === 'by' ? $event : asTexts)"
    >
      <el-option v-for="name in columns" :key="name" :value="name" :label="name" />
    </el-select>
    <el-select
      v-else-if="field.type === 'column'"
      :model-value="asText"
      filterable
      :disabled="!mayWork"
      :aria-label="field.label"
      @update:model-value="emit('update', $event)"
    >
      <el-option v-for="name in columns" :key="name" :value="name" :label="name" />
    </el-select>
    <el-select
      v-else-if="field.type === 'texts'"
      :model-value="asTexts"
      multiple
      filterable
      allow-create
      default-first-option
      :reserve-keyword="false"
      :disabled="!mayWork"
      :aria-label="field.label"
      @update:model-value="emit('update', $event.length > 0 ? $event : asTexts)"
    />
    <el-select
      v-else-if="field.type === 'forgives'"
      :model-value="asTexts"
      multiple
      :disabled="!mayWork"
      :aria-label="field.label"
      :placeholder="field.hint ?? 'nothing'"
      @update:model-value="emit('update', $event.length > 0 ? $event : undefined)"
    >
      <el-option v-for="known in formCauses" :key="known.cause" :value="known.cause" :label="known.name" />
    </el-select>
    <el-select
      v-else-if="field.type === 'choice'"
      :empty-values="[null, undefined]"
      :model-value="asText"
      :disabled="!mayWork"
      :aria-label="field.label"
      @update:model-value="emit('update', $event)"
    >
      <el-option v-for="option in field.options ?? []" :key="option.value" :value="option.value" :label="option.label" />
    </el-select>
    <template v-else-if="field.type === 'order'">
      <el-select
        :empty-values="[null, undefined]"
        :model-value="asOrder?.column ?? ''"
        filterable
        :disabled="!mayWork"
        :aria-label="field.label"
        @update:model-value="emit('update', $event === '' ? undefined : { ...asOrder, column: $event })"
      >
        <el-option value="" label="(the order of the delivery)" />
        <el-option v-for="name in columns" :key="name" :value="name" :label="name" />
      </el-select>
      <template v-if="asOrder">
        <el-select
          :model-value="asOrder.kind ?? 'text'"
          :disabled="!mayWork"
          aria-label="Read as"
          @update:model-value="emit('update', { ...asOrder, kind: $event })"
        >
          <el-option v-for="known in kinds" :key="known.kind" :value="known.kind" :label="`read as ${known.name}`" />
        </el-select>
        <el-checkbox
          :model-value="asOrder.highestFirst === true"
          :disabled="!mayWork"
          @update:model-value="emit('update', { ...asOrder, highestFirst: $event === true })"
          >highest or latest first</el-checkbox
        >
      </template>
    </template>
    <template v-else-if="field.type === 'reading'">
      <ReadingFields :label="field.label" :kind="field.label as Schemas['Kind']" :reading="asReading" :may-work="mayWork" @declare="reading($event)" />
    </template>
    <CommittedInput
      v-else-if="field.type === 'lengths'"
      :value="asTexts.join(', ')"
      :disabled="!mayWork"
      :aria-label="field.label"
      placeholder="such as 2, 3"
      @commit="
        emit(
          'update',
          $event.trim() === ''
            ? undefined
            : $event
                .split(/[ ,]+/)
                .map(Number)
                .filter((length: number) => length > 0),
        )
      "
    />
    <CommittedInput
      v-else
      :value="asText"
      :disabled="!mayWork"
      :aria-label="field.label"
      :placeholder="field.hint ?? ''"
      @commit="emit('update', $event === '' && field.type === 'name' ? asText : $event)"
    />
  </label>
</template>

<style scoped>
.field {
  display: grid;
  gap: 3px;
  font-size: 12.5px;
}
.flag {
  block-size: auto;
  min-block-size: 24px;
  white-space: normal;
}
.line {
  display: grid;
  grid-auto-flow: column;
  grid-auto-columns: minmax(0, 1fr);
  gap: 4px;
  align-items: center;
}
</style>
