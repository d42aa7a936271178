<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { dateForms, groupMarks } from '@/format/rules'
import CommittedInput from '@/parts/CommittedInput.vue'

/** How a side or a reference writes its values, or those of one column: blank tokens, and the forms of a kind. */
const props = defineProps<{
  side: 'source' | 'target' | 'reference'
  label: string
  kind: Schemas['Kind'] | 'any'
  reading: Schemas['Reading']
  /** what holds where the column declares nothing of its own */
  inherited?: Schemas['Reading']
  mayWork: boolean
}>()
const emit = defineEmits<{ declare: [reading: Schemas['Reading']] }>()

const isOfTime = computed(() => props.kind === 'date' || props.kind === 'date-time' || props.kind === 'any')
const asTheSide = (values: readonly string[] | undefined, otherwise: string): string =>
  values === undefined || values.length === 0 ? otherwise : `as the whole side: ${values.join(', ')}`
</script>

<template>
  <fieldset :class="side">
    <legend>{{ label }}</legend>
    <label>
      <span>Means blank, beside the empty cell</span>
      <el-select
        :model-value="reading.blankTokens ?? []"
        multiple
        filterable
        allow-create
        default-first-option
        :reserve-keyword="false"
        :disabled="!mayWork"
        :aria-label="`${label}: means blank, beside the empty cell`"
        :placeholder="asTheSide(inherited?.blankTokens, 'nothing else')"
        @update:model-value="emit('declare', { blankTokens: $event })"
      >
        <el-option v-for="token in ['NULL', 'N/A', '-', 'none']" :key="token" :value="token" :label="token" />
      </el-select>
    </label>
    <label v-if="kind === 'number' || kind === 'any'">
      <span>Decimals after</span>
      <el-select
        :model-value="reading.decimalMark ?? inherited?.decimalMark ?? '.'"
        :disabled="!mayWork"
        :aria-label="`${label}: decimals after`"
        @update:model-value="emit('declare', { decimalMark: $event })"
      >
        <el-option value="." label="a point: 1234.50" />
        <el-option value="," label="a comma: 1234,50" />
      </el-select>
    </label>
    <label v-if="kind === 'number' || kind === 'any'">
      <span>Between groups of three digits</span>
      <el-select
        :empty-values="[null, undefined]"
        :model-value="reading.groupMark ?? inherited?.groupMark ?? ''"
        :disabled="!mayWork"
        :aria-label="`${label}: between groups of three digits`"
        @update:model-value="emit('declare', { groupMark: $event })"
      >
        <el-option v-for="{ mark, label: said } in groupMarks" :key="mark" :value="mark" :label="said" />
      </el-select>
    </label>
    <label v-if="isOfTime">
      <span>Date forms, tried in this order</span>
      <el-select
        :model-value="reading.dateForms ?? []"
        multiple
        filterable
        allow-create
        default-first-option
        :reserve-keyword="false"
        :disabled="!mayWork"
        :aria-label="`${label}: date forms`"
        :placeholder="asTheSide(inherited?.dateForms, '2027-03-31 only')"
        @update:model-value="emit('declare', { dateForms: $event })"
      >
        <el-option v-for="form in dateForms" :key="form" :value="form" :label="form" />
      </el-select>
    </label>
    <label v-if="kind === 'date-time'">
      <span>Clocks stand in the time zone</span>
      <CommittedInput
        :value="reading.zone ?? ''"
        :disabled="!mayWork"
        :aria-label="`${label}: time zone`"
        :placeholder="inherited?.zone === undefined ? 'not said, such as Europe/London' : `as the whole side: ${inherited.zone}`"
        @commit="emit('declare', { zone: $event.trim() === '' ? undefined : $event.trim() })"
      />
    </label>
  </fieldset>
</template>

<style scoped>
fieldset {
  border: 0;
  border-inline-start: 3px solid var(--src);
  padding: 0 0 0 8px;
  margin: 0;
  display: grid;
  gap: 6px;
  min-inline-size: 0;
}
fieldset.target {
  border-color: var(--tgt);
}
legend {
  float: inline-start;
  font-size: 12.5px;
  font-weight: 600;
  color: var(--src);
  padding: 0;
}
fieldset.reference {
  border-color: var(--line);
}
.target legend {
  color: var(--tgt);
}
.reference legend {
  color: inherit;
}
label {
  display: grid;
  gap: 2px;
  font-size: 12.5px;
  clear: both;
}
</style>
