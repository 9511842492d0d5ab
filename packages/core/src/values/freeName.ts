/**
 * A name that nothing has yet: the wanted one, else with a number behind it.
 * @param joint what stands between the name and its number
 */
export function freeName(wanted: string, isTaken: (name: string) => boolean, joint = '-'): string {
  let name = wanted;
  for (let n = 2; isTaken(name); n++) name = `${wanted}${joint}${n}`;
  return name;
}
