<script setup lang="ts">
import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { answer, api } from '@/api/client'
import { moment } from '@/format/moments'
import ErrorNote from '@/parts/ErrorNote.vue'
import LoadState from '@/parts/LoadState.vue'
import WhoItIs from '@/parts/WhoItIs.vue'

/** The key that this installation seals with, those before it, and for an administrator the act that changes it. */
const queries = useQueryClient()
const { data, error, isPending, refetch } = useQuery({ queryKey: ['seal-key'], queryFn: ({ signal }) => answer(api.GET('/seal-key', { signal })) })
const isChanging = ref(false)
const [reason, isCompromised, password, code] = [ref(''), ref(false), ref(''), ref('')]
const rotate = useMutation({
  mutationFn: () =>
    answer(
      api.POST('/seal-key/rotations', {
        body: { reason: reason.value.trim(), isCompromised: isCompromised.value, password: password.value, code: code.value || null },
      }),
    ),
  onSuccess: (after) => {
    queries.setQueryData(['seal-key'], after)
    isChanging.value = false
    ;[reason.value, password.value, code.value] = ['', '', '']
  },
})
const isReady = computed(
  () => reason.value.trim() !== '' && password.value !== '' && (data.value?.needsCode !== true || code.value !== '') && !rotate.isPending.value,
)
</script>

<template>
  <section aria-label="Keys">
    <h2>Keys of this installation</h2>
    <LoadState :is-loading="isPending" :error="error" what="The keys" @retry="refetch()">
      <template v-if="data">
        <dl>
          <dt>seals now</dt>
          <dd class="cell">{{ data.fingerprint }}</dd>
          <template v-for="one in data.earlier" :key="one.fingerprint">
            <dt>until {{ moment(one.until) }}</dt>
            <dd>
              <span class="cell">{{ one.fingerprint }}</span>
              <br />
              <span class="quiet">changed by {{ one.by }}: {{ one.reason }}</span>
              <b v-if="!one.handedOver"> Somebody else may have it: a seal under it proves nothing by itself.</b>
            </dd>
          </template>
        </dl>
        <el-button v-if="data.mayRotate" size="small" @click="isChanging = true">Change the key</el-button>
        <el-dialog v-model="isChanging" title="Another key from now on" width="min(560px, 95vw)">
          <form @submit.prevent="isReady && rotate.mutate()">
            <p>
              Packs that were sealed stay as good as they are. The key that seals now says under its own signature which one follows, and is deleted; packs that
              are made from now on carry what it said, so that whoever holds its fingerprint finds the new one.
            </p>
            <label for="rotate-reason">Why, as everybody will read it</label>
            <el-input id="rotate-reason" v-model="reason" maxlength="500" placeholder="such as: once a year" />
            <el-checkbox v-model="isCompromised" label="Somebody else may have the key: it hands over to none" />
            <WhoItIs v-model:password="password" v-model:code="code" name="rotate" :needs-code="data.needsCode" />
            <ErrorNote :error="rotate.error.value" />
            <div class="buttons">
              <el-button @click="isChanging = false">Not now</el-button>
              <el-button type="primary" native-type="submit" :disabled="!isReady" :loading="rotate.isPending.value">Change the key</el-button>
            </div>
          </form>
        </el-dialog>
      </template>
    </LoadState>
  </section>
</template>

<style scoped>
section {
  margin-block-start: 24px;
}
dl {
  display: grid;
  grid-template-columns: max-content minmax(0, 1fr);
  gap: 6px 14px;
  margin: 8px 0;
  font-size: 13px;
}
dd {
  margin: 0;
  overflow-wrap: anywhere;
}
.cell {
  white-space: normal;
}
form {
  display: grid;
  gap: 8px;
  font-size: 13px;
}
p {
  margin: 0;
}
.buttons {
  display: flex;
  justify-content: flex-end;
  gap: 8px;
}
</style>
