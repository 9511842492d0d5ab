import { QueryClient, QueryClientProvider, useQuery } from '@tanstack/react-query';
import { act, createElement } from 'react';
import { createRoot } from 'react-dom/client';
import { useGivesWay } from './giveWay';

Object.assign(globalThis, { IS_REACT_ACT_ENVIRONMENT: true });

const begun: AbortSignal[] = [];

function measure({ signal }: { signal: AbortSignal }): Promise<number> {
  begun.push(signal);
  return new Promise(() => undefined);
}

function Measured({ may }: { may: boolean }) {
  useGivesWay(['measured'], may);
  useQuery({ queryKey: ['measured'], queryFn: measure, enabled: may });
  return null;
}

it('a measurement ends when a render begins, and is made anew after it', async () => {
  const client = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  const root = createRoot(document.createElement('div'));
  const show = (may: boolean) =>
    act(async () =>
      root.render(createElement(QueryClientProvider, { client }, createElement(Measured, { may }))),
    );
  await show(true);
  expect(begun.map((s) => s.aborted)).toEqual([false]);
  await show(false);
  expect(begun.map((s) => s.aborted)).toEqual([true]);
  await show(true);
  expect(begun.map((s) => s.aborted)).toEqual([true, false]);
  await act(async () => root.unmount());
});
