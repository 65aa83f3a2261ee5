<script setup lang="ts">
import { X } from 'lucide-vue-next'
import { computed, nextTick, ref, toRaw } from 'vue'
import { useDeliveryStore } from '~/stores/delivery'
import { useDrawingStore } from '~/stores/drawing'
import { useStudioStore } from '~/stores/studio'

/** Settings that were given a name, to be used again. */
const store = useDrawingStore()
const { preferences } = useStudioStore()
const delivery = useDeliveryStore()
const naming = ref(false)
const name = ref('')
const field = ref<HTMLInputElement>()

const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b)
const held = computed(() => preferences.deliveries.find((d) => same(d.settings, delivery.settings))?.name ?? '')

function take(e: Event): void {
  const { value } = e.target as HTMLSelectElement
  const taken = preferences.deliveries.find((d) => d.name === value)
  if (taken) preferences.delivery = structuredClone(toRaw(taken.settings))
}

async function startNaming(): Promise<void> {
  naming.value = true
  name.value = held.value
  await nextTick()
  field.value?.focus()
}

function keep(): void {
  const given = name.value.trim().slice(0, 40)
  naming.value = false
  if (!given) return
  const settings = structuredClone(toRaw(preferences.delivery))
  preferences.deliveries = [...preferences.deliveries.filter((d) => d.name !== given), { name: given, settings }]
  store.notice = `These settings are kept as "${given}".`
}

const forget = (): void => void (preferences.deliveries = preferences.deliveries.filter((d) => d.name !== held.value))
</script>

<template>
  <form v-if="naming" class="flex items-center gap-1.5" @submit.prevent="keep">
    <input
      ref="field"
      v-model="name"
      class="field min-w-0 flex-1"
      maxlength="40"
      placeholder="Name of these settings"
      aria-label="Name of these settings"
      @keydown.esc.stop="naming = false"
    />
    <button class="button" type="submit">Keep</button>
  </form>
  <div v-else class="flex items-center gap-2">
    <label class="flex min-w-0 flex-1 items-center gap-2">
      <span class="w-[54px] shrink-0">For</span>
      <select class="field min-w-0 flex-1" aria-label="Named settings" data-testid="named" :value="held" @change="take">
        <option value="">{{ held ? 'other settings' : 'as set here' }}</option>
        <option v-for="d in preferences.deliveries" :key="d.name" :value="d.name">{{ d.name }}</option>
      </select>
    </label>
    <button
      v-if="held"
      class="quiet shrink-0 hover:text-ink"
      :title="`Forget the settings ${held}`"
      :aria-label="`Forget the settings ${held}`"
      @click="forget"
    >
      <X :size="14" />
    </button>
    <button
      v-else
      class="quiet shrink-0 underline decoration-dotted hover:text-ink"
      title="Keep these settings under a name"
      @click="startNaming"
    >
      name
    </button>
  </div>
</template>
