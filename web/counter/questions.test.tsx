import { Route } from 'react-router';
import { onPage } from '../test/bench-page';
import { seen } from '../test/seen';
import { tryAll } from '../test/try-all';
import { heldSeen } from '../test/views';
import CounterPage from './CounterPage';

jest.mock('../state/run-core', () => jest.requireActual('../test/core-here'));

const QUESTIONS = ['string', 'marking', 'pulleys', 'tension', 'change'];
/** Asked with what somebody has in hand, so that there is an answer to read. */
const ASKED: Record<string, string> = {
  string: '?read=70+3%2F4%22&back=quarter,kisses&lay=groove&held=slack&takes=1%22',
  marking: '?marking=6PK1750',
};

test('every question of the counter, and what everything at it does, is as it was read', async () => {
  const lines: string[] = [];
  for (const question of QUESTIONS) {
    const address = `/counter/${question}${ASKED[question] ?? ''}`;
    const at = await onPage(address, <Route path="counter/:question?" element={<CounterPage />} />, { unit: 'in' });
    lines.push(`=== ${question}`, ...seen(at.page));
    const sheet = () => [at.page.querySelector('main, .counter-sheet') ?? at.page];
    lines.push(
      '--- what everything does',
      ...(await tryAll({ bench: at, roots: sheet, most: 24, back: () => Promise.resolve() })),
    );
  }
  heldSeen('counter', lines);
});
