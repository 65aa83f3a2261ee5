<script setup lang="ts">
import { FIGURES } from '#core/editing/figures'
import ChoiceField from '~/components/ui/ChoiceField.vue'
import PercentField from '~/components/ui/PercentField.vue'
import SliderField from '~/components/ui/SliderField.vue'
import { useStudioStore } from '~/stores/studio'

const KINDS = FIGURES.map((id) => ({ id, title: id[0]!.toUpperCase() + id.slice(1) }))

const { figure } = useStudioStore().preferences
</script>

<template>
  <ChoiceField v-model="figure.kind" label="Figure" :choices="KINDS" class="col-span-2" />
  <SliderField
    v-if="figure.kind === 'polygon' || figure.kind === 'star'"
    :label="figure.kind === 'star' ? 'Points' : 'Sides'"
    :value="figure.sides"
    :min="3"
    :max="24"
    :step="1"
    @look="(v) => (figure.sides = v)"
    @keep="(v) => (figure.sides = Math.round(v))"
  />
  <PercentField v-if="figure.kind === 'star'" v-model="figure.depth" label="Inner points" :min="10" :max="95" />
  <SliderField
    v-if="figure.kind === 'spiral'"
    label="Turns"
    :value="figure.turns"
    :min="0.5"
    :max="12"
    :step="0.25"
    :digits="2"
    @look="(v) => (figure.turns = v)"
    @keep="(v) => (figure.turns = v)"
  />
</template>
