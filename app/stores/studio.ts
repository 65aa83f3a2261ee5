import { defineStore } from 'pinia'
import { computed, toRaw } from 'vue'
import type { Weight } from '#core/model/model'
import { short } from '#core/geometry/path'
import { evenWeight } from '#core/model/create'
import type { NamedNib } from '#core/weight/nibs'
import { NIBS, pointOf } from '#core/weight/nibs'
import type { ShelfProfile } from '#core/weight/shelf'
import { withProfile } from '#core/weight/shelf'
import { DEFAULTS } from '~/instruments/preferences'
import { useRemembered } from './remembered'
import { useShelfStore } from './shelf'

/** Choices that stay with the person, across drawings. */
export const useStudioStore = defineStore('studio', () => {
  const shelf = useShelfStore()
  const preferences = useRemembered('studio', DEFAULTS)

  /** Lines to come have this profile, with its tapers. */
  function takeProfile({ id, start, end }: ShelfProfile): void {
    Object.assign(preferences, { profile: id, tapers: structuredClone({ start: toRaw(start), end: toRaw(end) }) })
  }

  /** The weight that the next line gets. */
  function nextWeight(): Weight {
    const profile = shelf.all.find((p) => p.id === preferences.profile) ?? shelf.all[0]!
    return {
      ...withProfile(evenWeight(preferences.size), profile),
      ...structuredClone(toRaw(preferences.tapers)),
      nib: pointOf(nib.value),
    }
  }

  /** What the next line gets, in words. */
  const nextInWords = computed(() => {
    const { start, end } = preferences.tapers
    const tapers =
      start && end ? ', tapers at both ends' : start ? ', a taper at the start' : end ? ', a taper at the end' : ''
    const shaped = pointOf(nib.value) ? `, shaped by the nib ${nib.value.name}` : ''
    return `${shelf.all.find((p) => p.id === preferences.profile)?.name ?? 'Even'}, ${short(preferences.size, 1)} px${tapers}${shaped}`
  })

  /** The nib in hand, as it was kept. */
  const kept = computed<NamedNib>(
    () => preferences.nibs.find((n) => n.id === preferences.nib) ?? preferences.nibs[0] ?? NIBS[0]!,
  )

  /** The nib in hand as the hand has set it since. */
  const nib = computed<NamedNib>(() => ({
    ...kept.value,
    size: preferences.size,
    variation: preferences.variation,
    ...(preferences.point ?? {}),
  }))
  const isTuned = computed(() => JSON.stringify(nib.value) !== JSON.stringify(kept.value))

  /** Changes the roundness or the angle of the nib in hand. */
  function setPoint(point: Partial<Pick<NamedNib, 'roundness' | 'angle'>>): void {
    const { roundness, angle } = nib.value
    preferences.point = { roundness, angle, ...point }
  }

  /** Keeps what was set in the nib in hand. */
  const keepNib = (): void => void Object.assign(kept.value, nib.value)

  /** Takes a nib in hand: lines to come have its size, variation and point. */
  function takeNib(id: string): void {
    const taken = preferences.nibs.find((n) => n.id === id)
    if (taken) Object.assign(preferences, { nib: id, size: taken.size, variation: taken.variation, point: null })
  }

  /** The next or previous nib. */
  function stepNib(by: 1 | -1): void {
    const { nibs } = preferences
    takeNib(nibs[(nibs.indexOf(kept.value) + by + nibs.length) % nibs.length]!.id)
  }

  /** The size of lines to come. */
  function takeSize(size: number): void {
    preferences.size = size
  }

  return {
    preferences,
    takeSize,
    takeProfile,
    nextWeight,
    nextInWords,
    nib,
    kept,
    isTuned,
    setPoint,
    keepNib,
    takeNib,
    stepNib,
  }
})
