import { createContext, type ReactNode, useContext, useRef } from 'react';
import { type StyleProp, View, type ViewStyle } from 'react-native';
import { Press } from './Press';
import { elementOf, onKeys, webProps } from './web';

interface Group {
  readonly value: string | undefined;
  /** The one that the Tab key comes to. */
  readonly stop: string | undefined;
  readonly choose: (id: string) => void;
}

const GroupContext = createContext<Group | undefined>(undefined);

interface Props {
  readonly label: string;
  /** Ids of the radios in it, in their order. */
  readonly ids: readonly string[];
  readonly value: string | undefined;
  readonly onChange: (id: string) => void;
  readonly style?: StyleProp<ViewStyle>;
  readonly testID?: string | undefined;
  /** Arrows only go from one to the next; what is chosen there closes the list. */
  readonly browse?: boolean;
  readonly children: ReactNode;
}

/**
 * One of several. The Tab key stops at it once; arrows go from one to the next and choose it
 * (ARIA Authoring Practices, radio group).
 */
export function RadioGroup({ label, ids, value, onChange, style, testID, browse = false, children }: Props) {
  const group = useRef<View>(null);
  const stop = value !== undefined && ids.includes(value) ? value : ids[0];
  const move = (by: number): boolean => {
    const radios = [...(elementOf(group)?.querySelectorAll<HTMLElement>('[role="radio"]') ?? [])];
    const at = radios.indexOf(document.activeElement as HTMLElement);
    const next = ids[(at + by + ids.length) % ids.length];
    if (at < 0 || next === undefined) return false;
    radios[ids.indexOf(next)]?.focus();
    if (!browse) onChange(next);
    return true;
  };
  const keys = onKeys((key) => {
    if (key === 'ArrowRight' || key === 'ArrowDown') return move(1);
    if (key === 'ArrowLeft' || key === 'ArrowUp') return move(-1);
    return false;
  });
  return (
    <View ref={group} role="radiogroup" aria-label={label} style={style} testID={testID} {...webProps(keys)}>
      <GroupContext.Provider value={{ value, stop, choose: onChange }}>{children}</GroupContext.Provider>
    </View>
  );
}

interface RadioProps {
  readonly id: string;
  readonly label: string;
  readonly style?: StyleProp<ViewStyle>;
  readonly testID?: string | undefined;
  readonly children: ReactNode;
}

/** One that can be chosen, in a {@link RadioGroup}. */
export function Radio({ id, label, style, testID, children }: RadioProps) {
  const group = useContext(GroupContext);
  if (!group) throw new Error('A radio stands in a group.');
  return (
    <Press
      role="radio"
      aria-checked={id === group.value}
      aria-label={label}
      tabIndex={id === group.stop ? 0 : -1}
      onPress={() => group.choose(id)}
      testID={testID}
      style={style}
    >
      {children}
    </Press>
  );
}
