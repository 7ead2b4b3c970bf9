import { act, type ReactElement } from 'react';
import { createRoot } from 'react-dom/client';
import { ThemeProvider } from '@rneui/themed/dist/config';
import { rneThemes } from '../theme/rneTheme';

(globalThis as { IS_REACT_ACT_ENVIRONMENT?: boolean }).IS_REACT_ACT_ENVIRONMENT = true;

/** A part drawn on a page of its own, as the browser would. */
export interface OnPage {
  /** Every element with a role, in the order of the page. */
  all: (role: string) => HTMLElement[];
  /** The one element with a role, and with this name where given. */
  the: (role: string, name?: string) => HTMLElement;
  text: () => string;
  redraw: (element: ReactElement) => Promise<void>;
  leave: () => Promise<void>;
}

const nameOf = (element: HTMLElement) => element.getAttribute('aria-label') ?? element.textContent;

/** Draws a part under the product's theme. */
export async function onPage(element: ReactElement): Promise<OnPage> {
  const place = document.createElement('div');
  document.body.append(place);
  const root = createRoot(place);
  const draw = (what: ReactElement) =>
    act(() => root.render(<ThemeProvider theme={rneThemes.shop}>{what}</ThemeProvider>));
  draw(element);
  // The browser's own buttons are buttons without saying so.
  const own = (role: string) => (role === 'button' ? ', button:not([role])' : '');
  const all = (role: string) => [
    ...place.querySelectorAll<HTMLElement>(`[role="${role}"]${own(role)}`),
  ];
  return Promise.resolve({
    all,
    the: (role, name) => {
      const found = all(role).filter((each) => name === undefined || nameOf(each) === name);
      const [one] = found;
      if (!one || found.length > 1)
        throw new Error(`${found.length} elements are a ${role} “${name ?? ''}”`);
      return one;
    },
    text: () => place.textContent,
    redraw: (what) => Promise.resolve(draw(what)),
    leave: () =>
      Promise.resolve(
        act(() => {
          root.unmount();
          place.remove();
        }),
      ),
  });
}

/** Does something to the page and lets it settle. */
export async function doing(what: () => unknown): Promise<void> {
  await act(async () => {
    await what();
  });
}
