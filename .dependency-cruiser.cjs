/** What may import what, beyond the layers that `tests/layers.test.ts` holds: nothing goes round, not even a type. */
module.exports = {
  forbidden: [
    {
      name: 'no-circular',
      comment: 'A component that shows itself within itself is no round.',
      severity: 'error',
      from: { pathNot: '^src/lib/ui/parts/FieldInput.svelte$' },
      to: { circular: true }
    },
    {
      name: 'no-circular-rooms',
      comment: 'Rooms of the server use each other in one direction.',
      severity: 'error',
      scope: 'folder',
      from: { path: '^src/lib/server' },
      to: { circular: true }
    }
  ],
  options: {
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.rooms.json' },
    exclude: { path: '\\.test\\.ts$|^src/routes/.*\\$types|^\\.svelte-kit' },
    doNotFollow: { path: 'node_modules' },
    enhancedResolveOptions: {
      extensions: ['.ts', '.svelte', '.js', '.mjs'],
      conditionNames: ['import', 'node', 'default']
    }
  }
};
