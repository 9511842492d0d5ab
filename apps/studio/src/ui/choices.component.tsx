import { fireEvent, render, screen, userEvent } from '@testing-library/react-native';
import { Text } from 'react-native';
import { Banner } from './Banner';
import { Button } from './Button';
import { Choice } from './Choice';
import { Fold } from './Fold';
import { Toggle } from './Toggle';

it('a choice tells which of its options is chosen, and gives back the one that is touched', async () => {
  const onChange = jest.fn();
  const options = [
    { id: 'wide', name: 'Wide 16:9' },
    { id: 'tall', name: 'Tall 9:16' },
  ] as const;
  render(<Choice label="Frame" options={options} value="wide" onChange={onChange} testID="shape" />);
  expect(
    screen.getByTestId('shape').props['aria-label'] ?? screen.getByTestId('shape').props.accessibilityLabel,
  ).toBe('Frame');
  expect(screen.getByRole('radio', { checked: true })).toHaveTextContent('Wide 16:9');
  await userEvent.press(screen.getByTestId('shape-tall'));
  expect(onChange.mock.calls).toEqual([['tall']]);
});

it('a toggle is a switch that says how it stands, and turns over', async () => {
  const onChange = jest.fn();
  const { rerender } = render(<Toggle label="Compare some" value={false} onChange={onChange} />);
  await userEvent.press(screen.getByRole('switch', { name: 'Compare some', checked: false }));
  rerender(<Toggle label="Compare some" value onChange={onChange} hideLabel />);
  await userEvent.press(screen.getByRole('switch', { name: 'Compare some', checked: true }));
  expect(onChange.mock.calls).toEqual([[true], [false]]);
  expect(screen.queryByText('Compare some')).toBeNull();
});

it('a fold holds nothing of its inside while it is closed', async () => {
  const onTurn = jest.fn();
  const fold = (open: boolean) => (
    <Fold open={open} onTurn={onTurn} head={<Text>Size</Text>} openID="open-size">
      <Text>From 60 to 160</Text>
    </Fold>
  );
  const { rerender } = render(fold(false));
  expect(screen.queryByText('From 60 to 160')).toBeNull();
  await userEvent.press(screen.getByRole('button', { expanded: false }));
  expect(onTurn).toHaveBeenCalledTimes(1);
  rerender(fold(true));
  expect(screen.getByRole('button', { expanded: true })).toBeTruthy();
  expect(screen.getByText('From 60 to 160')).toBeTruthy();
});

it('a banner of a fault is an alert, another is a status, and its action works', async () => {
  const find = jest.fn();
  const { rerender } = render(
    <Banner kind="fault" testID="told" action={<Button title="Find files" onPress={find} />}>
      Two files are not here.
    </Banner>,
  );
  expect(screen.getByTestId('told').props.role).toBe('alert');
  expect(screen.getByTestId('told')).toHaveTextContent(/Two files are not here\./);
  await userEvent.press(screen.getByText('Find files'));
  expect(find).toHaveBeenCalledTimes(1);
  rerender(
    <Banner kind="done" testID="told">
      All of it is here.
    </Banner>,
  );
  expect(screen.getByTestId('told').props.role).toBe('status');
});

it('a button that cannot be pressed now says so, and does nothing', () => {
  const onPress = jest.fn();
  render(<Button title="Render" disabled onPress={onPress} testID="render" />);
  fireEvent.press(screen.getByTestId('render'));
  expect(onPress).not.toHaveBeenCalled();
  expect(screen.getByTestId('render')).toBeDisabled();
});
