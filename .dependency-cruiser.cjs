/** Imports point one way: core <- audio, storage, workers (, dancer) <- ui. */
const border = (name, from, to) => ({
  name,
  severity: 'error',
  from: { path: from },
  to: { path: to },
})

module.exports = {
  forbidden: [
    border('core-knows-nobody', '^src/core/', '^src/(?!core/)'),
    border(
      'core-has-no-browser',
      '^src/core/(?!.*[.]test[.]ts$)',
      'node_modules/(react|@mantine|dexie|three|d3-|@tanstack)',
    ),
    border('audio-knows-only-core', '^src/audio/', '^src/(?!core/|audio/)'),
    border('dancer-knows-only-core', '^src/dancer/', '^src/(?!core/|dancer/)'),
    border('storage-knows-only-core', '^src/storage/', '^src/(?!core/|storage/)'),
    border('workers-know-only-core', '^src/workers/', '^src/(?!core/|workers/)'),
    border('cli-knows-only-core', '^src/cli/', '^src/(?!core/|cli/)'),
    border('page-knows-only-core', '^src/page/', '^src/(?!core/|page/)'),
    border(
      'practice-knows-core-and-audio',
      '^src/practice/',
      '^src/(?!core/|audio/|page/|practice/)',
    ),
    border('only-itself-knows-practice', '^src/(?!practice/)', '^src/practice/'),
    border('follow-knows-only-core', '^src/follow/', '^src/(?!core/|page/|follow/)'),
    border('only-itself-knows-follow', '^src/(?!follow/)', '^src/follow/'),
    border('offline-knows-nobody', '^src/offline/', '^src/(?!offline/)'),
    border('server-knows-only-core', '^src/server/', '^src/(?!core/|server/)'),
    border('only-itself-knows-server', '^src/(?!server/)', '^src/server/'),
    border('only-storage-stores', '^src/(?!storage/)', 'node_modules/dexie'),
    border('no-test-in-the-app', '^src/(?!.*[.]test[.]ts$)', '[.]test[.]ts$|^tests/'),
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'default', 'types'],
    },
  },
}
