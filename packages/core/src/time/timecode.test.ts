import Timecode from 'smpte-timecode';
import { frameOfTimecode, timecodeAt } from './timecode';

const NTSC30 = { num: 30000, den: 1001 };
const NTSC60 = { num: 60000, den: 1001 };

describe('timecode against the smpte-timecode package', () => {
  const frames = [0, 1, 29, 30, 1799, 1800, 1801, 17981, 17982, 17983, 107892, 1_000_000, 2_589_407];

  it.each(frames)('drop-frame 29.97, frame %i', (frame) => {
    expect(timecodeAt(frame, NTSC30)).toBe(new Timecode(frame, 29.97, true).toString());
  });

  it.each(frames)('drop-frame 59.94, frame %i', (frame) => {
    expect(timecodeAt(frame, NTSC60)).toBe(new Timecode(frame, 59.94, true).toString());
  });

  it.each([24, 25, 30])('without dropping, %i frames a second', (fps) => {
    for (let frame = 0; frame < 200_000; frame += 997) {
      expect(timecodeAt(frame, { num: fps, den: 1 })).toBe(new Timecode(frame, fps as 25, false).toString());
    }
  });
});

describe('timecode by SMPTE ST 12-1', () => {
  it('skips ;00 and ;01 at each minute but every tenth', () => {
    expect(timecodeAt(1799, NTSC30)).toBe('00:00:59;29');
    expect(timecodeAt(1800, NTSC30)).toBe('00:01:00;02');
    expect(timecodeAt(17982, NTSC30)).toBe('00:10:00;00');
  });

  it('keeps up with the clock: an hour of 29.97 is 107,892 frames', () => {
    expect(timecodeAt(107892, NTSC30)).toBe('01:00:00;00');
  });

  it('reads back every number it writes', () => {
    for (let frame = 0; frame < 120_000; frame += 61) {
      expect(frameOfTimecode(timecodeAt(frame, NTSC30), NTSC30)).toBe(frame);
      expect(frameOfTimecode(timecodeAt(frame, NTSC60), NTSC60)).toBe(frame);
    }
  });

  it('names what is wrong', () => {
    expect(() => frameOfTimecode('1:2', NTSC30)).toThrow('Write it as 00:00:02:12');
    expect(() => frameOfTimecode('00:01:00;00', NTSC30)).toThrow('does not exist');
    expect(() => frameOfTimecode('00:00:00;05', { num: 25, den: 1 })).toThrow('does not');
    expect(() => frameOfTimecode('00:00:61:00', NTSC30)).toThrow('past what');
  });
});
