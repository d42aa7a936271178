<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { groupMarks } from '@/format/rules'
import CommittedInput from '@/parts/CommittedInput.vue'
import DateFormField from '@/parts/DateFormField.vue'
import type { ReadingProps } from '@/parts/readingProps'

/** In which forms the values of a kind are written: the same wherever it is said, for a side, a column, a step or a reference. */
const props = defineProps<ReadingProps>()
const emit = defineEmits<{ declare: [reading: Schemas['Reading']] }>()

const isOf = (...kinds: readonly (Schemas['Kind'] | 'any')[]): boolean => props.kind === 'any' || kinds.includes(props.kind)
const inherits = (values: readonly string[] | undefined, otherwise: string): string =>
  values === undefined || values.length === 0 ? otherwise : values.join(', ')
/** What is chosen of numbers: what it is in the plan, what is asked, what holds, and what can be chosen, in words. */
const ofNumbers = computed(() => {
  const held = <Name extends keyof Schemas['Reading']>(name: Name): Schemas['Reading'][Name] => props.reading[name] ?? props.inherited?.[name]
  return [
    { name: 'decimalMark', asks: 'Decimals after', value: held('decimalMark') ?? '.', options: { '.': 'a point: 1234.50', ',': 'a comma: 1234,50' } },
    {
      name: 'groupMark',
      asks: 'Between groups of three digits',
      value: held('groupMark') ?? '',
      options: Object.fromEntries(groupMarks.map(({ mark, label }) => [mark, label])),
    },
    {
      name: 'percent',
      asks: 'A percent sign',
      value: held('percent') ?? '',
      options: { '': 'makes it no number', number: '5 % is 5', share: '5 % is 0.05' },
    },
    { name: 'negatives', asks: 'Negative numbers', value: held('negatives') ?? 'minus', options: { minus: '-5', parentheses: '(5)', 'minus-behind': '5-' } },
  ]
})
</script>

<template>
  <template v-if="isOf('number')">
    <label v-for="{ name, asks, value, options } in ofNumbers" :key="name">
      <span>{{ asks }}</span>
      <el-select
        :empty-values="[null, undefined]"
        :model-value="value"
        :disabled="!mayWork"
        :aria-label="`${label}: ${asks.toLowerCase()}`"
        @update:model-value="emit('declare', { [name]: name === 'percent' && $event === '' ? undefined : $event })"
      >
        <el-option v-for="(said, option) in options" :key="option" :value="option" :label="said" />
      </el-select>
    </label>
    <label>
      <span>Currency that may stand beside amounts</span>
      <CommittedInput
        :value="reading.currency ?? ''"
        :disabled="!mayWork"
        :aria-label="`${label}: currency`"
        :placeholder="inherited?.currency ?? 'none, such as £ or EUR'"
        @commit="emit('declare', { currency: $event.trim() === '' ? undefined : $event.trim() })"
      />
    </label>
  </template>
  <DateFormField
    v-if="isOf('date', 'date-time')"
    :reading="reading"
    :inherited="inherited"
    :found="found"
    :label="label"
    :may-work="mayWork"
    @declare="emit('declare', $event)"
  />
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
  <template v-if="kind === 'yes-no'">
    <label v-for="word in ['yes', 'no'] as const" :key="word">
      <span>Words for {{ word }}</span>
      <el-select
        :model-value="reading[word] ?? []"
        multiple
        filterable
        allow-create
        default-first-option
        :disabled="!mayWork"
        :aria-label="`${label}: words for ${word}`"
        :placeholder="inherits(inherited?.[word], word === 'yes' ? 'yes, y, true, t, 1' : 'no, n, false, f, 0')"
        @update:model-value="emit('declare', { [word]: $event.length === 0 ? undefined : $event })"
      />
    </label>
  </template>
</template>

<style scoped>
label {
  display: grid;
  gap: 2px;
  font-size: 12.5px;
  clear: both;
}
</style>
