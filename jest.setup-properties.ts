import fc from 'fast-check';

// The same draws every time, so that a failure can be had again; another PROPERTY_SEED explores elsewhere.
// Sixty of them with each change; PROPERTY_RUNS draws more.
fc.configureGlobal({
  seed: Number(process.env.PROPERTY_SEED ?? 1926),
  numRuns: Number(process.env.PROPERTY_RUNS ?? 60),
});
