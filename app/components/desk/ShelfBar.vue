<script setup lang="ts">
import { Plus, Pencil, X } from 'lucide-vue-next'
import { computed, ref } from 'vue'
import type { Shelf } from '#shared/desk'
import { LONGEST_SHELF_NAME } from '#shared/desk'
import { useDeskStore } from '~/stores/desk'
import type { OnShelf } from '~/workspace/use-desk-list'
import RenameField from '~/components/ui/RenameField.vue'

/** The shelves of the Desk: which one is looked at, and their names. */
const shelf = defineModel<OnShelf>({ required: true })
const desk = useDeskStore()

/** The shelf whose name is being written; `new` for one that is not there yet. */
const naming = ref<string | null>(null)

const countOf = (id: string | null): number => desk.laid.filter((c) => c.shelf === id).length
const tabs = computed(() => [
  { id: 'all', title: 'All', count: desk.laid.length, shelf: null as Shelf | null },
  ...desk.shelves.map((s) => ({ id: s.id, title: s.name, count: countOf(s.id), shelf: s as Shelf | null })),
  ...(desk.shelves.length && countOf(null)
    ? [{ id: 'none', title: 'On no shelf', count: countOf(null), shelf: null }]
    : []),
])

const setUp = async (name: string): Promise<void> => void (shelf.value = (await desk.newShelf(name)) ?? shelf.value)
</script>

<template>
  <nav class="mb-5 flex flex-wrap items-center gap-1.5" aria-label="Shelves">
    <template v-for="t in tabs" :key="t.id">
      <RenameField
        v-if="naming === t.id"
        class="w-[150px]"
        :value="t.title"
        label="Name of the shelf"
        :longest="LONGEST_SHELF_NAME"
        @keep="desk.nameShelf(t.id, $event)"
        @close="naming = null"
      />
      <span
        v-else
        class="flex items-center rounded-full border"
        :class="shelf === t.id ? 'border-plum bg-blush' : 'border-hair bg-raise hover:border-mute'"
      >
        <button class="max-w-[220px] truncate py-1 pl-3 pr-3" :aria-pressed="shelf === t.id" @click="shelf = t.id">
          {{ t.title }} <span class="number text-mute-deep">{{ t.count }}</span>
        </button>
        <template v-if="t.shelf && shelf === t.id">
          <button
            class="rounded-full p-1 text-mute-deep hover:text-ink"
            :aria-label="`Rename the shelf ${t.title}`"
            title="Rename this shelf"
            @click="naming = t.id"
          >
            <Pencil :size="13" />
          </button>
          <button
            class="mr-1.5 rounded-full p-1 text-mute-deep hover:text-ink"
            :aria-label="`Take the shelf ${t.title} down`"
            title="Take this shelf down; its drawings stay"
            @click="desk.takeShelfDown(t.shelf)"
          >
            <X :size="13" />
          </button>
        </template>
      </span>
    </template>
    <RenameField
      v-if="naming === 'new'"
      class="w-[150px]"
      value=""
      label="Name of the shelf"
      :longest="LONGEST_SHELF_NAME"
      placeholder="A class, a client"
      @keep="setUp"
      @close="naming = null"
    />
    <button
      v-else
      class="flex items-center gap-1 rounded-full px-2.5 py-1 text-mute-deep hover:text-ink"
      title="A shelf for a class or a client"
      @click="naming = 'new'"
    >
      <Plus :size="14" /> Shelf
    </button>
  </nav>
</template>
