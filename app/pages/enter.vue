<script setup lang="ts">
import { onMounted, ref } from 'vue'
import { enterDesk, sessionState } from '~/network/api'

/** Asks for the passphrase of the Desk, and goes on to where one wanted to. */
const pass = ref('')
const trouble = ref('')
const busy = ref(false)
const field = ref<HTMLInputElement>()

/** A place of this application; anything else is its Desk. */
function wanted(): string {
  const to = new URLSearchParams(globalThis.location.search).get('to') ?? '/'
  return /^\/(?![/\\])/.test(to) ? to : '/'
}

const goOn = (): void => globalThis.location.replace(wanted())

onMounted(async () => {
  document.title = 'Enter · Bellatrait'
  field.value?.focus()
  if ((await sessionState().catch(() => null))?.within) goOn()
})

async function enter(): Promise<void> {
  trouble.value = ''
  busy.value = true
  try {
    await enterDesk(pass.value)
    goOn()
  } catch (e) {
    trouble.value = (e as Error).message
    field.value?.select()
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <main class="grid h-full place-items-center p-4">
    <form class="grid w-[340px] max-w-full gap-3" @submit.prevent="enter">
      <img src="/mark.svg" alt="" class="h-10 w-10" />
      <h1 class="text-[18px] font-[650]">This Desk is locked</h1>
      <label class="grid gap-1"
        ><span class="text-mute-deep">Passphrase</span>
        <input
          ref="field"
          v-model="pass"
          class="field h-10"
          type="password"
          autocomplete="current-password"
          required
          maxlength="200"
          aria-describedby="pass-help"
      /></label>
      <p v-if="trouble" class="text-brick" role="alert">{{ trouble }}</p>
      <button class="button-strong" :disabled="busy">Enter</button>
      <p id="pass-help" class="quiet">
        Whoever started the server knows it. You stay within for 30 days in this browser.
      </p>
    </form>
  </main>
</template>
