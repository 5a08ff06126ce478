import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { steady } from './steady';

interface Props {
  label: string;
  options: readonly { value: string }[];
  onPick: (label: string) => void;
}

test('it is drawn again only when what it shows is another, and calls the latest of what it was given', async () => {
  let drawn = 0;
  const Field = steady(function Field({ label, options, onPick }: Props) {
    drawn += 1;
    return <button onClick={() => onPick(label)}>{`${label} ${options.map(({ value }) => value).join()}`}</button>;
  });
  const picked: string[] = [];
  const shown = (label: string, value: string, mark: string) => (
    <Field label={label} options={[{ value }]} onPick={(text) => picked.push(`${mark} ${text}`)} />
  );
  const { rerender } = render(shown('a', 'x', 'first'));
  rerender(shown('a', 'x', 'second'));
  expect(drawn).toBe(1);
  await userEvent.click(screen.getByRole('button'));
  expect(picked).toEqual(['second a']);
  rerender(shown('a', 'y', 'third'));
  rerender(shown('b', 'y', 'fourth'));
  expect(drawn).toBe(3);
  await userEvent.click(screen.getByText('b y'));
  expect(picked).toEqual(['second a', 'fourth b']);
});
