// Layers: imports point downwards only. core < engine < server < app; core < ui < app (types of server excepted).
const rule = (name, from, to, extra = {}) => ({
  name,
  severity: 'error',
  from: { path: from },
  to: { path: to, ...extra },
})

module.exports = {
  forbidden: [
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
    rule('core-is-pure', '^src/core', '^src/(?!core)'),
    {
      name: 'core-has-no-node',
      severity: 'error',
      from: { path: '^src/core', pathNot: '\\.test\\.ts$' },
      to: { dependencyTypes: ['core'] },
    },
    {
      name: 'core-has-no-react',
      severity: 'error',
      from: { path: '^src/core' },
      to: { path: 'node_modules/(react|next|@napi-rs|postgres)' },
    },
    // The page that runs by itself: its form is known to who makes it.
    rule('companion-is-core-alone', '^src/companion', '^src/(?!core|companion)'),
    rule('engine-knows-core-only', '^src/engine', '^src/(?!core|engine|companion/session)'),
    rule('server-knows-no-interface', '^src/server', '^src/(ui|app)'),
    rule('ui-calls-server-over-http', '^src/ui', '^src/(server|engine|app)', { dependencyTypesNot: ['type-only'] }),
    rule('command-needs-no-server', '^bin', '^src/(server|ui|app)'),
    rule('demo-is-apart', '^src', '^demo'),
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    exclude: { path: '^\\.next' },
  },
}
