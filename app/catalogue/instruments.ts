import type { Component } from 'vue'
import {
  ArrowDownToLine,
  BowArrow,
  CircleDot,
  FoldHorizontal,
  CornerUpRight,
  Crop,
  Diamond,
  Droplet,
  Droplets,
  Eclipse,
  Fence,
  FlipHorizontal2,
  MoveHorizontal,
  MousePointer2,
  Move,
  PaintRoller,
  Palette,
  PencilLine,
  PocketKnife,
  ScanLine,
  ScanSearch,
  Scissors,
  Shapes,
  Signature,
  Slice,
  Spline,
  SquareStack,
  Sun,
  SunMedium,
  Tablet,
  UnfoldVertical,
  Waypoints,
  Waves,
} from 'lucide-vue-next'
import { Blot } from '~/instruments/blot'
import { Bow } from '~/instruments/bow'
import { Caliper } from '~/instruments/caliper'
import { Corner } from '~/instruments/corner'
import { Front } from '~/instruments/front'
import { Contact } from '~/instruments/contact'
import { CropSketch } from '~/instruments/crop-sketch'
import { Fence as FenceInstrument } from '~/instruments/fence'
import { Figure } from '~/instruments/figure'
import { Flats } from '~/instruments/flats'
import { Freehand } from '~/instruments/freehand'
import { Glow } from '~/instruments/glow'
import { Inspect } from '~/instruments/inspect'
import type { Instrument } from '~/instruments/instrument'
import type { Worktop } from '~/instruments/worktop'
import { LevelSketch } from '~/instruments/level-sketch'
import { Light } from '~/instruments/light'
import { Mirror } from '~/instruments/mirror'
import { Match } from '~/instruments/match'
import { Nodes } from '~/instruments/nodes'
import { OutlineNodes } from '~/instruments/outline-nodes'
import { PaperCorners } from '~/instruments/paper-corners'
import { Pen } from '~/instruments/pen'
import { PlaceSketch } from '~/instruments/place-sketch'
import { Pour } from '~/instruments/pour'
import { Practice } from '~/instruments/practice'
import { Settle } from '~/instruments/settle'
import { Shade } from '~/instruments/shade'
import { Push } from '~/instruments/push'
import { Propose } from '~/instruments/propose'
import { Scrape } from '~/instruments/scrape'
import { Select } from '~/instruments/select'
import { Snip } from '~/instruments/snip'
import { Sweep } from '~/instruments/sweep'
import { Trim } from '~/instruments/trim'
import type { PassName } from './passes'

/** All that the workspace knows of an instrument. */
export interface InstrumentDescription {
  id: string
  title: string
  icon: Component
  /** What it is for, in a few words. */
  help: string
  passes: readonly PassName[]
  /** It can be called up in Lines, where it has no place in the tray; the command that does. */
  calledBy?: 'fronts' | 'mirror-lines' | 'push'
  make: new (worktop: Worktop) => Instrument
  /** It works on the derived outlines rather than on the lines. */
  onOutlines?: true
  /**
   * The component of what it has to set, in `components/`, in place of all that the strip would show; beside the size of
   * lines, in Lines, where `sized` says so.
   */
  strip?: string
  sized?: true
  /** Its settings need the width of the whole strip. */
  wide?: true
  /** It lays the next line, whose weight the strip tells. */
  lays?: true
  /** It draws points to places. */
  snaps?: true
  /** What it moves comes in line with what lies near, where that is switched on. */
  aligns?: true
  /** What the strip speaks of while no line is chosen, where that is not the next line. */
  speaksOf?: string
}

