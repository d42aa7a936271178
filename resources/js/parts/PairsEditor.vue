<script setup lang="ts">
import { ref } from 'vue'
import CommittedInput from '@/parts/CommittedInput.vue'

/** Pairs of names or values that belong together. */
const props = defineProps<{ label: string; pairs: readonly Record<string, string>[]; names: readonly string[]; columns: readonly string[]; mayWork: boolean }>()
const emit = defineEmits<{ update: [pairs: Record<string, string>[]] }>()

const [one, other] = [props.names[0] ?? '', props.names[1] ?? '']
const first = ref('')
const second = ref('')

function add(): void {
  if (first.value === '' || (second.value === '' && one !== 'source')) return
  emit('update', [...props.pairs, { [one]: first.value, [other]: second.value }])
  first.value = second.value = ''
}
const set = (place: number, name: string, value: string): void =>
  emit(
    'update',
    props.pairs.map((pair, at) => (at === place ? { ...pair, [name]: value } : pair)),
  )
</script>

<template>
  <fieldset>
    <legend>{{ label }}</legend>
    <div v-for="(pair, place) in pairs" :key="place" class="line">
      <el-select
        v-if="columns.length > 0"
        :model-value="pair[one] ?? ''"
        size="small"
        filterable
        :disabled="!mayWork"
        :aria-label="`${label}, ${place + 1}`"
        @update:model-value="set(place, one, $event)"
      >
        <el-option v-for="name in columns" :key="name" :value="name" :label="name" />
      </el-select>
      <CommittedInput
        v-else
        :value="pair[one] ?? ''"
        size="small"
        :disabled="!mayWork"
        :aria-label="`${label}, ${place + 1}`"
        @commit="set(place, one, $event)"
      />
      <CommittedInput
        :value="pair[other] ?? ''"
        size="small"
        :disabled="!mayWork"
        :aria-label="`${label}, ${place + 1}, second`"
        @commit="set(place, other, $event)"
      />
      <el-button
        v-if="mayWork"
        link
        :aria-label="`Remove ${pair[one] ?? ''}`"
        @click="
          emit(
            'update',
            pairs.filter((_, at) => at !== place),
          )
        "
        >Remove</el-button
      >
    </div>
    <form v-if="mayWork" class="line" @submit.prevent="add">
      <el-select v-if="columns.length > 0" v-model="first" size="small" filterable :aria-label="`${label}: new`">
        <el-option v-for="name in columns" :key="name" :value="name" :label="name" />
      </el-select>
      <el-input v-else v-model="first" size="small" :aria-label="`${label}: new`" />
      <el-input v-model="second" size="small" :aria-label="`${label}: new, second`" />
      <el-button size="small" native-type="submit">Add</el-button>
    </form>
  </fieldset>
</template>

<style scoped>
.line {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr) 60px;
  gap: 4px;
  align-items: center;
}
</style>
