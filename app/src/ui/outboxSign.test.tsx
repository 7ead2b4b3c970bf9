import type { OutboxState } from '../store/outbox';
import { doing, onPage } from '../test/onPage';
import { OutboxSign } from './OutboxSign';

let mockState: OutboxState;
const mockSend = jest.fn();
const mockGo = jest.fn();
jest.mock('../store/outbox', () => ({
  useOutbox: () => mockState,
  sendNow: () => Promise.resolve(mockSend()),
}));
jest.mock('expo-router', () => ({ router: { push: (to: string) => mockGo(to) as unknown } }));

const stands = (standing: OutboxState['standing'], unsent = 2, refused = 0) => {
  mockState = { standing, unsent, refused, message: 'As the server said.' };
};

/** What fits beside a run on a phone of 390 px, in letters. */
const ROOM = 23;

describe('the sign of what is not sent', () => {
  beforeEach(() => jest.clearAllMocks());

  it.each([
    ['sending', '2 not sent'],
    ['offline', '2 not sent · no network'],
    ['stumbling', 'server trouble: 2 wait'],
    ['database-away', 'database down: 2 wait'],
    ['signed-out', 'sign in: 2 wait'],
    ['refused', 'not taken: 2 wait'],
  ] as const)('says beside a run, where it is %s, “%s”', async (standing, words) => {
    stands(standing);
    const page = await onPage(<OutboxSign inline />);
    expect(page.text()).toBe(words);
    expect(words.length).toBeLessThanOrEqual(ROOM);
    await page.leave();
  });

  it('counts one as one, and is quiet where nothing waits', async () => {
    stands('stumbling', 1);
    const page = await onPage(<OutboxSign inline />);
    expect(page.text()).toBe('server trouble: 1 waits');
    stands('sent', 0);
    await page.redraw(<OutboxSign />);
    expect(page.text()).toBe('all sent');
    await page.leave();
  });

  it('leads to the reasons where there are any, and sends where there are none', async () => {
    for (const [standing, name] of [
      ['refused', '2 not sent, not taken by the server. See why'],
      ['stumbling', '2 not sent, server trouble. See why'],
      ['offline', '2 not sent, no network. Send now'],
    ] as const) {
      stands(standing, 2, standing === 'refused' ? 1 : 0);
      const page = await onPage(<OutboxSign wordy />);
      expect(page.text()).toContain('As the server said.');
      await doing(() => page.the('button', name).click());
      await page.leave();
    }
    expect(mockGo.mock.calls).toEqual([['/unsent'], ['/unsent']]);
    expect(mockSend).toHaveBeenCalledTimes(1);
  });

  it('asks to sign in where that is what is missing', async () => {
    const mayAsk = jest.fn();
    stands('signed-out');
    const page = await onPage(<OutboxSign onSignIn={mayAsk} />);
    await doing(() => page.the('button', '2 not sent, sign in to send. Sign in').click());
    expect(mayAsk).toHaveBeenCalledTimes(1);
    expect(mockSend).toHaveBeenCalledTimes(0);
    await page.leave();
  });

  it('names a record that was not taken though none of its entries waits', async () => {
    stands('refused', 0, 1);
    const page = await onPage(<OutboxSign />);
    expect(page.text()).toBe('1 record not sent · not taken by the server');
    await page.leave();
  });
});
