<script setup lang="ts">
import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { reactive, ref } from 'vue'
import { answer, api } from '@/api/client'
import { counted } from '@/format/counts'
import ErrorNote from '@/parts/ErrorNote.vue'

/** An authenticator beside the password: begun with a picture to scan, in force from its first right code, ended with the password. */
const queries = useQueryClient()
const { data: state } = useQuery({ queryKey: ['me', 'second-factor'], queryFn: () => answer(api.GET('/me/second-factor')) })
const entered = reactive({ password: '', code: '' })
const picture = ref('')
const codes = ref<readonly string[]>([])
const refresh = () => {
  Object.assign(entered, { password: '', code: '' })
  return queries.invalidateQueries({ queryKey: ['me', 'second-factor'] })
}
const begin = useMutation({
  mutationFn: () => answer(api.POST('/me/second-factor', { body: { password: entered.password } })),
  onSuccess: async ({ address }) => {
    // Drawn here: the secret goes nowhere else. Most people never come by this, so it is fetched when they do.
    const { toDataURL } = await import('qrcode')
    picture.value = await toDataURL(address, { margin: 2, width: 220 })
    return refresh()
  },
})
const confirm = useMutation({
  mutationFn: () => answer(api.PUT('/me/second-factor', { body: { code: entered.code } })),
  onSuccess: (confirmed) => {
    codes.value = confirmed.recoveryCodes
    picture.value = ''
    return refresh()
  },
})
const end = useMutation({ mutationFn: () => answer(api.POST('/me/second-factor/end', { body: { password: entered.password } })), onSuccess: refresh })
</script>

<template>
  <section v-if="state" aria-label="Second factor">
    <h2>Second factor</h2>
    <template v-if="codes.length > 0">
      <p>
        Your authenticator is asked for from now on. These codes stand for it once each, should it be lost. They are shown now and never again: write them down
        where nobody else finds them.
      </p>
      <ul class="codes">
        <li v-for="code in codes" :key="code" class="cell">{{ code }}</li>
      </ul>
      <el-button @click="codes = []">I have written them down</el-button>
    </template>
    <template v-else-if="begin.data.value && picture !== ''">
      <p>Scan this with your authenticator, or type the secret into it. Then type the code that it shows.</p>
      <img :src="picture" width="220" height="220" alt="A picture that holds the secret for your authenticator; the secret stands below it as text." />
      <p class="cell secret">{{ begin.data.value.secret }}</p>
      <el-form label-position="top" @submit.prevent="confirm.mutate()">
        <el-form-item label="Code of the authenticator"><el-input v-model="entered.code" inputmode="numeric" autocomplete="one-time-code" /></el-form-item>
        <el-button type="primary" native-type="submit" :loading="confirm.isPending.value" :disabled="entered.code === ''">Ask for it from now on</el-button>
      </el-form>
    </template>
    <template v-else>
      <p v-if="state.isOn" class="quiet">
        An authenticator is asked for when you sign in;
        <span data-figure="recoveryCodes">{{ counted(state.recoveryCodes, 'recovery code') }}</span> are left. With it, a password of
        <span data-ordinal>8</span> characters is enough.
      </p>
      <p v-else class="quiet">Besides the password, an authenticator can be asked for when you sign in: a program that shows a new code each half minute.</p>
      <el-form label-position="top" @submit.prevent="state.isOn ? end.mutate() : begin.mutate()">
        <el-form-item label="Your password, to change this"
          ><el-input v-model="entered.password" type="password" autocomplete="current-password"
        /></el-form-item>
        <el-button native-type="submit" :loading="begin.isPending.value || end.isPending.value" :disabled="entered.password === ''">{{
          state.isOn ? 'Ask for the password alone' : 'Begin with an authenticator'
        }}</el-button>
      </el-form>
    </template>
    <ErrorNote :error="begin.error.value ?? confirm.error.value ?? end.error.value" />
  </section>
</template>

<style scoped>
section {
  max-inline-size: 46ch;
}
.codes {
  columns: 2;
  list-style: none;
  padding: 0;
}
.secret {
  overflow-wrap: anywhere;
}
</style>
