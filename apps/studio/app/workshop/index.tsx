import { Suspense } from 'react';
import { later } from '@/shell/later';

const WorkshopPlace = later(async () => (await import('@/workshop/WorkshopPlace')).WorkshopPlace);

export default function WorkshopRoute() {
  return (
    <Suspense>
      <WorkshopPlace />
    </Suspense>
  );
}
