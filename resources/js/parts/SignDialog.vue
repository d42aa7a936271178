<script setup lang="ts">
import { useMutation, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { answer, api, type Schemas } from '@/api/client'
import ErrorNote from '@/parts/ErrorNote.vue'
import WhoItIs from '@/parts/WhoItIs.vue'

/** What is signed, one sentence for each tally, and once more who signs. All of it is signed, or nothing is. */
const props = defineProps<{
  migration: number
  items: readonly { tally: number; digest: string; sentence: string }[]
  needsCode: boolean
  figure: string
}>()
const emit = defineEmits<{ close: []; signed: []; changed: [] }>()
const queries = useQueryClient()
const password = ref('')
const code = ref('')
const sign = useMutation({
  mutationFn: () =>
    answer(
      api.POST('/migrations/{migration}/signatures', {
        params: { path: { migration: props.migration } },
        body: { items: props.items.map(({ tally, digest }) => ({ tally, digest })), password: password.value, code: code.value || null },
      }),
    ),
  onSuccess: async ({ items }: { items: Schemas['GivenSignature'][] }) => {
    await Promise.all([
      ...items.map(({ tally }) => queries.invalidateQueries({ queryKey: ['tally', tally] })),
      queries.invalidateQueries({ queryKey: ['for-me'] }),
      queries.invalidateQueries({ queryKey: ['migration'] }),
      queries.invalidateQueries({ queryKey: ['dataset'] }),
    ])
    emit('signed')
    emit('close')
  },
  // What was shown may no longer be how it is.
  onError: () => emit('changed'),
})
const isReady = computed(() => password.value !== '' && (!props.needsCode || code.value !== '') && !sign.isPending.value)
</script>

<template>
  <el-dialog :model-value="true" title="Your signature" width="min(600px, 95vw)" @close="emit('close')">
    <form @submit.prevent="isReady && sign.mutate()">
      <ul :class="{ one: items.length === 1 }">
        <li v-for="item in items" :key="item.tally" class="sentence" :data-figure="figure">{{ item.sentence }}</li>
      </ul>
      <p class="quiet">
        An electronic signature by your password{{ needsCode ? ' and a code of your second factor' : '' }}: kept with your name, your role, the time, this
        sentence, and the digest of all that this page shows. It is no qualified signature.
      </p>
      <WhoItIs v-model:password="password" v-model:code="code" name="sign" :needs-code="needsCode" />
      <ErrorNote :error="sign.error.value" />
      <div class="buttons">
        <el-button @click="emit('close')">Not now</el-button>
        <el-button type="primary" native-type="submit" :disabled="!isReady" :loading="sign.isPending.value">{{
          items.length === 1 ? 'Sign' : `Sign all ${items.length}`
        }}</el-button>
      </div>
    </form>
  </el-dialog>
</template>

<style scoped>
form {
  display: grid;
  gap: 8px;
}
ul {
  margin: 0;
  padding-inline-start: 18px;
  display: grid;
  gap: 6px;
}
ul.one {
  list-style: none;
  padding: 0;
}
.sentence {
  font-weight: 600;
  overflow-wrap: anywhere;
}
p {
  margin: 0;
  font-size: 13px;
}
.buttons {
  display: flex;
  justify-content: flex-end;
  gap: 8px;
}
</style>
