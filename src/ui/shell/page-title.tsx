/**
 * What the browser's tab is called. An element of the page itself, because the framework takes its own titles away for a
 * moment whenever a page is refreshed, and a page without a title has no name for those who listen to it.
 */
export function PageTitle({ of }: { readonly of: string }) {
  return <title>{`${of} · Hard Pedal`}</title>;
}
