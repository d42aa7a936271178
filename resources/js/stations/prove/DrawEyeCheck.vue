<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '@/api/client'
import { figure, type Said } from '@/format/said'
import FigureValue from '@/parts/FigureValue.vue'
import SaidText from '@/parts/SaidText.vue'

/** How sure one wants to be, and how few wrong rows one wants to rule out: how many rows that takes is said before any is drawn. */
const props = defineProps<{ offers: Schemas['EyeChecks']; isBusy: boolean }>()
const emit = defineEmits<{ draw: [asked: { confidence: number; share: number }] }>()

const percent = (share: number): string => `${Number((share * 100).toFixed(2))} %`
const confidence = ref(0.95)
const share = ref(0.01)
const confidences = computed(() => [...new Set(props.offers.offers.map((one) => one.confidence))])
const shares = computed(() => [...new Set(props.offers.offers.map((one) => one.share))])
const offer = computed(() => props.offers.offers.find((one) => one.confidence === confidence.value && one.share === share.value))
const of = (name: 'identical' | 'byRule'): Said => [
  figure('eye-checks/offers', offer.value?.[name] ?? 0),
  ' of ',
  figure(`eye-checks/populations/${name}`, props.offers.populations[name]),
]
</script>

<template>
  <form @submit.prevent="emit('draw', { confidence, share })">
    <label for="eye-confidence">With a confidence of</label>
    <select id="eye-confidence" v-model="confidence">
      <option v-for="one in confidences" :key="one" :value="one">{{ percent(one) }}</option>
    </select>
    <label for="eye-share">fewer are wrong than</label>
    <select id="eye-share" v-model="share">
      <option v-for="one in shares" :key="one" :value="one">{{ percent(one) }}</option>
    </select>
    <p>
      That takes <SaidText :said="of('identical')" /> rows that are identical<template v-if="offers.populations.byRule > 0"
        >, and <SaidText :said="of('byRule')" /> that agree only for a rule</template
      >, all of which must be right.
    </p>
    <p v-if="offers.notDrawn > 0" class="quiet">
      <FigureValue name="eye-checks/notDrawn" :of="offers.notDrawn" /> rows that agree are never drawn: their key stands more than once, or a bridge joins two
      keys. What the sample shows is not said of them.
    </p>
    <el-button type="primary" native-type="submit" :loading="isBusy" :disabled="!offer || offer.identical + offer.byRule === 0">Draw the sample</el-button>
  </form>
</template>

<style scoped>
form {
  display: grid;
  grid-template-columns: max-content 130px 1fr;
  gap: 8px 14px;
  align-items: center;
  justify-content: start;
  font-size: 13.5px;
}
label {
  grid-column: 1;
}
p,
.el-button {
  grid-column: 1 / -1;
  justify-self: start;
  margin: 0;
}
select {
  border: 1px solid var(--edge);
  border-radius: 4px;
  padding: 5px 8px;
  background: var(--sheet);
}
</style>
