import { Suspense } from 'react';
import { later } from '@/shell/later';

const ShelfPlace = later(async () => (await import('@/shelf/ShelfPlace')).ShelfPlace);

export default function ShelfRoute() {
  return (
    <Suspense>
      <ShelfPlace />
    </Suspense>
  );
}
