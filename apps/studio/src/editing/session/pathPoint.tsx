import { createContext, useContext } from 'react';

/** The point of the drawn path that is chosen, shared by the picture and the row of buttons. */
export interface PathPointChoice {
  readonly point: number | undefined;
  readonly choosePoint: (index: number | undefined) => void;
  /** Whether a handle moves without the other one. */
  readonly apart: boolean;
  readonly setApart: (apart: boolean) => void;
}

const PathPointContext = createContext<PathPointChoice>({
  point: undefined,
  choosePoint: () => undefined,
  apart: false,
  setApart: () => undefined,
});
export const PathPointProvider = PathPointContext.Provider;
export const usePathPoint = () => useContext(PathPointContext);
