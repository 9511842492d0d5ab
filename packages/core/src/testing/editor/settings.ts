import type { ControlValue } from '../../documents/fill';
import type { Control } from '../../documents/template';

/** A value that a control takes, from a number between 0 and 1. */
export function settingOf(control: Control, part: number): ControlValue {
  switch (control.kind) {
    case 'number':
    case 'duration': {
      const step = control.kind === 'number' ? control.step : 1;
      const steps = Math.round((part * (control.max - control.min)) / step);
      return Math.min(control.max, control.min + steps * step);
    }
    case 'colour':
      return `#${Math.floor(part * 0xffffff)
        .toString(16)
        .padStart(6, '0')}`;
    case 'choice':
      return control.options[Math.min(control.options.length - 1, Math.floor(part * control.options.length))]!
        .id;
    case 'switch':
      return part > 0.5;
    case 'point':
      return [part, 1 - part];
    case 'font':
      return part > 0.5 ? 'Figtree' : 'Fraunces';
    case 'path':
      return part > 0.5 ? 'M0 0.2C0.3 0 0.6 1 1 0.8' : 'M0 0L1 1L0 1Z';
  }
}
