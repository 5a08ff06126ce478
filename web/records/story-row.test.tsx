import { render, screen } from '@testing-library/react';
import { MemoryRouter } from 'react-router';
import { StoryRow } from './StoryRow';
import type { RecordListed } from '@emery/core/api';

const RECORD: RecordListed = {
  id: 1,
  vehicleId: 'v1',
  vehicleName: 'Lorry',
  plate: 'TF 1',
  vehicleOdometer: 120_000,
  odometerUnit: 'km',
  driveId: 'd1',
  driveName: 'Front drive',
  jobId: 'j1',
  kind: 'belt',
  at: '2026-05-04T10:00:00.000Z',
  readingAt: 118_500,
  unit: 'mi',
  belt: 'main',
  title: 'Belt changed',
  detail: 'Worn.',
  pictures: [{ hash: 'ab'.repeat(32) } as never],
};

const show = (record: Partial<RecordListed>) =>
  render(
    <MemoryRouter>
      <ul>
        <StoryRow record={{ ...RECORD, ...record }} whose={<em>Front drive</em>} />
      </ul>
    </MemoryRouter>,
  );

test.each([
  ['belt', '/drives/d1/inspect'],
  ['part', '/drives/d1/inspect'],
  ['inspection', '/drives/d1/inspect'],
  ['tension', '/drives/d1/tension'],
  ['alignment', '/drives/d1/align'],
  ['noise', '/drives/d1/noise'],
  ['job', '/jobs/j1'],
] as const)('what happened as %s leads to where it was written down', (kind, to) => {
  show({ kind });
  expect(screen.getByRole('link', { name: 'Belt changed' }).getAttribute('href')).toBe(to);
});

test('a row has its day, its odometer in its own unit, its detail, its pictures and whose it is', () => {
  const { container } = show({});
  expect(container.textContent).toBe('2026-05-04118,500 miBelt changedWorn.Front drive');
  expect(screen.getByAltText('Of Belt changed').getAttribute('src')).toContain('ab'.repeat(32));
});

test('without a day, a unit, a detail or pictures none stands there', () => {
  const { container } = show({ at: null, unit: null, detail: '', pictures: [] });
  expect(container.textContent).toBe('no day118,500 kmBelt changedFront drive');
  expect(screen.queryByRole('img')).toBeNull();
  show({ readingAt: null });
  expect(screen.getAllByRole('listitem')[1]!.textContent).toBe('2026-05-04Belt changedWorn.Front drive');
});
