<script setup lang="ts">
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/vue'
import { Check, Ellipsis, PenLine } from 'lucide-vue-next'
import { computed, nextTick, ref } from 'vue'
import type { DrawingCard } from '#shared/desk'
import { sizeOf } from '~/network/api'
import { useDeskStore } from '~/stores/desk'
import { useSeatsStore } from '~/stores/seats'
import { inBytes } from '~/workspace/in-bytes'
import { passOf } from '~/catalogue/passes'
import RenameField from '~/components/ui/RenameField.vue'
import SeatDot from './SeatDot.vue'
import { usePlaced } from '~/workspace/use-placed'

const props = defineProps<{
  card: DrawingCard
  /** The name of its shelf, where that is worth telling. */ shelf?: string | undefined
  chosen: boolean
  choosing: boolean
}>()
const emit = defineEmits<{ choose: [toHere: boolean]; deliver: []; handOut: [] }>()

const desk = useDeskStore()
const seats = useSeatsStore()
/** Whose it is, where there are several people. */
const whose = computed(() => (seats.several && props.card.seat ? (seats.of.get(props.card.seat) ?? null) : null))
const naming = ref(false)
const size = ref<number | null>(null)

const when = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' })

async function duplicate(history: boolean): Promise<void> {
  const id = await desk.duplicate(props.card, history)
  await nextTick()
  if (id) document.querySelector<HTMLElement>(`[data-testid=card] a[href="/drawings/${id}"]`)?.focus()
}

const weigh = (): Promise<void> =>
  sizeOf(props.card.id).then(
    ({ bytes }) => void (size.value = bytes),
    () => undefined,
  )

const proof = computed(() => {
  const { findings } = props.card
  if (findings === null) return null
  return findings
    ? { text: `${findings} to look at`, colour: 'text-amber-deep', clean: false }
    : { text: 'Proof is clean', colour: 'text-moss', clean: true }
})

const ITEMS = computed(() => [
  { title: 'Rename', hint: 'F2', run: () => (naming.value = true) },
  { title: 'Duplicate', hint: 'as it is now', run: () => duplicate(false) },
  { title: 'Duplicate with history', hint: '', run: () => duplicate(true) },
  props.card.template
    ? { title: 'No template any more', hint: '', run: () => desk.act([props.card.id], 'no template') }
    : { title: 'Use as a template', hint: 'to start from', run: () => desk.act([props.card.id], 'template') },
  { title: 'Deliver as zip …', hint: '', run: () => emit('deliver') },
  ...(seats.several ? [{ title: 'Hand out as a task …', hint: 'a copy each', run: () => emit('handOut') }] : []),
])

const { anchor, panel, styles } = usePlaced('top-end')
</script>

<template>
  <li
    class="group relative rounded-2xl border bg-raise shadow-[0_14px_34px_-26px_#0008]"
    :class="chosen ? 'border-plum ring-1 ring-plum' : 'border-hair'"
    data-testid="card"
    :data-id="card.id"
    @keydown.f2.prevent="naming = true"
  >
    <NuxtLink :to="`/drawings/${card.id}`" class="block rounded-t-2xl bg-paper p-4" :aria-label="`Open ${card.name}`">
      <img
        :src="`/api/drawings/${card.id}/thumbnail?revision=${card.revision}`"
        loading="lazy"
        class="h-[180px] w-full object-contain transition-transform group-hover:scale-[1.02]"
        alt=""
      />
    </NuxtLink>
    <button
      class="absolute left-2.5 top-2.5 grid h-6 w-6 place-items-center rounded-lg border"
      :class="[
        chosen ? 'border-plum bg-plum text-white' : 'border-hair bg-raise text-transparent',
        choosing || chosen
          ? ''
          : 'opacity-0 focus-visible:opacity-100 group-focus-within:opacity-100 group-hover:opacity-100',
      ]"
      role="checkbox"
      :aria-checked="chosen"
      :aria-label="`Choose ${card.name}`"
      title="Choose (Space); with Shift up to here"
      @click="(e) => emit('choose', e.shiftKey)"
    >
      <Check :size="15" />
    </button>
    <span
      v-if="card.template"
      class="absolute right-2.5 top-2.5 rounded-full bg-blush px-2 py-0.5 text-[12px] text-plum"
      >Template</span
    >
    <div class="flex items-center gap-2 border-t border-hair px-4 py-2.5">
      <div class="min-w-0 flex-1">
        <RenameField
          v-if="naming"
          class="w-full"
          :value="card.name"
          label="Name of the drawing"
          @keep="desk.rename(card, $event)"
          @close="naming = false"
        />
        <p v-else class="flex items-center gap-1 text-[14px] font-[650]">
          <NuxtLink :to="`/drawings/${card.id}`" class="truncate hover:underline" :title="card.name">{{
            card.name
          }}</NuxtLink>
          <button
            class="quiet shrink-0 rounded p-0.5 opacity-0 focus-visible:opacity-100 group-focus-within:opacity-100 group-hover:opacity-100"
            :title="`Rename ${card.name} (F2)`"
            :aria-label="`Rename ${card.name}`"
            @click="naming = true"
          >
            <PenLine :size="13" />
          </button>
        </p>
        <p class="quiet truncate text-[12px]" :title="whose?.name">
          <span class="number">{{ card.lineCount }}</span> {{ card.lineCount === 1 ? 'line' : 'lines' }} ·
          {{ when.format(new Date(card.updatedAt)) }}<template v-if="shelf"> · {{ shelf }}</template>
          <template v-if="whose">
            · <SeatDot :colour="whose.colour" /> <span data-testid="whose">{{ whose.name }}</span></template
          >
        </p>
        <p class="truncate text-[12px] text-mute-deep" data-testid="card-state">
          {{ passOf(card.pass).title }}<span v-if="proof" :class="proof.colour"> · {{ proof.text }}</span>
        </p>
      </div>
      <Menu as="div" class="relative">
        <MenuButton
          ref="anchor"
          class="quiet rounded-lg p-1.5 hover:bg-panel"
          :aria-label="`More for ${card.name}`"
          @click="weigh"
          ><Ellipsis :size="17"
        /></MenuButton>
        <MenuItems ref="panel" :style="styles" class="pop w-60 p-1">
          <MenuItem v-for="item in ITEMS" :key="item.title" v-slot="{ active }">
            <button
              class="flex w-full items-baseline justify-between rounded-lg px-2.5 py-1.5 text-left"
              :class="active ? 'bg-panel' : ''"
              @click="item.run()"
            >
              {{ item.title }}<span class="quiet text-[12px]">{{ item.hint }}</span>
            </button>
          </MenuItem>
          <MenuItem v-slot="{ active }"
            ><button
              class="w-full rounded-lg px-2.5 py-1.5 text-left text-brick"
              :class="active ? 'bg-panel' : ''"
              @click="desk.intoBin([card.id])"
            >
              Into the bin
            </button></MenuItem
          >
          <p class="mt-1 border-t border-hair px-2.5 py-1.5 text-[12px] text-mute-deep">
            On disk, with its history: <span class="number">{{ size === null ? '…' : inBytes(size) }}</span>
          </p>
        </MenuItems>
      </Menu>
    </div>
  </li>
</template>
