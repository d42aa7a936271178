<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import CommittedInput from '@/parts/CommittedInput.vue'
import { tests } from '@/stations/prepare/stepOptions'

/** All or any of some tests of single cells. A condition that is nested deeper came by import: it is shown, and replaced as a whole. */
const props = defineProps<{ condition: Schemas['Condition'] | undefined; columns: readonly string[]; mayWork: boolean }>()
const emit = defineEmits<{ update: [condition: Schemas['Condition']] }>()

const isAny = computed(() => props.condition?.any !== undefined)
const parts = computed(() => props.condition?.all ?? props.condition?.any ?? (props.condition === undefined ? [] : [props.condition]))
const takes = (test: string | undefined): string => tests.find((known) => known.value === test)?.takes ?? 'nothing'

function put(next: Schemas['Condition'][], any = isAny.value): void {
  const [only] = next
  if (only === undefined) return
  emit('update', next.length === 1 ? only : any ? { any: next } : { all: next })
}
const set = (place: number, part: Schemas['Condition']): void => put(parts.value.map((other, at) => (at === place ? part : other)))

/** A value that stands in the plan, or the name of a parameter that each tally has a value for. */
function fill(place: number, part: Schemas['Condition'], filled: { value: string } | { parameter: string }): void {
  if ('parameter' in filled && filled.parameter.trim() === '') return
  const { column, test: asked, until } = part
  set(place, {
    ...(column === undefined ? {} : { column }),
    ...(asked === undefined ? {} : { test: asked }),
    ...(until === undefined ? {} : { until }),
    ...filled,
  })
}

/** A new test keeps what still fits it. */
function test(place: number, part: Schemas['Condition'], chosen: string): void {
  const { column = '' } = part
  const kind = takes(chosen)
  set(place, {
    column,
    test: chosen,
    ...(kind === 'value' || kind === 'until' ? (part.parameter === undefined ? { value: part.value ?? '0' } : { parameter: part.parameter }) : {}),
    ...(kind === 'values' ? { values: part.values ?? (part.value === undefined ? [] : [part.value]) } : {}),
    ...(kind === 'until' ? { until: part.until ?? column } : {}),
  })
}
</script>

<template>
  <fieldset>
    <legend>Rows where</legend>
    <el-select
      v-if="parts.length > 1"
      :model-value="isAny ? 'any' : 'all'"
      size="small"
      :disabled="!mayWork"
      aria-label="All or any"
      @update:model-value="put([...parts], $event === 'any')"
    >
      <el-option value="all" label="all of these hold" />
      <el-option value="any" label="any of these holds" />
    </el-select>
    <div v-for="(part, place) in parts" :key="place" class="part">
      <p v-if="part.column === undefined" class="quiet">several conditions, nested</p>
      <template v-else>
        <el-select
          :model-value="part.column"
          size="small"
          filterable
          :disabled="!mayWork"
          :aria-label="`Column of condition ${place + 1}`"
          @update:model-value="set(place, { ...part, column: $event })"
        >
          <el-option v-for="name in columns" :key="name" :value="name" :label="name" />
        </el-select>
        <el-select
          :model-value="part.test"
          size="small"
          :disabled="!mayWork"
          :aria-label="`Test of condition ${place + 1}`"
          @update:model-value="test(place, part, $event)"
        >
          <el-option v-for="known in tests" :key="known.value" :value="known.value" :label="known.label" />
        </el-select>
        <CommittedInput
          v-if="takes(part.test) === 'value' || takes(part.test) === 'until'"
          :value="part.parameter ?? part.value ?? ''"
          size="small"
          :disabled="!mayWork"
          :aria-label="`${part.parameter === undefined ? 'Value' : 'Parameter'} of condition ${place + 1}`"
          @commit="fill(place, part, part.parameter === undefined ? { value: $event } : { parameter: $event })"
        />
        <el-checkbox
          v-if="takes(part.test) === 'value' || takes(part.test) === 'until'"
          :model-value="part.parameter !== undefined"
          size="small"
          :disabled="!mayWork"
          @update:model-value="fill(place, part, $event === true ? { parameter: 'cut-off date' } : { value: '' })"
          >a parameter of the tally</el-checkbox
        >
        <el-select
          v-if="takes(part.test) === 'values'"
          :model-value="part.values ?? []"
          size="small"
          multiple
          filterable
          allow-create
          default-first-option
          :disabled="!mayWork"
          :aria-label="`Values of condition ${place + 1}`"
          @update:model-value="set(place, { ...part, values: $event })"
        />
        <el-select
          v-if="takes(part.test) === 'until'"
          :model-value="part.until"
          size="small"
          filterable
          :disabled="!mayWork"
          :aria-label="`Last day of condition ${place + 1}`"
          @update:model-value="set(place, { ...part, until: $event })"
        >
          <el-option v-for="name in columns" :key="name" :value="name" :label="`until ${name}`" />
        </el-select>
      </template>
      <el-button v-if="mayWork && parts.length > 1" link :aria-label="`Remove condition ${place + 1}`" @click="put(parts.filter((_, at) => at !== place))"
        >Remove</el-button
      >
    </div>
    <el-button v-if="mayWork" size="small" @click="put([...parts, { column: columns[0] ?? '', test: 'is-blank' }])">Add a condition</el-button>
  </fieldset>
</template>

<style scoped>
fieldset {
  gap: 6px;
}
.part {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 4px;
}
p {
  margin: 0;
  font-size: 12.5px;
}
</style>
