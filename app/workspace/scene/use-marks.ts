import { withCopies } from '#core/repetition/with-copies'
import { seenLines } from '#core/model/queries'
import type { Ref } from 'vue'
import { computed } from 'vue'
import { findLine } from '#core/model/find'
import type { Vec } from '#core/geometry/point'
import type { Mark } from '~/canvas/marks'
import { toPage } from '~/canvas/viewport'
import { acrossAt } from '~/instruments/across'
import type { Instrument } from '~/instruments/instrument'
import { useDrawingStore } from '~/stores/drawing'
import { useHaloStore } from '~/stores/halo'
import { useImportNotesStore } from '~/stores/import-notes'
import { freshAxisMarks } from '~/instruments/axis-marks'
import { useCopiesStore } from '~/stores/copies'
import { useProofStore } from '~/stores/proof'
import { useViewStore } from '~/stores/view'

/** So many findings are marked on the drawing. */
const MOST_FINDINGS = 400

/** Everything that is marked on the drawing: by the instrument, and by the rest of the workspace. */
export function useMarks(
  instrument: Ref<Instrument | null>,
  waiting: Ref<Instrument | null>,
  hand: Ref<{ at: Vec; pressed: boolean } | null>,
): () => Mark[] {
  const store = useDrawingStore()
  const view = useViewStore()
  const halo = useHaloStore()
  const told = useImportNotesStore()
  const proof = useProofStore()
  const copies = useCopiesStore()

  const findings = computed(() => proof.open.slice(0, MOST_FINDINGS).map((f) => f.at))
  const finding = computed(() =>
    proof.current === null ? null : (proof.open.find((f) => f.key === proof.current)?.at ?? null),
  )

  /** Where the pointer is in the weight graph. */
  function placeMarks(): Mark[] {
    const line = view.pass === 'weight' && view.place && findLine(store.drawing!, view.place.line)?.line
    if (!line) return []
    const { centre, normal } = acrossAt(line, view.place!.at)
    return [{ kind: 'place', at: centre, across: normal }]
  }

  /** What there is to look at, while Proof is seen. */
  const findingMarks = (): Mark[] =>
    view.folds.column || view.pass === 'deliver' || view.instrument === 'front' || !findings.value.length
      ? []
      : [{ kind: 'findings', at: findings.value, current: finding.value }]

  const haloMarks = (): Mark[] => (halo.strays.length ? [{ kind: 'halo', strays: halo.strays }] : [])

  /** Where something came otherwise than its file has it. */
  function importMarks(): Mark[] {
    const box = told.place
    return box ? [{ kind: 'box', from: { x: box.minX, y: box.minY }, to: { x: box.maxX, y: box.maxY } }] : []
  }

  /** The hand that keys move. */
  const handMarks = (): Mark[] =>
    hand.value ? [{ kind: 'hand', at: toPage(view.viewport, hand.value.at), pressed: hand.value.pressed }] : []

  /** Centrelines alone, where no ink is seen. */
  function bareMarks(): Mark[] {
    if (!view.bare || view.showsShapes) return []
    const paths = seenLines(withCopies(store.drawing!)).map((line) => line.path)
    return [{ kind: 'paths', paths, tone: 'mute' }]
  }

  /** The line that is pointed at in a list. */
  function listedMarks(): Mark[] {
    const line = view.listedOver && findLine(store.drawing!, view.listedOver)?.line
    return line ? [{ kind: 'paths', paths: [line.path], tone: 'strong' }] : []
  }

  /** Where what is drawn is mirrored at, or repeated about. */
  const axisMarks = (): Mark[] =>
    view.pass === 'lines' && view.instrument !== 'mirror' && copies.rules.length
      ? freshAxisMarks(copies.rules, store.drawing!.page)
      : []

  /** What waits is seen, and not taken hold of. */
  const waitingMarks = (): Mark[] => (waiting.value?.marks() ?? []).filter((m) => m.kind === 'paths')

  return () => [
    ...bareMarks(),
    ...axisMarks(),
    ...waitingMarks(),
    ...(instrument.value?.marks() ?? []),
    ...listedMarks(),
    ...placeMarks(),
    ...haloMarks(),
    ...importMarks(),
    ...findingMarks(),
    ...handMarks(),
  ]
}
