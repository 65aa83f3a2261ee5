/** The order of folders: each may import from those before it, never from those after it; types count. */
const CORE = [
  'geometry',
  'model',
  'arrangement',
  'recall',
  'relations',
  'weight',
  'repetition',
  'fit',
  'outline',
  'shapes',
  'document',
  'editing',
  'sketch',
  'ink',
  'from-outlines',
  'proof',
  'formats',
]
const INK = ['outlines', 'front', 'ends', 'pieces', 'stack', 'regions', 'fills', 'session']
const APP = [
  'network',
  'service-worker',
  'painting',
  'workers',
  'canvas',
  'instruments',
  'catalogue',
  'commands',
  'stores',
  'workspace',
  'components',
  'pages',
  'plugins',
]
/** The rings: what lies further out knows what lies further in. */
const RINGS = { core: [], shared: ['core'], server: ['core', 'shared'], app: ['core', 'shared'] }

const inOrder = (root, folders) =>
  folders.slice(0, -1).map((folder, i) => ({
    name: `${root}/${folder}`,
    comment: `${root}/${folder} comes before ${folders.slice(i + 1).join(', ')} and may not import from there.`,
    severity: 'error',
    from: { path: `^${root}/${folder}/` },
    to: { path: `^${root}/(${folders.slice(i + 1).join('|')})/` },
  }))

const ours = ['core', 'shared', 'server', 'app', 'cli', 'demo', 'bench', 'tests', 'scripts']

export default {
  forbidden: [
    {
      name: 'circle',
      comment: 'Files that import one another are one file, or three.',
      severity: 'error',
      from: {},
      to: { circular: true },
    },
    ...Object.entries(RINGS).map(([ring, inner]) => ({
      name: `ring ${ring}`,
      comment: `${ring}/ may import from ${['itself', ...inner].join(', ')} alone.`,
      severity: 'error',
      from: { path: `^${ring}/` },
      to: { path: `^(${ours.filter((o) => o !== ring && !inner.includes(o)).join('|')})/` },
    })),
    ...inOrder('core', CORE),
    ...inOrder('core/ink', INK),
    ...inOrder('app', APP),
    {
      name: 'ink inside',
      comment: 'The rooms of core/ink do not know its doors.',
      severity: 'error',
      from: { path: '^core/ink/[^/]+/' },
      to: { path: '^core/ink/[^/]+\\.ts$' },
    },
    {
      name: 'core is let in by name',
      comment: 'A folder of core/ that the order does not know.',
      severity: 'error',
      from: {},
      to: { path: '^core/[^/]+/', pathNot: `^core/(${CORE.join('|')})/` },
    },
    {
      name: 'app is let in by name',
      comment: 'A folder of app/ that the order does not know.',
      severity: 'error',
      from: {},
      to: { path: '^app/[^/]+/', pathNot: `^app/(${APP.join('|')}|assets)/` },
    },
    {
      name: 'not found',
      comment: 'An import that leads nowhere would pass every other rule.',
      severity: 'error',
      from: {},
      to: { couldNotResolve: true, path: '^([.~]|#core|#shared)' },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '\\.(css|sql|json|svg)$' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: '.dependency-cruiser.tsconfig.json' },
    enhancedResolveOptions: {
      extensions: ['.ts', '.vue', '.mjs', '.js', '.d.ts'],
      exportsFields: ['exports'],
      conditionNames: ['import', 'require', 'node', 'default', 'types'],
    },
  },
}
