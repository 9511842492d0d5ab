import { Suspense } from 'react';
import { later } from '@/shell/later';

const BrandPlace = later(async () => (await import('@/brand/BrandPlace')).BrandPlace);

export default function BrandRoute() {
  return (
    <Suspense>
      <BrandPlace />
    </Suspense>
  );
}
