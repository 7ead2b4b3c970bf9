import type { Me } from '@keen-bleed/contract';
import type { OutboxState } from '../store/outbox';
import { doing, onPage } from '../test/onPage';
import { SignInAgain, useHearsEnd } from './SignInAgain';
import { usePutsSignInOff, useSignInCovers, wantSignIn } from './signInPutOff';

const mockEnded = jest.fn();
let mockStanding: OutboxState['standing'] = 'sent';
jest.mock('./session', () => ({ sessionEnded: () => mockEnded() as unknown }));
jest.mock('./SignInForm', () => ({ SignInForm: () => 'the form' }));
jest.mock('../store/outbox', () => ({ useOutbox: () => ({ standing: mockStanding }) }));

const me = { signInName: 'paula' } as Me;

/** A screen whose session has ended, with or without something timed on it. */
function Screen({ timing, stale = true }: { timing: boolean; stale?: boolean }) {
  usePutsSignInOff(timing);
  useHearsEnd();
  return (
    <>
      {useSignInCovers() ? 'keys off' : 'keys on'}
      {stale ? <SignInAgain me={me} /> : null}
    </>
  );
}

const dialog = () => document.querySelector('[role="dialog"]');
const press = (name: string) =>
  doing(() => document.querySelector<HTMLElement>(`[aria-label^="${name}"]`)?.click());

describe('signing in again', () => {
  it('is asked for at once where nothing is timed, and cannot be put aside', async () => {
    const page = await onPage(<Screen timing={false} />);
    expect(dialog()?.textContent).toContain('the form');
    expect(dialog()?.textContent).not.toContain('Later');
    await page.leave();
  });

  it('waits while a needle is timed, opens when asked for, and closes again', async () => {
    const page = await onPage(<Screen timing />);
    expect(dialog()).toBeNull();
    expect(page.text()).toContain('keys on');
    await doing(() => wantSignIn(true));
    expect(dialog()?.textContent).toContain('the form');
    expect(page.text()).toContain('keys off');
    await press('Later');
    expect(dialog()).toBeNull();
    expect(page.text()).toContain('keys on');
    await page.leave();
  });

  it('is asked for as soon as nothing is timed any more', async () => {
    const page = await onPage(<Screen timing />);
    await page.redraw(<Screen timing={false} />);
    expect(dialog()?.textContent).toContain('the form');
    await page.leave();
  });

  it('does not cover the next run because it was opened in the last', async () => {
    const page = await onPage(<Screen timing />);
    await doing(() => wantSignIn(true));
    // Signed in from the sheet; later the session ends anew.
    await page.redraw(<Screen timing stale={false} />);
    expect(page.text()).toContain('keys on');
    await page.redraw(<Screen timing />);
    expect(dialog()).toBeNull();
    await page.leave();
  });

  it('is heard of from what is sent, too', async () => {
    mockStanding = 'offline';
    const page = await onPage(<Screen timing stale={false} />);
    expect(mockEnded).not.toHaveBeenCalled();
    mockStanding = 'signed-out';
    await page.redraw(<Screen timing stale={false} />);
    expect(mockEnded).toHaveBeenCalledTimes(1);
    await page.leave();
  });
});
