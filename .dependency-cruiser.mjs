/** What may import what; `npm run lint` looks. Types count as much as code. */
const ROOMS = '^(packages/core/src|apps/studio/src|apps/server/src)/';

/** @type {import('dependency-cruiser').IConfiguration} */
export default {
  forbidden: [
    {
      name: 'files-one-way',
      comment: 'No file imports one that imports it: take what both need into a third.',
      severity: 'error',
      from: { path: ROOMS },
      to: { circular: true },
    },
    {
      name: 'rooms-one-way',
      comment: 'Rooms import one way: move what is asked for into the lower one, or into one below both.',
      scope: 'folder',
      severity: 'error',
      from: { path: ROOMS },
      to: { circular: true },
    },
    {
      name: 'core-has-no-host',
      comment: 'The engine knows no browser, no Node and no screen.',
      severity: 'error',
      from: { path: '^packages/core/src', pathNot: '\\.test\\.ts$|/testing/' },
      to: { path: '^(apps|packages/(node-host|templates|fonts))/|^node:|^(react|react-native|expo)' },
    },
    {
      name: 'studio-has-no-server',
      severity: 'error',
      from: { path: '^apps/studio/', pathNot: '\\.test\\.tsx?$' },
      to: { path: '^(apps/server|packages/node-host)/' },
    },
  ],
  options: {
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    exclude: { path: '\\.test\\.tsx?$|/testing/|node_modules|/dist/' },
    doNotFollow: { path: 'node_modules' },
  },
};
