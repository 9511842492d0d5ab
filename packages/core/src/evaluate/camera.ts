import type { Template } from '../documents/template';
import { type Matrix4, multiply4, perspective4, translation4, turn4 } from '../geometry/matrix';
import type { ValueOf } from '../layers/common';
import type { Size } from '../layers/kind';

/** The camera: perspective about the middle of the frame, after the inverse of the camera's own place and turn. */
export function cameraMatrix(camera: Template['camera'], frame: Size, value: ValueOf): Matrix4 {
  const [cx, cy] = [frame.width / 2, frame.height / 2];
  const [x, y, z] = value(camera.position);
  const [tx, ty, tz] = value(camera.turn);
  const lens = perspective4(Math.max(1, value(camera.distance)), cx, cy);
  if (!x && !y && !z && !tx && !ty && !tz) return lens;
  const about = multiply4(
    translation4(cx, cy, 0),
    multiply4(turn4(-tx, -ty, -tz), translation4(-cx, -cy, 0)),
  );
  return multiply4(lens, multiply4(about, translation4(-x, -y, -z)));
}
