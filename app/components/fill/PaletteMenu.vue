<script setup lang="ts">
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'
import { ref } from 'vue'
import { addInk } from '#core/editing/edit-inks'
import { fileNameOf } from '#core/formats/file-name'
import type { KeptPalette } from '#core/formats/palettes/palettes'
import { readPalette, writePalette } from '#core/formats/palettes/palettes'
import { useDrawingStore } from '~/stores/drawing'
import { useStudioStore } from '~/stores/studio'
import { download } from '~/network/download'
import { usePlaced } from '~/workspace/use-placed'

/** Palettes that are kept in the studio, and shared as files. */
const store = useDrawingStore()
const { preferences } = useStudioStore()
const picker = ref<HTMLInputElement>()
const own = (): KeptPalette => ({
  name: store.drawing!.name,
  inks: store.drawing!.inks.map(({ name, colour }) => ({ name, colour })),
})

function keep(): void {
  preferences.palettes = [...preferences.palettes.filter((p) => p.name !== own().name), own()]
  store.notice = `The inks of "${store.drawing!.name}" are kept as a palette.`
}

/** Inks of a palette that the drawing does not have come to it. */
function take({ name, inks }: KeptPalette): void {
  const fresh = inks.filter(
    (i) => !store.drawing!.inks.some((own) => own.colour.toLowerCase() === i.colour.toLowerCase()),
  )
  if (!fresh.length) store.notice = `This drawing has all inks of "${name}" already.`
  else store.edit(`Inks of ${name}`, (draft) => fresh.forEach((i) => addInk(draft, i)))
}

async function bringIn(e: Event): Promise<void> {
  const field = e.target as HTMLInputElement
  const file = field.files?.[0]
  field.value = ''
  if (!file) return
  try {
    const palette = readPalette(await file.text())
    preferences.palettes = [...preferences.palettes.filter((p) => p.name !== palette.name), palette]
    take(palette)
  } catch (error) {
    store.notice = (error as Error).message
  }
}

const share = (palette: KeptPalette): void =>
  download(new Blob([writePalette(palette)], { type: 'application/json' }), `${fileNameOf(palette.name)}.inks.json`)
const forget = (name: string): void => void (preferences.palettes = preferences.palettes.filter((p) => p.name !== name))

const { anchor, panel, styles } = usePlaced('top-start')
</script>

<template>
  <Popover class="relative">
    <PopoverButton ref="anchor" class="quiet h-6" title="Keep these inks, take others, share them as a file"
      >Palettes</PopoverButton
    >
    <PopoverPanel ref="panel" :style="styles" class="pop grid w-[400px] gap-2 p-4">
      <div class="flex flex-wrap gap-1.5">
        <button class="button" @click="keep">Keep these inks</button>
        <button class="button" @click="share(own())">Share as a file</button>
        <button class="button" @click="picker?.click()">Bring a file in</button>
        <input
          ref="picker"
          type="file"
          accept=".json,application/json"
          class="hidden"
          data-testid="palette-picker"
          @change="bringIn"
        />
      </div>
      <ul v-if="preferences.palettes.length" class="grid max-h-[240px] gap-1 overflow-y-auto">
        <li v-for="p in preferences.palettes" :key="p.name" class="flex items-center gap-2">
          <button
            class="flex h-7 min-w-0 flex-1 items-center gap-2 rounded-[6px] px-1.5 text-left hover:bg-panel"
            :title="`Take the inks of ${p.name}`"
            @click="take(p)"
          >
            <span class="truncate">{{ p.name }}</span>
            <span class="ml-auto flex shrink-0"
              ><span
                v-for="i in p.inks.slice(0, 10)"
                :key="i.name + i.colour"
                class="h-4 w-4 border border-hair"
                :style="{ background: i.colour }"
                aria-hidden="true"
            /></span>
          </button>
          <button class="quiet h-6" @click="forget(p.name)">Forget</button>
        </li>
      </ul>
      <p v-else class="quiet">No palettes are kept yet. Keep the inks of this drawing, and take them in the next.</p>
    </PopoverPanel>
  </Popover>
</template>
