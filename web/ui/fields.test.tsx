import { useState } from 'react';
import { fireEvent, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { AskCard } from './AskCard';
import { CountField } from './CountField';
import { FigureField } from './FigureField';
import { SomeOf } from './SomeOf';
import { LengthFigure } from './LengthFigure';
import { QuantityField } from './QuantityField';
import { TapePad } from './TapePad';
import { TextField } from './TextField';
import { forgetTyped, hasTyped, TypedPlace } from './typed-text';

function quantity(props: Partial<Parameters<typeof QuantityField>[0]> = {}) {
  const onCommit = jest.fn();
  render(<QuantityField label="Diameter" mm={203.2} unit="in" onCommit={onCommit} {...props} />);
  return { onCommit, field: screen.getByLabelText('Diameter') };
}

describe('a length field', () => {
  test('starts with what stands there, and shows the other unit', () => {
    const { field } = quantity();
    expect(field).toHaveProperty('value', '8"');
    screen.getByText('203.2 mm');
  });

  test('says what it understood while it is written, and takes it over once, on Enter', async () => {
    const { field, onCommit } = quantity();
    await userEvent.clear(field);
    await userEvent.type(field, '6 11/16');
    screen.getByText('reads 6 11/16" · 169.9 mm');
    expect(onCommit).not.toHaveBeenCalled();
    await userEvent.keyboard('{Enter}');
    expect(onCommit.mock.calls).toEqual([[expect.closeTo(169.8625, 9)]]);
  });

  test('one that may be empty is left empty, emptied, and holds what is asked for to its end', async () => {
    const onClear = jest.fn();
    const { field, onCommit } = quantity({ mm: null, unit: 'mm', onClear, max: 30 });
    expect(field).toHaveProperty('value', '');
    await userEvent.click(field);
    await userEvent.keyboard('{Enter}');
    expect([onCommit.mock.calls, onClear.mock.calls]).toEqual([[], []]);
    await userEvent.type(field, '61{Enter}');
    expect(screen.getByRole('alert').textContent).toMatch(/^Diameter: 30 mm.* at most\.$/);
    expect(field).toHaveProperty('value', '61');
    await userEvent.clear(field);
    await userEvent.type(field, '3/32{Enter}');
    expect(onCommit.mock.calls).toEqual([[expect.closeTo(2.38125, 9)]]);
  });

  test('emptying one that stands takes it back, once; where it may not be empty it is told', async () => {
    const onClear = jest.fn();
    const { field, onCommit } = quantity({ onClear });
    await userEvent.clear(field);
    await userEvent.keyboard('{Enter}');
    expect(onClear).toHaveBeenCalledTimes(1);
    expect(onCommit).not.toHaveBeenCalled();
  });

  test('opening and leaving it changes nothing, also where the inches are no round fraction', async () => {
    const { field, onCommit } = quantity({ mm: 186.123 });
    await userEvent.click(field);
    await userEvent.tab();
    expect(onCommit).not.toHaveBeenCalled();
  });

  test('what cannot be read stays, with the reason, after the field is left', async () => {
    const { field, onCommit } = quantity();
    await userEvent.clear(field);
    await userEvent.type(field, '7 15/61');
    await userEvent.tab();
    expect(onCommit).not.toHaveBeenCalled();
    expect(field).toHaveProperty('value', '7 15/61');
    expect(screen.getByRole('alert').textContent).toMatch(/15\/61 is on no tape/);
  });

  test('below zero only where it may be', async () => {
    const { field, onCommit } = quantity();
    await userEvent.clear(field);
    await userEvent.type(field, '-2{Enter}');
    expect(screen.getByRole('alert').textContent).toBe('Diameter cannot be below zero.');
    expect(onCommit).not.toHaveBeenCalled();
  });

  test('Escape gives back what stood there; a page that goes away takes over what was written', async () => {
    const { field, onCommit } = quantity();
    await userEvent.clear(field);
    await userEvent.type(field, '5');
    await userEvent.keyboard('{Escape}');
    expect(field).toHaveProperty('value', '8"');
    await userEvent.clear(field);
    await userEvent.type(field, '5 1/2');
    fireEvent(window, new Event('pagehide'));
    expect(onCommit.mock.calls).toEqual([[expect.closeTo(139.7, 9)]]);
  });
});

describe('the tape pad', () => {
  const pad = (unit: 'in' | 'mm', signed = false) => {
    const written: string[] = [];
    const onEnter = jest.fn();
    render(<TapePad unit={unit} signed={signed} onWrite={(text) => written.push(text)} onEnter={onEnter} />);
    const press = (...names: string[]) =>
      names.forEach((name) => fireEvent.click(screen.getByRole('button', { name })));
    return { written, onEnter, press, last: () => written[written.length - 1] };
  };

  test('whole inches, then sixteenths', () => {
    const { press, last } = pad('in');
    press('1', '2');
    expect(last()).toBe('12"');
    const strip = screen.getByRole('slider');
    for (let k = 0; k < 20; k += 1) fireEvent.keyDown(strip, { key: 'ArrowRight' });
    expect(last()).toBe('12 15/16"');
    fireEvent.keyDown(strip, { key: 'ArrowLeft' });
    expect(last()).toBe('12 14/16"');
    press('Delete the last digit', 'Delete the last digit');
    expect(last()).toBe('14/16"');
  });

  test('millimetres with one point; turning to inches drops what follows it', () => {
    const { press, last } = pad('mm');
    press('1', '6', '9', '.', '.', '9');
    expect(last()).toBe('169.9 mm');
    press('mm → in');
    expect(last()).toBe('169"');
  });

  test('a key counts once, when the finger is lifted: with no click, with that of another key, by a click alone', () => {
    const { press, last } = pad('mm');
    const key = screen.getByRole('button', { name: '5' });
    const pointer = (kind: string, clientX = 0) =>
      fireEvent(key, new MouseEvent(`pointer${kind}`, { bubbles: true, clientX, clientY: 40, button: 0 }));
    // It moved away, and no click follows.
    pointer('down', 10);
    pointer('up', 12);
    expect(last()).toBe('5 mm');
    // The click of a quick one does not count again, also where another key is there by then; the next click does.
    pointer('down', 10);
    pointer('up', 10);
    fireEvent.click(screen.getByRole('button', { name: '8' }));
    expect(last()).toBe('55 mm');
    press('5');
    expect(last()).toBe('555 mm');
    // A finger that slides off, or scrolls the page, presses nothing.
    pointer('down', 10);
    pointer('up', 90);
    pointer('down', 10);
    pointer('cancel');
    pointer('up', 10);
    expect(last()).toBe('555 mm');
  });

  test('below the crank where a place may be', () => {
    const { press, last, onEnter } = pad('mm', true);
    press('4', '2', '+ above');
    expect(last()).toBe('-42 mm');
    press('− below', 'Enter');
    expect(last()).toBe('42 mm');
    expect(onEnter).toHaveBeenCalledTimes(1);
  });
});

test('a count is a whole number in its range, or empty where it may be', async () => {
  const onCommit = jest.fn();
  render(<CountField label="Grooves" value={6} max={60} optional onCommit={onCommit} />);
  const field = screen.getByLabelText('Grooves');
  for (const wrong of ['2.5', '0', '61', 'six', '-1', '1e1']) {
    await userEvent.clear(field);
    await userEvent.type(field, `${wrong}{Enter}`);
    expect(screen.getByRole('alert').textContent).toBe(
      'Grooves: enter a whole number from 1 to 60, or leave it empty.',
    );
  }
  expect(onCommit).not.toHaveBeenCalled();
  await userEvent.clear(field);
  await userEvent.keyboard('{Enter}');
  expect(onCommit.mock.calls).toEqual([[undefined]]);
});

test('a length is shown as a true fraction and read out as one text', () => {
  const { container } = render(<LengthFigure mm={1731.9625} unit="in" />);
  expect(container.querySelector('.fraction')!.textContent).toBe('3/16');
  expect(container.querySelector('.length')!.getAttribute('aria-label')).toBe('68 3/16"');
});

describe('a figure in a unit of its own', () => {
  const figure = (props: Partial<Parameters<typeof FigureField>[0]> = {}) => {
    const onCommit = jest.fn();
    render(<FigureField label="Current" unit="A" value={12} min={0} max={500} onCommit={onCommit} {...props} />);
    return { onCommit, field: screen.getByLabelText('Current, A') };
  };
  const write = async (field: HTMLElement, text: string) => {
    await userEvent.clear(field);
    if (text !== '') await userEvent.type(field, text);
    await userEvent.tab();
  };

  test('takes a decimal comma and its own unit, once, on leaving', async () => {
    const { field, onCommit } = figure();
    await write(field, '14,5 A');
    expect(onCommit.mock.calls).toEqual([[14.5]]);
  });

  test('leaving it as it was changes nothing', async () => {
    const { field, onCommit } = figure();
    await write(field, '12');
    expect(onCommit).not.toHaveBeenCalled();
  });

  test.each(['many', '-1', '501', ''])('%j stays, with what is accepted', async (text) => {
    const { field, onCommit } = figure();
    await write(field, text);
    expect(onCommit).not.toHaveBeenCalled();
    expect(field).toHaveProperty('value', text);
    screen.getByText('Current: enter a number from 0 to 500, in A.');
  });

  test('it may be emptied where that means something, and starts empty where there is nothing yet', async () => {
    const onClear = jest.fn();
    const { field, onCommit } = figure({ onClear });
    await write(field, '');
    expect([onClear.mock.calls.length, onCommit.mock.calls.length]).toEqual([1, 0]);
    await write(field, 'none');
    screen.getByText('Current: enter a number from 0 to 500, in A, or leave it empty.');
  });

  test('with nothing yet it is empty, and leaving it so is no fault', async () => {
    const { field, onCommit } = figure({ value: null });
    expect(field).toHaveProperty('value', '');
    await userEvent.click(field);
    await userEvent.tab();
    expect(screen.queryByRole('alert')).toBeNull();
    expect(onCommit).not.toHaveBeenCalled();
  });
});

test('a short text tells what is wrong with it, under a label of its own', async () => {
  const onChange = jest.fn();
  render(<TextField label="Name" value="" max={10} problem="Give it a name." onChange={onChange} />);
  const field = screen.getByLabelText('Name');
  screen.getByText('Give it a name.');
  expect(field.getAttribute('aria-invalid')).toBe('true');
  await userEvent.type(field, 'A');
  expect(onChange).toHaveBeenCalledWith('A');
});

describe('what is typed and not taken over', () => {
  const fields = {
    count: (onCommit: () => void) => <CountField label="Grooves" value={6} max={60} onCommit={onCommit} />,
    figure: (onCommit: () => void) => <FigureField label="Grooves" unit="A" value={6} onCommit={onCommit} />,
    length: (onCommit: () => void) => <QuantityField label="Grooves" mm={6} unit="mm" onCommit={onCommit} />,
  };
  const at = (place: string, field: (onCommit: () => void) => React.ReactNode, onCommit = jest.fn()) => {
    const { unmount } = render(<TypedPlace at={place}>{field(onCommit)}</TypedPlace>);
    return { unmount, onCommit, field: screen.getByRole('textbox') };
  };

  test.each(Object.entries(fields))(
    'into a %s comes back when the field does, at its own place only, until it is taken over',
    async (kind, field) => {
      const first = at(`${kind} a`, field);
      await userEvent.clear(first.field);
      await userEvent.type(first.field, '1x');
      first.unmount();
      const other = at(`${kind} b`, field);
      expect(other.field).not.toHaveProperty('value', '1x');
      other.unmount();
      const again = at(`${kind} a`, field);
      expect(again.field).toHaveProperty('value', '1x');
      expect(hasTyped(`${kind} a`)).toBe(true);
      await userEvent.clear(again.field);
      await userEvent.type(again.field, '12{Enter}');
      expect(again.onCommit).toHaveBeenCalledWith(12);
      expect(hasTyped(`${kind} a`)).toBe(false);
    },
  );

  test.each(Object.entries(fields))(
    'into a %s is taken over when the page goes away, where it can be read',
    async (kind, field) => {
      const { field: input, onCommit } = at(`${kind} c`, field);
      await userEvent.clear(input);
      await userEvent.type(input, '17');
      fireEvent(window, new Event('pagehide'));
      expect(onCommit.mock.calls).toEqual([[17]]);
    },
  );

  test('is in the session, so that a reload finds it, and can be forgotten as a whole', async () => {
    const { field } = at('place', fields.count);
    await userEvent.clear(field);
    await userEvent.type(field, 'half');
    expect(Object.entries(sessionStorage)).toContainEqual(['emery-typed:place/Grooves', '"half"']);
    forgetTyped('place');
    expect(hasTyped('place')).toBe(false);
  });
});

describe('a question with outcomes', () => {
  const outcomes = [
    { outcome: 'v', label: 'V' },
    { outcome: 'u', label: 'U' },
  ] as const;

  test('says which outcome stands, in words and to who does not see it, and hands on every tap', async () => {
    const onSay = jest.fn();
    render(
      <AskCard
        label="Profile"
        ask="What shape?"
        how={<p>Look along it.</p>}
        brief
        outcomes={outcomes}
        said="u"
        onSay={onSay}
      />,
    );
    expect(screen.getByRole('button', { name: '✓ U' }).getAttribute('aria-pressed')).toBe('true');
    expect(screen.getByRole('button', { name: 'V' }).getAttribute('aria-pressed')).toBe('false');
    await userEvent.click(screen.getByRole('button', { name: 'V' }));
    await userEvent.click(screen.getByRole('button', { name: '✓ U' }));
    expect(onSay.mock.calls).toEqual([['v'], ['u']]);
    screen.getByRole('group', { name: 'Profile' });
  });

  test('shows how at once where it is not brief, and no buttons where there is nothing to choose', () => {
    render(<AskCard label="Depth" ask="How deep?" how={<p>Set the gauge square.</p>} />);
    screen.getByText('Set the gauge square.');
    expect(screen.queryAllByRole('button')).toEqual([]);
  });
});

describe('figures that can be read two ways', () => {
  const shown = (props: Partial<Parameters<typeof FigureField>[0]>) => {
    const onCommit = jest.fn();
    const { label = 'Present tension', unit = 'N' } = props;
    render(<FigureField label={label} unit={unit} value={null} min={0} max={20_000} onCommit={onCommit} {...props} />);
    return { onCommit, field: screen.getByLabelText(`${label}, ${unit}`) };
  };

  test.each(['1,250', '1.250'])('%s N is asked about, stays as it was typed, and nothing is taken', async (text) => {
    const { field, onCommit } = shown({});
    await userEvent.type(field, text);
    await userEvent.tab();
    expect(onCommit).not.toHaveBeenCalled();
    expect(field).toHaveProperty('value', text);
    screen.getByText(/Present tension: .* could be 1250 or 1\.250\. Write 1250/);
    await userEvent.clear(field);
    await userEvent.type(field, '1 250{Enter}');
    expect(onCommit.mock.calls).toEqual([[1250]]);
  });

  test('an engine speed and an odometer have thousands and no such decimals', async () => {
    const idle = shown({ label: 'Redline', unit: 'rev/min' });
    await userEvent.type(idle.field, '4,600{Enter}');
    expect(idle.onCommit.mock.calls).toEqual([[4600]]);
    const odometer = shown({ label: 'Odometer', unit: 'km', max: 1e7 });
    await userEvent.type(odometer.field, '152,000{Enter}');
    expect(odometer.onCommit.mock.calls).toEqual([[152_000]]);
  });

  test('what is odd is asked about: leaving the field takes nothing, Enter says that it is meant', async () => {
    const doubtOf = (value: number) => (value < 152_000 ? 'below the last reading.' : null);
    const { field, onCommit } = shown({ label: 'Odometer', unit: 'km', max: 1e7, doubtOf });
    await userEvent.type(field, '15,200');
    screen.getByText('Odometer: below the last reading. Correct it, or press Enter to confirm.');
    await userEvent.tab();
    expect(onCommit).not.toHaveBeenCalled();
    expect(field).toHaveProperty('value', '15,200');
    await userEvent.type(field, '{Enter}');
    expect(onCommit.mock.calls).toEqual([[15_200]]);
    await userEvent.clear(field);
    await userEvent.type(field, '153000{Enter}');
    expect(onCommit.mock.calls).toEqual([[15_200], [153_000]]);
  });

  test('a figure with three decimals starts so that it reads back', async () => {
    const { field, onCommit } = shown({ value: 1.25 });
    expect(field).toHaveProperty('value', '1.25');
    await userEvent.click(field);
    await userEvent.tab();
    expect(onCommit).not.toHaveBeenCalled();
  });
});

test('any of a few are taken and let go, by a tap and by the space bar', async () => {
  const taken: string[][] = [];
  function Some() {
    const [values, setValues] = useState<('a' | 'b')[]>([]);
    return (
      <SomeOf
        label="It drives"
        values={values}
        options={[
          { value: 'a', label: 'Alternator' },
          { value: 'b', label: 'Pump' },
        ]}
        onChange={(next) => {
          taken.push(next);
          setValues(next);
        }}
      />
    );
  }
  render(<Some />);
  const group = screen.getByRole('group', { name: 'It drives' });
  await userEvent.click(screen.getByLabelText('Pump'));
  screen.getByLabelText('Alternator').focus();
  await userEvent.keyboard(' ');
  await userEvent.click(screen.getByLabelText('Pump'));
  expect(taken).toEqual([['b'], ['b', 'a'], ['a']]);
  expect(group.querySelectorAll('.chip.is-chosen')).toHaveLength(1);
});
