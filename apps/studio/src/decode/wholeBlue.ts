import { VideoSample } from 'mediabunny';

/**
 * Blue of the limited range of BT.709, where the browser does not give it whole.
 *
 * Without a graphics card, browsers turn frames into RGB with eight-bit factors, and the 2.112 that Cb counts for in
 * blue (ITU-R BT.709 §3, at 219 and 224 steps) does not fit: it is cut to 2, and strong blues and yellows come out up
 * to 12 steps off. With its Cb drawn out as much, a frame comes out right; green, to which Cb lends little, is then at
 * most 1.3 steps off.
 */

let faulty: boolean | undefined;

/** Whether this browser cuts that factor, seen on a frame of one blue. */
function cutsBlue(): boolean {
  // (30, 60, 201) by the standard.
  const sample = new VideoSample(new Uint8Array([71, 71, 71, 71, 193, 109]), {
    format: 'I420',
    codedWidth: 2,
    codedHeight: 2,
    timestamp: 0,
    colorSpace: { matrix: 'bt709', primaries: 'bt709', transfer: 'bt709', fullRange: false },
  });
  const context = new OffscreenCanvas(2, 2).getContext('2d')!;
  sample.draw(context, 0, 0, 2, 2);
  sample.close();
  return context.getImageData(0, 0, 1, 1).data[2]! < 198;
}

/** Cb as much farther from its middle as the factor is cut. */
const DRAWN_OUT = Uint8Array.from(
  Uint8ClampedArray.from({ length: 256 }, (_, v) => 128 + ((v - 128) * 2.112) / 2),
);

/** Room for the planes of a frame, kept from one to the next. */
let scratch: Uint8Array | undefined;

/** The sample as it is, or one whose blue comes out whole. The one that is not given back is closed. */
export async function withWholeBlue(sample: VideoSample): Promise<VideoSample> {
  const { format, colorSpace } = sample;
  if (colorSpace.matrix !== 'bt709' || colorSpace.fullRange !== false) return sample;
  if (format !== 'I420' && format !== 'I420A') return sample;
  faulty ??= cutsBlue();
  if (!faulty) return sample;
  const { width, height } = sample.visibleRect;
  const size = sample.allocationSize();
  // Taken while it is in use, so that two clips do not write to the same.
  let data = scratch;
  scratch = undefined;
  if (data?.length !== size) data = new Uint8Array(size);
  const layout = await sample.copyTo(data);
  const [, cb, cr] = layout;
  for (let i = cb!.offset; i < cr!.offset; i++) data[i] = DRAWN_OUT[data[i]!]!;
  const frame = new VideoFrame(data, {
    format,
    layout,
    codedWidth: width,
    codedHeight: height,
    timestamp: sample.microsecondTimestamp,
    colorSpace: colorSpace.toJSON(),
  });
  scratch = data;
  const { timestamp, duration, rotation, flip, displayWidth, displayHeight } = sample;
  sample.close();
  return new VideoSample(frame, { timestamp, duration, rotation, flip, displayWidth, displayHeight });
}
