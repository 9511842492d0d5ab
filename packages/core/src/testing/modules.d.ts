declare module 'smpte-timecode' {
  export default class Timecode {
    constructor(frame: number, rate: 23.976 | 24 | 25 | 29.97 | 30 | 50 | 59.94 | 60, drop: boolean);
    toString(): string;
  }
}
