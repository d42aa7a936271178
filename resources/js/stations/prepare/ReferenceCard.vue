<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { counted } from '@/format/counts'
import CommittedInput from '@/parts/CommittedInput.vue'
import SideForms from '@/parts/SideForms.vue'

/** How a reference writes its values, and what tells its records apart. */
const props = defineProps<{ name: string; rules: Schemas['ReferenceRules']; mayWork: boolean; isOpen: boolean }>()
const emit = defineEmits<{ prepare: [rules: Schemas['ReferenceRules']]; open: [] }>()
const steps = computed(() => props.rules.preparation?.length ?? 0)
const written = computed(() => (props.rules.key ?? []).join(', '))
</script>

<template>
  <section :aria-label="`Reference ${name}`">
    <h2>Reference {{ name }}</h2>
    <SideForms side="reference" label="Its values" kind="any" :reading="rules" :may-work="mayWork" @declare="emit('prepare', $event)" />
    <label>
      <span>Its records are told apart by</span>
      <CommittedInput
        :value="written"
        :disabled="!mayWork"
        :aria-label="`Columns that tell the records of ${name} apart`"
        placeholder="not checked; columns, with commas"
        @commit="
          emit('prepare', {
            key: $event
              .split(',')
              .map((column: string) => column.trim())
              .filter((column: string) => column !== ''),
          })
        "
      />
    </label>
    <p v-if="!isOpen">
      <button type="button" class="plain as-link" @click="emit('open')">
        {{ steps === 0 ? `Steps that prepare ${name}` : `Prepared by ${counted(steps, 'step')}` }}
      </button>
    </p>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 6px;
  margin-block-start: 14px;
}
label {
  display: grid;
  gap: 2px;
  font-size: 12.5px;
}
p {
  margin: 0;
  font-size: 12.5px;
}
</style>
