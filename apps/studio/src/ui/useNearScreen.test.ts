import { whetherNear } from './useNearScreen';

it('what is near is what was heard last, when several changes are heard at once', () => {
  let hear: (entries: { isIntersecting: boolean }[]) => void = () => undefined;
  const observed: unknown[] = [];
  class Observer {
    constructor(heard: typeof hear) {
      hear = heard;
    }
    observe = (element: unknown) => observed.push(element);
    disconnect = () => observed.pop();
  }
  Object.assign(globalThis, { IntersectionObserver: Observer });
  const told: boolean[] = [];
  const element = {} as Element;
  const stop = whetherNear(element, (near) => told.push(near));
  hear([{ isIntersecting: false }, { isIntersecting: true }]);
  hear([{ isIntersecting: false }]);
  expect(told).toEqual([true, false]);
  expect(observed).toEqual([element]);
  stop();
  expect(observed).toEqual([]);
});
