import { pages, type PageName } from './pages';

/** Makes one page, in a thread of its own. */
export default async function make({
  name,
  page,
}: {
  name: PageName;
  page: unknown;
}): Promise<unknown> {
  const work = pages[name] as (page: unknown) => unknown;
  return await work(page);
}