/** Every instrument, in the order of the trays: a pass shows those that are of it, six to a row. */
const INSTRUMENTS: readonly InstrumentDescription[] = [
  {
    id: 'place',
    title: 'Place',
    icon: Move,
    help: 'move, scale and turn the sketch',
    passes: ['sketch'],
    make: PlaceSketch,
  },
  {
    id: 'level',
    title: 'Level',
    icon: MoveHorizontal,
    help: 'turn the sketch by a line along what should be level',
    passes: ['sketch'],
    make: LevelSketch,
  },
  {
    id: 'paper',
    title: 'Corners',
    icon: ScanLine,
    help: 'set a photo right by the four corners of the sheet',
    passes: ['sketch'],
    make: PaperCorners,
  },
  {
    id: 'crop',
    title: 'Crop',
    icon: Crop,
    help: 'keep only a part of the sketch',
    passes: ['sketch'],
    make: CropSketch,
  },
  {
    id: 'select',
    title: 'Select',
    icon: MousePointer2,
    help: 'choose lines, move, scale, turn and delete them',
    passes: ['lines', 'weight', 'shapes', 'fill'],
    make: Select,
    strip: 'lines/SelectSection',
    aligns: true,
    sized: true,
    lays: true,
  },
  {
    id: 'pen',
    title: 'Pen',
    icon: Spline,
    help: 'lay a line node by node',
    passes: ['lines'],
    make: Pen,
    strip: 'lines/PenSection',
    sized: true,
    lays: true,
    snaps: true,
  },
  {
    id: 'bow',
    title: 'Bow',
    icon: BowArrow,
    help: 'draw a straight chord, then pull it into a bow',
    passes: ['lines'],
    make: Bow,
    strip: 'lines/BowSection',
    sized: true,
    lays: true,
    snaps: true,
  },
  {
    id: 'freehand',
    title: 'Freehand',
    icon: Signature,
    help: 'just draw; the line comes out smooth',
    passes: ['lines'],
    make: Freehand,
    strip: 'lines/FreehandSection',
    wide: true,
  },
  {
    id: 'inspect',
    title: 'Inspect',
    icon: ScanSearch,
    help: 'see a shape and its nodes',
    passes: ['shapes'],
    make: Inspect,
  },
  {
    id: 'outline',
    title: 'Retouch',
    icon: PencilLine,
    help: 'move single nodes of an outline',
    passes: ['shapes'],
    make: OutlineNodes,
    onOutlines: true,
  },
  {
    id: 'caliper',
    title: 'Caliper',
    icon: UnfoldVertical,
    help: 'pull a line wider or thinner where you like',
    passes: ['weight'],
    make: Caliper,
  },
  {
    id: 'nodes',
    title: 'Nodes',
    icon: Diamond,
    help: 'move the nodes and handles of a line',
    passes: ['lines', 'weight', 'shapes'],
    make: Nodes,
    strip: 'lines/NodesSection',
    wide: true,
    snaps: true,
    speaksOf: 'Nodes',
  },
  {
    id: 'trim',
    title: 'Trim',
    icon: Slice,
    help: 'take a piece of a line away where others divide it',
    passes: ['shapes'],
    make: Trim,
    strip: 'shapes/TrimSection',
    speaksOf: 'Trim',
  },
  {
    id: 'fence',
    title: 'Fence',
    icon: Fence,
    help: 'trim all that sticks out beyond some lines',
    passes: ['shapes'],
    make: FenceInstrument,
    strip: 'shapes/FenceSection',
  },
  {
    id: 'corner',
    title: 'Corner',
    icon: CornerUpRight,
    help: 'finish corners: pointed, rounded, tucked, crossing over',
    passes: ['shapes'],
    make: Corner,
    strip: 'shapes/CornerSection',
  },
  {
    id: 'front',
    title: 'Front',
    icon: SquareStack,
    help: 'say which forms lie in front: what is behind is hidden',
    passes: ['shapes'],
    calledBy: 'fronts',
    make: Front,
    strip: 'shapes/FrontSection',
  },
  {
    id: 'mirror',
    title: 'Mirror',
    icon: FoldHorizontal,
    help: 'draw one side and the other follows, or repeat about a point',
    passes: [],
    calledBy: 'mirror-lines',
    make: Mirror,
    strip: 'lines/MirrorSection',
    speaksOf: 'Mirror',
  },
  {
    id: 'push',
    title: 'Push',
    icon: Waves,
    help: 'bend several lines at once, softly',
    passes: [],
    calledBy: 'push',
    make: Push,
    strip: 'lines/PushSection',
    speaksOf: 'Push',
  },
  {
    id: 'pour',
    title: 'Pour',
    icon: Droplets,
    help: 'fill a closed region with the ink in hand',
    passes: ['fill'],
    make: Pour,
  },
  {
    id: 'shade',
    title: 'Shade',
    icon: Eclipse,
    help: 'draw shade and light that stay within their fill',
    passes: ['fill'],
    make: Shade,
    strip: 'fill/ShadeSection',
  },
  {
    id: 'flats',
    title: 'Flats',
    icon: Palette,
    help: 'fills for all regions at once, to be changed one by one',
    passes: ['fill'],
    make: Flats,
    strip: 'fill/FlatsSection',
  },
  {
    id: 'glow',
    title: 'Glow',
    icon: SunMedium,
    help: 'shade and light on fills as they follow from the light',
    passes: ['fill'],
    make: Glow,
    strip: 'fill/GlowSection',
  },
  {
    id: 'figure',
    title: 'Figure',
    icon: Shapes,
    help: 'ellipses, polygons, stars, spirals',
    passes: ['lines'],
    make: Figure,
    strip: 'lines/FigureSection',
    sized: true,
    lays: true,
    snaps: true,
  },
  {
    id: 'snip',
    title: 'Snip',
    icon: Scissors,
    help: 'hide the part of a line beyond a crossing',
    passes: ['lines'],
    make: Snip,
    strip: 'lines/SnipSection',
    speaksOf: 'Snip',
  },
  {
    id: 'blot',
    title: 'Blot',
    icon: Droplet,
    help: 'a brush that paints a solid shape',
    passes: ['lines'],
    make: Blot,
    strip: 'lines/BlotSection',
    speaksOf: 'Blot',
  },
  {
    id: 'scrape',
    title: 'Scrape',
    icon: PocketKnife,
    help: 'an eraser that carves ink away',
    passes: ['lines'],
    make: Scrape,
    strip: 'lines/ScrapeSection',
    speaksOf: 'Scrape',
  },
  {
    id: 'practice',
    title: 'Practice',
    icon: Tablet,
    help: 'a recorded pen plays a stroke with real pressure',
    passes: ['lines'],
    make: Practice,
    strip: 'lines/PracticeSection',
    speaksOf: 'Practice',
  },
  {
    id: 'propose',
    title: 'Propose',
    icon: Waypoints,
    help: 'lines found in the sketch, to be taken one by one',
    passes: ['lines'],
    make: Propose,
    strip: 'lines/ProposeSection',
    speaksOf: 'Proposals',
  },
  {
    id: 'settle',
    title: 'Settle',
    icon: ArrowDownToLine,
    help: 'draw lines onto the pencil beneath them',
    passes: ['lines'],
    make: Settle,
    strip: 'lines/SettleSection',
    wide: true,
    speaksOf: 'Settle',
  },
  {
    id: 'contact',
    title: 'Contact',
    icon: CircleDot,
    help: 'taper ends in the open, fill those that meet a line',
    passes: ['weight'],
    make: Contact,
    strip: 'weight/ContactSection',
  },
  {
    id: 'light',
    title: 'Light',
    icon: Sun,
    help: 'thin edges towards a light, thick ones away from it',
    passes: ['weight'],
    make: Light,
    strip: 'weight/LightSection',
  },
  {
    id: 'sweep',
    title: 'Sweep',
    icon: PaintRoller,
    help: 'paint a copied weight on other lines',
    passes: ['weight'],
    make: Sweep,
    strip: 'weight/SweepSection',
  },
  {
    id: 'match',
    title: 'Match',
    icon: FlipHorizontal2,
    help: 'give both sides of a body the same weights',
    passes: ['weight'],
    make: Match,
    strip: 'weight/MatchSection',
  },
]

export const instrumentOf = (id: string): InstrumentDescription | undefined => INSTRUMENTS.find((i) => i.id === id)

/** The keys of a row of the tray; with Shift, those of the second row. */
export const TRAY_KEYS = ['q', 'w', 'e', 'r', 't', 'y'] as const

/** The instruments of a pass by their place in the tray. */
export const trayOf = (pass: PassName): readonly InstrumentDescription[] =>
  INSTRUMENTS.filter((i) => i.passes.includes(pass))

/** The instrument at a key of the tray. */
export function instrumentAt(pass: PassName, key: string, shift: boolean): InstrumentDescription | undefined {
  const place = (TRAY_KEYS as readonly string[]).indexOf(key)
  return place < 0 ? undefined : trayOf(pass)[place + (shift ? TRAY_KEYS.length : 0)]
}
