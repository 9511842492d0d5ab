import { render, screen, userEvent } from '@testing-library/react-native';
import * as jobs from '../render/queue/jobs';
import type { RenderJob } from '../render/queue/queue';
import { JobRow } from './JobRow';

jest.mock('../render/queue/jobs', () => ({
  cancelRender: jest.fn(),
  forgetRender: jest.fn(),
  moveRender: jest.fn(),
  pauseRender: jest.fn(),
  resumeRender: jest.fn(),
}));
jest.mock('../disk/pickFile', () => ({ saveFile: jest.fn() }));
jest.mock('../render/workers/soundCodec', () => ({ SOUND_NAMES: {} }));

const job = (part: Partial<RenderJob>) =>
  ({
    id: 'one',
    reelId: 'strap',
    plan: {
      ...{ format: 'webm', width: 960, height: 540, rate: { num: 25, den: 1 } },
      ...{ from: 0, count: 200, fileName: 'marit.webm' },
    },
    frames: 0,
    ...part,
  }) as RenderJob;

/** What is said of a render, and what can be done with it. */
const seen = (part: Partial<RenderJob>) => {
  render(<JobRow job={job(part)} />);
  return screen.getAllByRole('button').map((e) => e.props.accessibilityLabel as string);
};

it.each([
  ['waiting', { frames: 0 }, 'Waits for its turn.', ['Pause', 'Cancel']],
  ['waiting', { frames: 25 }, 'Waits, and goes on from frame 25 of 200.', ['Pause', 'Cancel']],
  ['paused', { frames: 25 }, 'Paused at frame 25 of 200.', ['Go on', 'Cancel']],
  [
    'fault',
    { frames: 25, message: 'The disk is full.' },
    'Stopped at frame 25 of 200: The disk is full.',
    ['Try again', 'Cancel'],
  ],
  ['cancelled', {}, 'Cancelled. Nothing was kept.', ['Take marit.webm off the list']],
] as const)('one that is %s says so, and what can be done', (state, part, words, buttons) => {
  expect(seen({ state, ...part })).toEqual(buttons);
  expect(screen.getByText(words)).toBeTruthy();
});

it('does what is touched, with this render and no other', async () => {
  seen({ state: 'paused', frames: 3 });
  await userEvent.press(screen.getByTestId('render-resume'));
  await userEvent.press(screen.getByTestId('render-cancel'));
  expect([jobs.resumeRender, jobs.cancelRender].map((f) => (f as jest.Mock).mock.calls)).toEqual([
    [['one']],
    [['one']],
  ]);
});

it('among others that wait it can be moved, but not past the ends', () => {
  const { rerender } = render(<JobRow job={job({ state: 'waiting' })} line={{ place: 0, count: 3 }} />);
  expect(screen.getByTestId('render-earlier')).toBeDisabled();
  expect(screen.getByTestId('render-later')).toBeEnabled();
  rerender(<JobRow job={job({ state: 'waiting' })} line={{ place: 2, count: 3 }} />);
  expect(screen.getByTestId('render-earlier')).toBeEnabled();
  expect(screen.getByTestId('render-later')).toBeDisabled();
  rerender(<JobRow job={job({ state: 'waiting' })} line={{ place: 0, count: 1 }} />);
  expect(screen.queryByTestId('render-earlier')).toBeNull();
});
