<script setup lang="ts">
import type { Schemas } from '@/api/client'
import ReadingFields from '@/parts/ReadingFields.vue'
import type { ReadingProps } from '@/parts/readingProps'

/** How a side or a reference writes its values, or those of one column: blank tokens, and the forms of a kind. */
defineProps<ReadingProps & { side: 'source' | 'target' | 'reference' }>()
const emit = defineEmits<{ declare: [reading: Schemas['Reading']] }>()

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
    <ReadingFields
      :label="label"
      :kind="kind"
      :reading="reading"
      :inherited="inherited"
      :found="found"
      :may-work="mayWork"
      @declare="emit('declare', $event)"
    />
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
