<script setup lang="ts">
import { ref } from 'vue'
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'
import { ArrowDown, ArrowUp, Copy, LibraryBig, Pencil, Trash2 } from 'lucide-vue-next'
import { readProfiles } from '#core/formats/profiles/read-profiles'
import { writeProfiles } from '#core/formats/profiles/write-profiles'
import { useDrawingStore } from '~/stores/drawing'
import { useShelfStore } from '~/stores/shelf'
import { useStudioStore } from '~/stores/studio'
import { download } from '~/network/download'
import { useChosenLines } from '~/workspace/use-chosen-lines'
import RenameField from '~/components/ui/RenameField.vue'
import { usePlaced } from '~/workspace/use-placed'

/** The shelf of own profiles: keep, rename, duplicate, order, delete, share and bring in. */
const LARGEST_FILE = 4 * 1024 * 1024

const store = useDrawingStore()
const shelf = useShelfStore()
const studio = useStudioStore()
const chosen = useChosenLines()

const naming = ref<string | null>(null)
const picker = ref<HTMLInputElement>()

function keep(): void {
  const id = shelf.keep(chosen.lines.value[0]!.weight)
  if (!id) return
  const profile = shelf.own.find((p) => p.id === id)!
  studio.takeProfile(profile)
  naming.value = profile.id
}

const share = (): void => download(new Blob([writeProfiles(shelf.own)], { type: 'application/json' }), 'profiles.json')

async function bringIn(e: Event): Promise<void> {
  const input = e.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (!file) return
  try {
    if (file.size > LARGEST_FILE)
      throw new Error(`"${file.name}" is larger than 4 MB, too large for a file of profiles.`)
    const profiles = readProfiles(await file.text())
    const n = shelf.add(profiles).length
    if (n) store.notice = n === 1 ? `"${profiles[0]!.name}" is on the shelf.` : `${n} profiles are on the shelf.`
  } catch (error) {
    store.notice = (error as Error).message
  }
}

const { anchor, panel, styles } = usePlaced('top-start')
</script>

<template>
  <Popover class="relative shrink-0">
    <PopoverButton
      ref="anchor"
      class="grid h-[30px] w-8 place-items-center rounded-[7px] border border-hair bg-raise hover:border-mute"
      title="Own profiles: keep, share, bring in"
      aria-label="Own profiles"
      ><LibraryBig :size="15" :stroke-width="1.7"
    /></PopoverButton>
    <PopoverPanel ref="panel" :style="styles" class="pop grid w-[360px] gap-2 p-3" data-testid="shelf-menu">
      <p v-if="!shelf.own.length" class="quiet px-1">
        No own profiles yet. Choose a line whose thick and thin you like, and keep it.
      </p>
      <ul v-else class="max-h-[230px] overflow-auto">
        <li
          v-for="(p, i) in shelf.own"
          :key="p.id"
          class="flex items-center gap-0.5 rounded-lg px-1 py-0.5 hover:bg-blush"
        >
          <RenameField
            v-if="naming === p.id"
            class="min-w-0 flex-1"
            :value="p.name"
            label="Name of the profile"
            :longest="60"
            @keep="shelf.rename(p.id, $event)"
            @close="naming = null"
          />
          <span v-else class="min-w-0 flex-1 truncate" @dblclick="naming = p.id">{{ p.name }}</span>
          <button class="quiet rounded p-1" :aria-label="`Rename ${p.name}`" title="Rename" @click="naming = p.id">
            <Pencil :size="13" />
          </button>
          <button
            class="quiet rounded p-1"
            :aria-label="`Duplicate ${p.name}`"
            title="Duplicate"
            @click="shelf.add([p])"
          >
            <Copy :size="13" />
          </button>
          <button
            class="quiet rounded p-1 disabled:opacity-30"
            :aria-label="`Move ${p.name} up`"
            title="Move up"
            :disabled="i === 0"
            @click="shelf.move(p.id, -1)"
          >
            <ArrowUp :size="13" />
          </button>
          <button
            class="quiet rounded p-1 disabled:opacity-30"
            :aria-label="`Move ${p.name} down`"
            title="Move down"
            :disabled="i === shelf.own.length - 1"
            @click="shelf.move(p.id, 1)"
          >
            <ArrowDown :size="13" />
          </button>
          <button class="quiet rounded p-1" :aria-label="`Delete ${p.name}`" title="Delete" @click="shelf.remove(p.id)">
            <Trash2 :size="13" />
          </button>
        </li>
      </ul>
      <div class="flex flex-wrap gap-1.5">
        <button
          class="button"
          :disabled="!chosen.lines.value.length"
          :title="chosen.lines.value.length ? 'Keep the thick and thin of the chosen line' : 'Choose a line first'"
          @click="keep"
        >
          Keep as a profile
        </button>
        <button class="button" :disabled="!shelf.own.length" title="All own profiles as a JSON file" @click="share">
          Share …
        </button>
        <button class="button" title="Profiles from a JSON file" @click="picker?.click()">Bring in …</button>
        <input
          ref="picker"
          type="file"
          accept=".json,application/json"
          class="hidden"
          data-testid="profile-picker"
          @change="bringIn"
        />
      </div>
    </PopoverPanel>
  </Popover>
</template>
