import { execFileSync } from 'node:child_process';
import fc from 'fast-check';
import { mayBeInterlaced } from './interlaced';

/** A byte stream of H.264, as ffmpeg and x264 write it. */
const written = (...how: string[]) =>
  new Uint8Array(
    execFileSync('ffmpeg', [
      ...['-v', 'error', '-f', 'lavfi', '-i', 'testsrc2=s=320x192:r=25:d=0.2', '-c:v', 'libx264', ...how],
      ...['-f', 'h264', 'pipe:1'],
    ]),
  );

describe('fields in H.264, as x264 says them', () => {
  const profiles = [
    ['-profile:v', 'main', '-pix_fmt', 'yuv420p'],
    ['-profile:v', 'high', '-pix_fmt', 'yuv420p'],
    ['-profile:v', 'high10', '-pix_fmt', 'yuv420p10le'],
    ['-profile:v', 'high444', '-pix_fmt', 'yuv444p'],
  ];
  it.each(profiles)('%s %s %s %s', (...profile) => {
    expect(mayBeInterlaced(undefined, written(...profile))).toBe(false);
    expect(mayBeInterlaced(undefined, written(...profile, '-flags', '+ildct+ilme'))).toBe(true);
  });

  it('also with scaling lists, and in the record of a container', () => {
    const stream = written('-flags', '+ildct+ilme', '-x264-params', 'cqm=jvt');
    expect(mayBeInterlaced(undefined, stream)).toBe(true);
    // The record as ISO/IEC 14496-15 lays it out: five bytes, then how many sets, each with its length.
    const from = stream.findIndex((b, i) => (b & 31) === 7 && stream[i - 1] === 1 && stream[i - 2] === 0);
    const to = stream.findIndex((b, i) => i > from && b === 0 && stream[i + 1] === 0 && stream[i + 2] === 1);
    const set = stream.subarray(from, to);
    const record = new Uint8Array([1, 100, 0, 31, 0xff, 0xe1, set.length >> 8, set.length & 255, ...set]);
    expect(mayBeInterlaced(record, new Uint8Array())).toBe(true);
  });

  it('of bytes that are none is false, whatever they are', () => {
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 60 }), fc.boolean(), (bytes, record) => {
        const stream = new Uint8Array([0, 0, 1, 0x67, ...bytes]);
        return typeof mayBeInterlaced(record ? bytes : undefined, stream) === 'boolean';
      }),
      { numRuns: 300 },
    );
  });
});
