/* What may import what. Read by "npm run lint"; docs/architecture.md draws the layers. */

/** @type {(name: string, comment: string, from: object, to: object) => object} */
const forbid = (name, comment, from, to) => ({ name, severity: 'error', comment, from, to });

/** @type {import('dependency-cruiser').IConfiguration} */
module.exports = {
  forbidden: [
    forbid(
      'no-circular',
      'Two modules that need each other are one, or lack a third below both.',
      {},
      { circular: true },
    ),
    forbid(
      'db-below-all',
      'The database layer knows nothing of what is kept in it.',
      { path: '^server/src/db/' },
      {
        path: '^server/src/',
        pathNot: '^server/src/(db/|refusal\\.ts|operator-error\\.ts|cache\\.ts|clock\\.ts|group-by\\.ts)',
      },
    ),
    forbid(
      'domain-knows-no-http',
      'Rules with storage are the same whoever asks, over whatever wire.',
      { path: '^server/src/domain/' },
      { path: '^server/src/(http|features|demo)/|^server/src/(app|main)\\.ts|node_modules/express/' },
    ),
    forbid(
      'features-meet-in-domain',
      'A feature knows the domain, never another feature.',
      { path: '^server/src/features/([^/]+)/' },
      { path: '^server/src/features/', pathNot: '^server/src/features/$1/' },
    ),
    forbid(
      'http-knows-no-feature',
      'What every route shares knows none of them.',
      { path: '^server/src/(http|access|files|print|upkeep)/' },
      { path: '^server/src/(features|domain|demo)/' },
    ),
    forbid(
      'words-and-contract-below-apps',
      'What web and server share knows neither.',
      { path: '^(core|contract|lineage|words)/src/' },
      { path: '^(server|web|cli)/' },
    ),
    forbid(
      'core-alone',
      'Core is pure computation.',
      { path: '^core/src/' },
      { path: '^(contract|lineage|words)/' },
    ),
    forbid(
      'lineage-on-core',
      'A document is verified without a server: from its own bytes, by core alone.',
      { path: '^lineage/src/' },
      { path: '^(contract|words)/' },
    ),
    forbid(
      'no-unresolvable',
      'An import that leads nowhere.',
      {},
      { couldNotResolve: true, pathNot: '^virtual:' },
    ),
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(^|/)dist/' },
    tsConfig: { fileName: 'tsconfig.base.json' },
    tsPreCompilationDeps: true,
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'require', 'node', 'default', 'types'],
    },
  },
};
