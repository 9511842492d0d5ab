import { Field } from '../ui/Field';

/** Longest name of a template and of a set. */
export const LONGEST_NAME = 80;

interface Props {
  readonly name: string;
  readonly onName: (name: string) => void;
  readonly set: string;
  readonly onSet: (set: string) => void;
  /** What the test IDs of the two fields begin with. */
  readonly testID: string;
}

/** What a template of the user's is called, and the set it belongs to. */
export function NameAndSet({ name, onName, set, onSet, testID }: Props) {
  return (
    <>
      <Field
        label="Name"
        value={name}
        onChangeText={onName}
        maxLength={LONGEST_NAME}
        fault={name.trim() === '' ? 'A template needs a name.' : undefined}
        testID={`${testID}-name`}
      />
      <Field
        label="Set it belongs to, if any"
        value={set}
        onChangeText={onSet}
        maxLength={LONGEST_NAME}
        testID={`${testID}-set`}
      />
    </>
  );
}
