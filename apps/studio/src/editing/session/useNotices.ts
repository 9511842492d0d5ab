import type { Notice } from '@fresh-reel/core';
import { useMemo } from 'react';
import type { PreviewSurface } from '../../preview/previewClient';
import { sameContent, usePreviewState } from '../../preview/usePreview';

/** What the frame shown now says of one graphic's slots. */
export function useNotices(surface: PreviewSurface, graphic: string | undefined): readonly Notice[] {
  const shown = usePreviewState(surface, (s) => s.frame?.notices, sameContent);
  return useMemo(() => (shown ?? []).filter((n) => n.item === graphic), [shown, graphic]);
}
