<script setup lang="ts">
import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, reactive, ref } from 'vue'
import { answer, api, type Schemas } from '@/api/client'
import { counted } from '@/format/counts'
import { moment } from '@/format/moments'
import ErrorNote from '@/parts/ErrorNote.vue'

/** Programs that are told of notices of a migration, each with its last attempts. */
const props = defineProps<{ migration: number; name: string }>()
const queries = useQueryClient()
const { data } = useQuery({ queryKey: ['webhooks'], queryFn: () => answer(api.GET('/webhooks')) })
const items = computed(() => data.value?.items.filter(({ migration }) => migration === props.migration) ?? [])
const isAdding = ref(false)
const entered = reactive({ url: '', kinds: [] as Schemas['NoticeKind'][] })
/** Told once: nobody can look it up later. */
const secret = ref('')
const refresh = () => queries.invalidateQueries({ queryKey: ['webhooks'] })
const {
  mutate: keep,
  isPending: isKeeping,
  error: keepError,
} = useMutation({
  mutationFn: () => answer(api.POST('/migrations/{migration}/webhooks', { params: { path: { migration: props.migration } }, body: { ...entered } })),
  onSuccess: (kept) => {
    secret.value = kept.secret
    isAdding.value = false
    Object.assign(entered, { url: '', kinds: [] })
    return refresh()
  },
})
const { mutate: remove, error: removeError } = useMutation({
  mutationFn: (webhook: number) =>
    answer(api.DELETE('/migrations/{migration}/webhooks/{webhook}', { params: { path: { migration: props.migration, webhook } } })),
  onSuccess: refresh,
})
const last = ({ attempts }: Schemas['Webhooks']['items'][number]): string => {
  const [attempt] = attempts
  return attempt === undefined ? 'not told of anything yet' : `last told ${moment(attempt.at)}: ${attempt.said}`
}
</script>

<template>
  <h3>Programs that are told of notices</h3>
  <ul v-if="items.length > 0" class="entries">
    <li v-for="one in items" :key="one.id">
      <span
        ><b>{{ one.url }}</b> <span class="quiet">{{ counted(one.kinds.length, 'kind') }} of notices; {{ last(one) }}</span></span
      >
      <el-button size="small" :aria-label="`Tell ${one.url} no more`" @click="remove(one.id)">Tell it no more</el-button>
    </li>
  </ul>
  <p v-if="secret !== ''" role="status" class="secret">
    Give the program this secret, which is told only here and only now: <code>{{ secret }}</code>
  </p>
  <ErrorNote :error="keepError ?? removeError" />
  <form v-if="isAdding" class="form" @submit.prevent="keep()">
    <label
      >Address <el-input v-model="entered.url" :aria-label="`Address of a program for ${name}`" placeholder="https://example.org/hook" autocomplete="off"
    /></label>
    <label
      >Told when
      <el-select v-model="entered.kinds" multiple :aria-label="`What the program is told of, of ${name}`" placeholder="choose">
        <el-option v-for="one in data?.kinds" :key="one.kind" :value="one.kind" :label="one.words" />
      </el-select>
    </label>
    <span class="buttons">
      <el-button type="primary" native-type="submit" :loading="isKeeping" :disabled="entered.url === '' || entered.kinds.length === 0">Tell it</el-button>
      <el-button @click="isAdding = false">Not now</el-button>
    </span>
  </form>
  <el-button v-else :aria-label="`Tell a program of notices of ${name}`" @click="isAdding = true">Tell a program</el-button>
</template>

<style scoped>
h3 {
  margin: 6px 0 0;
  font-size: 14px;
}
p {
  margin: 0;
}
.secret {
  background: var(--mark);
  padding: 6px 10px;
  overflow-wrap: anywhere;
}
.entries {
  inline-size: 100%;
}
.form {
  display: grid;
  gap: 8px;
  inline-size: min(520px, 100%);
}
label {
  display: grid;
  font-size: 12.5px;
  color: var(--ink-2);
}
.buttons {
  display: flex;
  gap: 8px;
}
</style>
