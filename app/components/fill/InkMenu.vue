<script setup lang="ts">
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'
import { Ellipsis } from 'lucide-vue-next'
import { computed, ref } from 'vue'
import { exchangeInk, moveInk, removeInk, usesOf } from '#core/editing/edit-inks'
import type { Ink } from '#core/model/model'
import { linesOf } from '#core/model/queries'
import ColourPicker from '~/components/ui/ColourPicker.vue'
import NameField from '~/components/ui/NameField.vue'
import { useDrawingStore } from '~/stores/drawing'
import { useViewStore } from '~/stores/view'
import { usePlaced } from '~/workspace/use-placed'

/** What can be done with an ink: its colour and name, its place, its users, and its end. */
const props = defineProps<{ ink: Ink }>()
const store = useDrawingStore()
const view = useViewStore()
const others = computed(() => store.drawing!.inks.filter((i) => i.id !== props.ink.id))
const uses = computed(() => usesOf(store.drawing!, props.ink.id))
const to = ref('')
const other = computed(() => (others.value.some((i) => i.id === to.value) ? to.value : (others.value[0]?.id ?? '')))

function look(colour: string): void {
  store.change((draft) => {
    const ink = draft.inks.find((i) => i.id === props.ink.id)
    if (ink) ink.colour = colour
  })
}

const rename = (name: string): void =>
  store.edit(`Rename to ${name}`, (draft) => draft.inks.forEach((i) => void (i.id === props.ink.id && (i.name = name))))
const nameOf = (id: string): string => store.drawing!.inks.find((i) => i.id === id)?.name ?? ''
const recolour = (): void =>
  store.edit(`${props.ink.name} becomes ${nameOf(other.value)}`, (draft) =>
    exchangeInk(draft, props.ink.id, other.value),
  )
const swap = (): void =>
  store.edit(`Swap ${props.ink.name} and ${nameOf(other.value)}`, (draft) =>
    exchangeInk(draft, props.ink.id, other.value, true),
  )
const remove = (): void =>
  store.edit(`Remove ${props.ink.name}`, (draft) => removeInk(draft, props.ink.id, other.value))
const move = (by: number): void => store.edit(`Move ${props.ink.name}`, (draft) => moveInk(draft, props.ink.id, by))

function chooseLines(): void {
  const ids = linesOf(store.drawing!)
    .filter((l) => l.ink === props.ink.id)
    .map((l) => l.id)
  view.select(ids)
  if (!ids.length) store.notice = `No line has the ink ${props.ink.name}.`
}

const { anchor, panel, styles } = usePlaced('top-start')
</script>

<template>
  <Popover class="relative">
    <PopoverButton
      ref="anchor"
      class="quiet grid h-7 w-6 place-items-center"
      :aria-label="`Change ${ink.name}`"
      title="Colour, name, place, users"
      ><Ellipsis :size="15"
    /></PopoverButton>
    <PopoverPanel ref="panel" :style="styles" class="pop flex w-[560px] gap-4 p-4" :data-testid="`ink-${ink.id}`">
      <ColourPicker
        class="w-[250px] shrink-0"
        :colour="ink.colour"
        @look="look"
        @keep="store.finish(`Colour of ${ink.name}`)"
      />
      <div class="grid min-w-0 flex-1 content-start gap-2.5">
        <label class="flex items-center gap-2"
          >Name <NameField class="field min-w-0 flex-1" :value="ink.name" label="Name of the ink" @keep="rename"
        /></label>
        <p class="quiet">
          {{
            uses === 0
              ? 'Nothing has it yet'
              : uses === 1
                ? 'One line, shape or fill has it'
                : `${uses} lines, shapes and fills have it`
          }}.
        </p>
        <div class="flex gap-1.5">
          <button class="button" @click="move(-1)">Earlier</button>
          <button class="button" @click="move(1)">Later</button>
          <button class="button" @click="chooseLines">Choose its lines</button>
        </div>
        <template v-if="others.length">
          <label class="flex items-center gap-2"
            >With
            <select
              class="field min-w-0 flex-1"
              :value="other"
              aria-label="The other ink"
              @change="to = ($event.target as HTMLSelectElement).value"
            >
              <option v-for="o in others" :key="o.id" :value="o.id">{{ o.name }}</option>
            </select></label
          >
          <div class="flex flex-wrap gap-1.5">
            <button
              class="button"
              :disabled="!uses"
              title="Everything that has this ink gets the other"
              @click="recolour"
            >
              Give it all away
            </button>
            <button class="button" @click="swap">Swap</button>
            <button class="button" title="Its users get the other ink" @click="remove">Remove</button>
          </div>
        </template>
        <p v-else class="quiet">The last ink stays. Add another to swap or remove this one.</p>
      </div>
    </PopoverPanel>
  </Popover>
</template>
