import { VideoSample } from 'mediabunny';

/**
 * Colours of the limited range of BT.709, where the browser does not give them whole.
 *
 * Without a graphics card, browsers turn frames into RGB with eight-bit factors, and the 2.112 that Cb counts for in
 * blue (ITU-R BT.709 §3, at 219 and 224 steps) does not fit: it is cut to 2.0, and strong blues and yellows come out
 * up to 12 steps off. The same frame stretched to the full range has factors that fit.
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

const mapped = (of: (v: number) => number) => Uint8ClampedArray.from({ length: 256 }, (_, v) => of(v));
/** Steps of the limited range as steps of the full one (ITU-T H.273 §8.3). */
const LIGHT = mapped((v) => ((v - 16) * 255) / 219);
const CHROMA = mapped((v) => ((v - 128) * 255) / 224 + 128);

/** The sample as it is, or the same in the full range where it would lose colour. The one that is not given back is closed. */
export async function inFullRange(sample: VideoSample): Promise<VideoSample> {
  const { format, colorSpace } = sample;
  if (colorSpace.matrix !== 'bt709' || colorSpace.fullRange !== false) return sample;
  if (format !== 'I420' && format !== 'I420A') return sample;
  faulty ??= cutsBlue();
  if (!faulty) return sample;
  const { width, height } = sample.visibleRect;
  const data = new Uint8Array(sample.allocationSize());
  const layout = await sample.copyTo(data);
  const ends = [...layout.slice(1).map((p) => p.offset), data.length];
  for (const [plane, map] of [LIGHT, CHROMA, CHROMA].entries()) {
    for (let i = layout[plane]!.offset; i < ends[plane]!; i++) data[i] = map[data[i]!]!;
  }
  const whole = new VideoSample(data, {
    format,
    layout,
    codedWidth: width,
    codedHeight: height,
    displayWidth: sample.displayWidth,
    displayHeight: sample.displayHeight,
    rotation: sample.rotation,
    flip: sample.flip,
    timestamp: sample.timestamp,
    duration: sample.duration,
    colorSpace: {
      matrix: 'bt709',
      primaries: colorSpace.primaries ?? 'bt709',
      transfer: colorSpace.transfer ?? 'bt709',
      fullRange: true,
    },
  });
  sample.close();
  return whole;
}
