import { fireEvent, render, screen, userEvent } from '@testing-library/react-native';
import { useState } from 'react';
import { Field } from './Field';
import { NumberBox } from './NumberBox';
import { NumberRow } from './NumberRow';

const nothing = () => undefined;

const onChange = jest.fn();
const onSettle = jest.fn();

/** A box that holds what it is given. */
function Held({ start }: { start: number }) {
  const [value, setValue] = useState(start);
  const put = (next: number) => {
    onChange(next);
    setValue(next);
  };
  const rest = { label: 'Size', unit: 'px', digits: 1, step: 0.5, testID: 'size' };
  return <NumberBox {...rest} value={value} onChange={put} onSettle={onSettle} />;
}

describe('a box for a number', () => {
  beforeEach(() => {
    for (const heard of [onChange, onSettle]) heard.mockClear();
  });

  const key = (name: string, shiftKey = false) =>
    fireEvent(screen.getByTestId('size'), 'keyPress', {
      nativeEvent: { key: name, shiftKey },
      preventDefault: nothing,
    });

  it('takes a number, a comma, and a small sum, when it is left or at Enter', () => {
    render(<Held start={12} />);
    const field = screen.getByLabelText('Size, number');
    for (const [typed, number] of [
      ['7,5', 7.5],
      ['120/2', 60],
      ['3*4 + 1', 13],
    ] as const) {
      fireEvent(field, 'focus');
      fireEvent.changeText(field, typed);
      expect(field.props.value).toBe(typed);
      if (number === 60) key('Enter');
      else fireEvent(field, 'blur');
      expect(onChange).toHaveBeenLastCalledWith(number);
      fireEvent(field, 'blur');
      expect(field.props.value).toBe(number.toFixed(1));
    }
    // One step of undo for each.
    expect(onSettle).toHaveBeenCalledTimes(3);
  });

  it('puts back what it held where that is no number, and says nothing', () => {
    render(<Held start={12} />);
    const field = screen.getByTestId('size');
    for (const typed of ['', 'wide', '4 +', 'alert(1)']) {
      fireEvent(field, 'focus');
      fireEvent.changeText(field, typed);
      fireEvent(field, 'blur');
      expect(field.props.value).toBe('12.0');
    }
    expect([onChange, onSettle].map((heard) => heard.mock.calls)).toEqual([[], []]);
  });

  it('steps by the arrows, ten at a time with Shift, from what is typed', () => {
    render(<Held start={12} />);
    const field = screen.getByTestId('size');
    fireEvent(field, 'focus');
    key('ArrowUp');
    expect(onChange).toHaveBeenLastCalledWith(12.5);
    key('ArrowDown', true);
    expect(onChange).toHaveBeenLastCalledWith(7.5);
    fireEvent.changeText(field, '40');
    key('ArrowUp');
    expect(onChange).toHaveBeenLastCalledWith(40.5);
  });

  it('shows what changes elsewhere, but not under what is being typed', () => {
    const view = (value: number) => (
      <NumberBox label="Size" unit="" digits={0} step={1} testID="size" value={value} onChange={nothing} />
    );
    const { rerender } = render(view(3));
    const field = screen.getByTestId('size');
    rerender(view(4));
    expect(field.props.value).toBe('4');
    fireEvent(field, 'focus');
    fireEvent.changeText(field, '12');
    rerender(view(5));
    expect(field.props.value).toBe('12');
  });
});

describe('a row for a number', () => {
  const row = (value: number, more: object) => (
    <NumberRow
      name="Turn"
      unit="°"
      min={-45}
      max={45}
      step={1}
      testID="turn"
      resets
      value={value}
      onChange={nothing}
      onSettle={nothing}
      {...more}
    />
  );

  it('keeps what is typed within its ends', () => {
    const heard = jest.fn();
    render(row(0, { onChange: heard }));
    const field = screen.getByLabelText('Turn, number');
    for (const [typed, number] of [
      ['400', 45],
      ['-400', -45],
    ] as const) {
      fireEvent(field, 'focus');
      fireEvent.changeText(field, typed);
      fireEvent(field, 'blur');
      expect(heard).toHaveBeenLastCalledWith(number);
    }
  });

  it('offers its rest only where it is away from it, and goes back as one step', async () => {
    const heard: string[] = [];
    const more = {
      rest: 0,
      onChange: (value: number) => heard.push(`to ${value}`),
      onSettle: () => heard.push('settled'),
    };
    const { rerender } = render(row(0, more));
    expect(screen.queryByTestId('reset-turn')).toBeNull();
    rerender(row(12, more));
    await userEvent.press(screen.getByTestId('reset-turn'));
    expect(heard).toEqual(['to 0', 'settled']);
  });
});

it('a field for words says its fault beside it, and to who cannot see it', () => {
  const { rerender } = render(<Field label="Name of the part" value="" onChangeText={nothing} />);
  expect(screen.getByLabelText('Name of the part').props['aria-invalid']).toBeUndefined();
  rerender(<Field label="Name of the part" value="" onChangeText={nothing} fault="Say what it is called." />);
  expect(screen.getByLabelText('Name of the part').props['aria-invalid']).toBe(true);
  expect(screen.getByText('Say what it is called.')).toBeTruthy();
});
