/**
 * What each workspace may import of the others: what stands lower never imports what stands higher.
 * @type {Record<string, string[]>}
 */
const MAY_IMPORT = {
  core: [],
  vision: ['core'],
  contract: ['core', 'vision'],
  words: ['core', 'vision', 'contract'],
  sim: ['core', 'vision'],
  server: ['core', 'vision', 'contract', 'words', 'sim'],
  web: ['core', 'vision', 'contract', 'words', 'sim'],
  e2e: ['core', 'vision', 'contract', 'sim', 'scripts'],
  scripts: [],
};
const WORKSPACES = Object.keys(MAY_IMPORT);
export const TEST = '[.]test(-data)?[.]tsx?$|^server/test/|^e2e/';

/** @type {'error'} */
const ERROR = 'error';

export const OPTIONS = {
  doNotFollow: { path: 'node_modules' },
  exclude: { path: '(^|/)(dist|[.]types|fixtures)/' },
  tsPreCompilationDeps: true,
  enhancedResolveOptions: {
    exportsFields: ['exports'],
    conditionNames: ['import', 'node', 'default', 'types'],
    extensions: ['.ts', '.tsx', '.mjs', '.js', '.json'],
  },
};

/** What vision may ask of core: measures, codes of cards, the list of infractions, what a file can tell; no rule, no score. */
const SEEN_BY_VISION = 'result|dice|units|identifier|rules|evidence|file-evidence';

/** What runs before anything is installed. */
const BARE =
  '^scripts/(start|machine/(say|processes|packages|nodeModules|database|installation|server))[.]mjs$';

/** @type {import('dependency-cruiser').IConfiguration} */
const config = {
  forbidden: [
    ...WORKSPACES.map((name) => ({
      name: `${name}-imports-what-stands-lower`,
      severity: ERROR,
      from: { path: `^${name}/` },
      to: {
        path: `^(${WORKSPACES.filter((other) => other !== name && !MAY_IMPORT[name]?.includes(other)).join('|')})/`,
      },
    })),
    {
      name: 'features-know-none-of-the-others',
      comment: 'What two features share is a room beside them.',
      severity: ERROR,
      from: { path: '^web/src/features/([^/]+)/' },
      to: { path: '^web/src/(features/([^/]+)|app)/', pathNot: '^web/src/features/$1/' },
    },
    {
      name: 'rooms-know-no-feature',
      severity: ERROR,
      from: { path: '^web/src/', pathNot: `${TEST}|^web/src/(features|app)/|^web/src/main[.]tsx$` },
      to: { path: '^web/src/(features|app)/' },
    },
    {
      name: 'simulated-where-it-says-so',
      comment: 'Demo data on the server, simulated devices on the page.',
      severity: ERROR,
      from: {
        path: '^(server|web)/',
        pathNot: `${TEST}|^server/(src/demo|bench)/|^web/src/(camera/(camera|film|openSimulated|simulated)|(position|scale)/simulated)`,
      },
      to: { path: '^sim/' },
    },
    {
      name: 'vision-knows-of-core-what-it-needs-to-see',
      severity: ERROR,
      from: { path: '^vision/', pathNot: TEST },
      to: { path: '^core/src/', pathNot: `^core/src/(${SEEN_BY_VISION})(/|[.]ts$)` },
    },
    {
      name: 'core-and-vision-know-neither-machine-nor-page',
      severity: ERROR,
      from: { path: '^(core|vision)/src/', pathNot: TEST },
      to: { path: 'node_modules/(@types/node|react|react-dom|zod|express|drizzle-orm|mysql2)/' },
    },
    {
      name: 'core-and-vision-without-node',
      severity: ERROR,
      from: { path: '^(core|vision)/src/', pathNot: TEST },
      to: { dependencyTypes: ['core'] },
    },
    {
      name: 'core-rooms-by-their-doors',
      severity: ERROR,
      from: { path: '^core/src/([^/]+)/', pathNot: TEST },
      to: { path: '^core/src/[^/]+/', pathNot: '^core/src/$1/|/index[.]ts$|[.]json$' },
    },
    {
      name: 'database-only-in-its-adapters',
      severity: ERROR,
      from: {
        path: '^server/',
        pathNot: '[.]mariadb[.]ts$|^server/src/storage/|^server/drizzle[.]config[.]ts$|^server/test/',
      },
      to: { path: 'node_modules/(drizzle-orm|drizzle-kit|mysql2)/' },
    },
    {
      name: 'bare-scripts-use-node-alone',
      severity: ERROR,
      from: { path: BARE },
      to: { dependencyTypes: ['npm', 'npm-dev', 'npm-no-pkg', 'unknown'] },
    },
    {
      name: 'no-import-of-nothing',
      severity: ERROR,
      from: { path: '^(core|vision|words|contract|sim|server/src|web/src)/' },
      to: { couldNotResolve: true, pathNot: '^virtual:|[?]url$|^geojson$' },
    },
  ],
  options: OPTIONS,
};

export default config;
