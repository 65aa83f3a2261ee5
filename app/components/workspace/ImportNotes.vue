<script setup lang="ts">
import { X } from 'lucide-vue-next'
import { useImportNotesStore } from '~/stores/import-notes'

/** What came otherwise than its file has it: each with how often, and a way to see where. */
const told = useImportNotesStore()
</script>

<template>
  <section
    v-if="told.notes.length"
    class="absolute top-3 left-3 z-10 max-h-[60%] w-[340px] overflow-auto rounded-xl border border-hair bg-raise p-3 shadow-lg"
    aria-label="What came otherwise than in the file"
    data-testid="import-notes"
  >
    <header class="mb-1.5 flex items-center gap-2">
      <b class="font-[650]">It was brought in, but for this</b>
      <button
        class="quiet ml-auto rounded p-1"
        title="I have read it"
        aria-label="I have read it"
        @click="told.putAway()"
      >
        <X :size="14" />
      </button>
    </header>
    <ul class="grid gap-1.5">
      <li v-for="note in told.notes" :key="note.text" class="flex items-baseline gap-2">
        <span class="min-w-0 flex-1"
          >{{ note.text }}<span v-if="note.count > 1" class="quiet number"> · {{ note.count }} times</span></span
        >
        <button
          v-if="note.places.length"
          class="shrink-0 underline decoration-dotted hover:text-ink"
          :aria-label="`See where: ${note.text}`"
          @click="told.see(note)"
        >
          See where<template v-if="told.looked?.note === note && note.places.length > 1">
            ({{ told.looked.index + 1 }} of {{ note.places.length }})</template
          >
        </button>
      </li>
    </ul>
  </section>
</template>
