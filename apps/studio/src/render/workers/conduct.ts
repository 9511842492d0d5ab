import { messageOf, type OutputFormat, type Reel, type RenderPlan } from '@fresh-reel/core';
import { startWorker, WorkerEnded } from '../../workers/startWorker';
import type { FromRender, JournalName, ToRender } from './messages';
import { crewSize } from './paintCrew';
import type { FromPainter, PaintJob, ToPainter } from './paintMessages';
import { givePicture, suppliesOf } from './supplies';

/** The workers of one render: one conducts it and writes the file, the others paint. */
export interface Conducted {
  /** Has it stop; the workers say when they have. */
  stop(): void;
  /** Ends the workers. What they have not written down is gone. */
  end(): void;
}

interface Along {
  /** Of the frames of the plan, only these, to see how long the whole takes. */
  readonly sample?: readonly number[];
  /** By what it goes on with what an earlier attempt has written. */
  readonly journal?: JournalName;
}

/** Starts a render in workers of its own. */
export function conduct(
  reel: Reel,
  plan: RenderPlan<OutputFormat>,
  hear: (message: FromRender) => void,
  { sample, journal }: Along = {},
): Conducted {
  const worker = startWorker('render');
  // What is only heard is not painted.
  const size =
    plan.format === 'wav' ? 0 : crewSize(sample?.length ?? plan.count, navigator.hardwareConcurrency || 1);
  const painters = Array.from({ length: size }, () => startWorker('paint'));
  let ended = false;
  const end = () => {
    ended = true;
    for (const each of [worker, ...painters]) each.terminate();
  };
  // What was on its way when it ended is nobody's any more.
  const tell = (message: FromRender) => ended || hear(message);
  const fault = (message: string) => tell({ type: 'fault', message });
  worker.onmessage = ({ data }: MessageEvent<FromRender>) => tell(data);
  for (const each of [worker, ...painters])
    each.onerror = ({ error, message }) =>
      tell({
        type: 'fault',
        message: message || 'The render stopped for a reason the browser does not tell.',
        ...(error instanceof WorkerEnded ? { lost: true } : {}),
      });
  for (const painter of painters)
    painter.onmessage = ({ data }: MessageEvent<FromPainter>) => void givePicture(painter, data.needs);
  begin(worker, painters, { reel, plan, ...(sample ? { sample } : {}) }, journal).catch((error: unknown) =>
    fault(messageOf(error)),
  );
  return { stop: () => worker.postMessage({ type: 'stop' } satisfies ToRender), end };
}

/** A port to each painter, through which the worker that conducts the render speaks with it. */
function portsTo(painters: readonly Worker[]): MessagePort[] {
  return painters.map((painter) => {
    const { port1, port2 } = new MessageChannel();
    painter.postMessage({ type: 'conductor', port: port1 } satisfies ToPainter, [port1]);
    return port2;
  });
}

async function begin(
  to: Worker,
  painters: readonly Worker[],
  wanted: Pick<PaintJob, 'reel' | 'plan' | 'sample'>,
  journal: JournalName | undefined,
): Promise<void> {
  const supplies = await suppliesOf(wanted.reel);
  const ports = portsTo(painters);
  const job: PaintJob = { ...wanted, ...supplies };
  const message = { type: 'start', job, painters: ports, ...(journal ? { journal } : {}) } as const;
  to.postMessage(message satisfies ToRender, ports);
}
