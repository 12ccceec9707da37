// Which folder of the client stands on which: each may import those named before it, and itself. `node_modules` aside.
const FROM_THE_GROUND_UP = [
  ['api'],
  ['units'],
  ['kit', 'drawing'],
  ['session'],
  ['frame'],
  ['benches'],
  ['keep'],
  ['line'],
  ['job'],
  ['floor', 'quick', 'record'],
]

const layers = FROM_THE_GROUND_UP.map((names, i) => ({ names, above: FROM_THE_GROUND_UP.slice(i + 1).flat(), beside: names }))
const folders = (names) => `^src/(${names.join('|')})/`

module.exports = {
  forbidden: [
    { name: 'no-cycles', severity: 'error', from: {}, to: { circular: true } },
    ...layers
      .filter(({ above }) => above.length > 0)
      .map(({ names, above }) => ({
        name: `${names.join('-and-')}-knows-nothing-above-it`,
        severity: 'error',
        from: { path: folders(names) },
        to: { path: `(${folders(above)}|^src/main)` },
      })),
    ...layers
      .filter(({ names }) => names.length > 1)
      .flatMap(({ names }) =>
        names.map((name) => ({
          name: `${name}-stands-apart`,
          severity: 'error',
          from: { path: folders([name]) },
          to: { path: folders(names.filter((other) => other !== name)) },
        })),
      ),
    { name: 'no-test-in-the-product', severity: 'error', from: { pathNot: '\\.test\\.tsx?$|^src/test/' }, to: { path: '\\.test\\.tsx?$|^src/test/' } },
    { name: 'known-to-npm', severity: 'error', from: {}, to: { dependencyTypes: ['npm-no-pkg', 'npm-unknown'] } },
  ],
  options: { tsConfig: { fileName: 'tsconfig.json' }, tsPreCompilationDeps: true, doNotFollow: { path: 'node_modules' } },
}
