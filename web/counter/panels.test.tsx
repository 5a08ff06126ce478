/** @jest-environment jsdom */
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { MemoryRouter } from 'react-router';
import { AskedProvider } from './asked';
import StringPanel from './StringPanel';
import TensionPanel from './TensionPanel';
import type { Shop } from '@emery/core/api';
import { lengthsOnFixed, lengthsToAsk, settingFor, settingRange, spanTension, stringLength } from '@emery/core/counter';
import { newBelt, newDrive } from '@emery/core/drive';
import { sectionFor } from '@emery/core/section';

/** A panel as the counter shows it at that address, in a shop that works in mm. */
function show(Panel: () => React.ReactNode, search: string) {
  const client = new QueryClient({ defaultOptions: { queries: { staleTime: Infinity, retry: false } } });
  client.setQueryData<Partial<Shop>>(['shop'], { name: 'Any shop', unit: 'mm' });
  render(
    <QueryClientProvider client={client}>
      <MemoryRouter initialEntries={[`/counter?unit=mm&${search}`]}>
        <AskedProvider>
          <Panel />
        </AskedProvider>
      </MemoryRouter>
    </QueryClientProvider>,
  );
}

const PK = sectionFor('PK')!;
const belt = { ...newBelt(newDrive(''), 'PK'), ribs: 6 };
const setting = () => screen.getByTestId('tension-setting').textContent;

describe('is it tight enough', () => {
  test('with nothing said of what it drives there is a range, and a word for what would make it one figure', async () => {
    show(TensionPanel, 'span=350');
    const { min, max } = settingRange(belt)!;
    expect(setting()).toContain(`${Math.round(min.setN)} to ${Math.round(max.setN)} N`);
    screen.getByText('Choose what it drives to get one figure.');
    await userEvent.click(screen.getByRole('checkbox', { name: 'Alternator' }));
    const alone = settingFor(belt, ['alternator'])!.setN;
    expect(setting()).toContain(`${Math.round(alone)} N`);
    expect(setting()).not.toContain(' to ');
    await userEvent.click(screen.getByRole('checkbox', { name: 'Compressor' }));
    const both = settingFor(belt, ['alternator', 'ac-compressor'])!.setN;
    expect(both).toBeGreaterThan(alone);
    expect(setting()).toContain(`${Math.round(both)} N`);
    // Taken back it is the one before.
    await userEvent.click(screen.getByRole('checkbox', { name: 'Compressor' }));
    expect(setting()).toContain(`${Math.round(alone)} N`);
  });

  test('a comma before three digits is asked about, stays as it was written, and reads nothing until then', async () => {
    show(TensionPanel, 'span=350');
    const field = screen.getByLabelText(/^Click gauge/);
    await userEvent.type(field, '1,200');
    expect(field).toHaveProperty('value', '1,200');
    expect(screen.getByRole('alert').textContent).toMatch(/1200|1\.2/);
    expect(screen.queryByTestId('tension-answer')).toBeNull();
    await userEvent.clear(field);
    await userEvent.type(field, '500 N');
    const readings = [{ id: 'gauge', way: 'gauge', newtons: 500 }] as never;
    const { measured } = spanTension({ section: 'PK', ribs: 6, spanMm: 350, armHolds: false, readings });
    expect(Number(screen.getByTestId('tension-answer').dataset['newtons'])).toBeCloseTo(measured!.at, 6);
  });

  test('a sprung arm has nothing to set, and asks for no loads', async () => {
    show(TensionPanel, 'span=350&holds=arm');
    expect(setting()).toBe('nothing to set');
    expect(screen.queryByRole('group', { name: 'It drives' })).toBeNull();
    const checks = screen.queryByRole('table', { name: 'What each check reads' });
    expect(checks).toBeNull();
  });
});

describe('my string reads this', () => {
  const length = stringLength({ section: PK, measurement: { tool: 'string', mm: 1400, lay: 'groove' }, riding: [] });
  const asked = (held: 'slack' | 'fixed') => {
    const { lengths, best } =
      held === 'fixed' ? lengthsOnFixed(PK, length, { ribs: 6 }) : lengthsToAsk(PK, length, held);
    return { lengthMm: lengths[best!]!.lengthMm, chance: lengths[best!]!.chance! };
  };

  test('on fixed centres the chance is that it is neither too loose nor too tight; elsewhere that it goes on', async () => {
    show(StringPanel, 'read=1400&lay=groove&held=fixed');
    const answer = screen.getByTestId('string-answer');
    expect(Number(answer.dataset['mm'])).toBeCloseTo(length.markedMm, 6);
    const { lengthMm, chance } = asked('fixed');
    await screen.findByText(
      new RegExp(`6PK${lengthMm} is neither too loose nor too tight with ${Math.round(100 * chance)} % chance`),
    );
    await userEvent.click(screen.getByRole('radio', { name: 'at its slack end' }));
    expect(screen.getByTestId('string-answer').textContent).toContain('goes on and can be tightened');
    const region = document.getElementById('answer')!;
    within(region).getByRole('button', { name: `Copy 6PK${asked('slack').lengthMm}` });
  });

  test('where nobody looked how it lay both lengths are said, and neither once it is said', async () => {
    show(StringPanel, 'read=1400&held=slack');
    const both = stringLength({ section: PK, measurement: { tool: 'string', mm: 1400 }, riding: [] }).eitherWay!;
    const findings = screen.getByRole('list', { name: 'Findings' });
    for (const { markedMm } of [both.groove, both.rim]) expect(findings.textContent).toContain(markedMm.toFixed(1));
    await userEvent.click(screen.getByRole('radio', { name: 'down in the grooves' }));
    expect(screen.queryByText(/if it lay/)).toBeNull();
  });

  test('what cannot be a length is named in its field, and nothing is asked for', async () => {
    show(StringPanel, 'held=slack');
    const field = screen.getByLabelText('Reading');
    await userEvent.type(field, '1.690 mm');
    expect(field).toHaveProperty('value', '1.690 mm');
    expect(screen.getByRole('alert').textContent).toMatch(/1690/);
    expect(screen.queryByTestId('string-answer')).toBeNull();
  });
});
