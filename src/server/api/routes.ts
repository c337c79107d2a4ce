/** What answers at an address: handlers by method, as the framework calls them. */
export type Handlers = Partial<
  Record<'GET' | 'POST' | 'PUT' | 'DELETE', (request: Request, context: { params: Promise<{ id: string }> }) => unknown>
>;

/** Every address of the interface, loaded when it is first asked for; `*` stands for one id. */
const routes: Readonly<Record<string, () => Promise<unknown>>> = {
  'acts/*': () => import('./acts-one'),
  instruments: () => import('./instruments'),
  jobs: () => import('./jobs'),
  'jobs/*': () => import('./jobs-one'),
  'jobs/*/booking': () => import('./jobs-one-booking'),
  'jobs/*/cautions': () => import('./jobs-one-cautions'),
  'jobs/*/compared': () => import('./jobs-one-compared'),
  'jobs/*/imports': () => import('./jobs-one-imports'),
  'jobs/*/looks': () => import('./jobs-one-looks'),
  'jobs/*/order': () => import('./jobs-one-order'),
  'jobs/*/place': () => import('./jobs-one-place'),
  'jobs/*/preview': () => import('./jobs-one-preview'),
  'jobs/*/readings': () => import('./jobs-one-readings'),
  'jobs/*/releases': () => import('./jobs-one-releases'),
  'jobs/*/repairs': () => import('./jobs-one-repairs'),
  'jobs/*/runs': () => import('./jobs-one-runs'),
  'jobs/*/stand-in-log': () => import('./jobs-one-stand-in-log'),
  mappings: () => import('./mappings'),
  people: () => import('./people'),
  prevalences: () => import('./prevalences'),
  'releases/*/html': () => import('./releases-one-html'),
  'releases/*/pdf': () => import('./releases-one-pdf'),
  'runs/*': () => import('./runs-one'),
  'runs/*/command': () => import('./runs-one-command'),
  'runs/*/parts': () => import('./runs-one-parts'),
  'runs/*/result': () => import('./runs-one-result'),
  'runs/*/stream': () => import('./runs-one-stream'),
  'runs/*/timeline': () => import('./runs-one-timeline'),
  serials: () => import('./serials'),
  settings: () => import('./settings'),
  sheets: () => import('./sheets'),
  spheres: () => import('./spheres'),
};

/** What answers at an address below /api; null where nothing does. */
export async function handlersAt(
  path: readonly string[],
): Promise<{ readonly handlers: Handlers; readonly id: string } | null> {
  const load = routes[path.map((part, at) => (at === 1 ? '*' : part)).join('/')];
  return load ? { handlers: (await load()) as Handlers, id: path[1] ?? '' } : null;
}
