import { screen } from '@testing-library/react';
import { Route } from 'react-router';
import { DEMO } from '../../core/test/demo';
import { onPage } from '../test/bench-page';
import { AskedProvider } from './asked';
import { KeepAsDrive } from './KeepAsDrive';

const show = (stage?: string) =>
  onPage(
    '/counter/string?read=70',
    <Route
      path="counter/:question"
      element={
        <AskedProvider>
          <KeepAsDrive drive={() => DEMO.pickup} {...(stage !== undefined && { stage })} />
        </AskedProvider>
      }
    />,
  );

test('a drive that is refused leaves the counter as it is, says why, and can be sent again', async () => {
  const at = await show();
  at.server.refuse('POST', '/drives', 507, 'The disk of the server is full.');
  await at.press('Save as a drive');
  expect(at.place()).toBe('/counter/string?read=70');
  expect(screen.getByRole('alert').textContent).toBe('Not kept. The disk of the server is full.');
  await at.press('Save as a drive');
  expect(at.server.sent).toHaveLength(2);
  expect(at.server.sent[1]).toMatchObject({
    method: 'POST',
    path: '/drives',
    body: { document: { name: DEMO.pickup.name } },
  });
  expect(at.place()).toMatch(/^\/drives\/[^/]+\/survey$/);
});

test('one that is taken opens on the bench where it was meant to', async () => {
  const at = await show('tension');
  await at.press('Save as a drive');
  expect(at.place()).toMatch(/^\/drives\/[^/]+\/tension$/);
});
