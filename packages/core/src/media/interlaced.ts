/** Reads the bits of a NAL unit, emulation prevention taken out (ITU-T H.264, 7.3.1 and 9.1). */
class Bits {
  private at = 0;
  private readonly bytes: readonly number[];

  constructor(nal: Uint8Array) {
    this.bytes = [...nal].filter(
      (byte, i) => !(byte === 3 && i >= 2 && nal[i - 1] === 0 && nal[i - 2] === 0),
    );
  }

  bit(): number {
    const byte = this.bytes[this.at >> 3];
    if (byte === undefined) throw new RangeError('The parameter set is cut off.');
    return (byte >> (7 - (this.at++ & 7))) & 1;
  }

  bits(count: number): number {
    let value = 0;
    for (let i = 0; i < count; i++) value = value * 2 + this.bit();
    return value;
  }

  /** Exp-Golomb, unsigned and signed. */
  ue(): number {
    let zeros = 0;
    while (this.bit() === 0) if (++zeros > 32) throw new RangeError('The parameter set is damaged.');
    return 2 ** zeros - 1 + this.bits(zeros);
  }

  se(): number {
    const k = this.ue();
    return k % 2 === 0 ? -k / 2 : (k + 1) / 2;
  }
}

/** Profiles whose parameter set tells of chroma and scaling (7.3.2.1.1). */
const HIGH = new Set([100, 110, 122, 244, 44, 83, 86, 118, 128, 138, 139, 134, 135]);

function skipScalingList(bits: Bits, size: number): void {
  let [last, next] = [8, 8];
  for (let i = 0; i < size && next !== 0; i++) {
    next = (last + bits.se() + 256) % 256;
    if (next !== 0) last = next;
  }
}

/**
 * Whether an H.264 sequence parameter set says that its pictures may be fields (`frame_mbs_only_flag` is 0; ITU-T H.264,
 * 7.3.2.1.1).
 * @param nal the parameter set with its header byte
 * @throws {RangeError} when it is cut off
 */
function saysFields(nal: Uint8Array): boolean {
  const bits = new Bits(nal);
  bits.bits(8);
  const profile = bits.bits(8);
  bits.bits(16);
  bits.ue();
  if (HIGH.has(profile)) {
    const chroma = bits.ue();
    if (chroma === 3) bits.bit();
    bits.ue();
    bits.ue();
    bits.bit();
    if (bits.bit()) {
      for (let i = 0; i < (chroma === 3 ? 12 : 8); i++)
        if (bits.bit()) skipScalingList(bits, i < 6 ? 16 : 64);
    }
  }
  bits.ue();
  const order = bits.ue();
  if (order === 0) bits.ue();
  else if (order === 1) {
    bits.bit();
    bits.se();
    bits.se();
    for (let left = bits.ue(); left > 0; left--) bits.se();
  }
  bits.ue();
  bits.bit();
  bits.ue();
  bits.ue();
  return bits.bit() === 0;
}

/** Parameter sets of an `avcC` box (ISO/IEC 14496-15, 5.3.3). */
function setsOfRecord(record: Uint8Array): Uint8Array[] {
  const sets: Uint8Array[] = [];
  let at = 6;
  for (let left = record[5]! & 31; left > 0; left--) {
    const length = record[at]! * 256 + record[at + 1]!;
    sets.push(record.subarray(at + 2, at + 2 + length));
    at += 2 + length;
  }
  return sets;
}

/** Parameter sets of a byte stream (ITU-T H.264, annex B). */
function setsOfStream(stream: Uint8Array): Uint8Array[] {
  const starts: number[] = [];
  for (let i = 2; i < stream.length - 1; i++)
    if (stream[i] === 1 && stream[i - 1] === 0 && stream[i - 2] === 0) starts.push(i + 1);
  return starts
    .map((from, i) => stream.subarray(from, (starts[i + 1] ?? stream.length + 3) - 3))
    .filter((nal) => (nal[0]! & 31) === 7);
}

/**
 * Whether H.264 may hold fields of two moments in a frame: such footage shows combs where things move.
 * @param description the decoder's `avcC` record, where the container has one
 * @param packet else the first packet, as a byte stream
 * @returns false also of what cannot be read
 */
export function mayBeInterlaced(description: Uint8Array | undefined, packet: Uint8Array): boolean {
  try {
    return (description ? setsOfRecord(description) : setsOfStream(packet)).some(saysFields);
  } catch {
    return false;
  }
}
