import jsep from 'jsep';

type Expression = jsep.Expression;

/** The four signs, and a minus before a number. Anything else that the parser knows is no sum. */
function figure(node: Expression): number {
  const { type } = node;
  if (type === 'Literal' && typeof node.value === 'number') return node.value;
  if (type === 'UnaryExpression') {
    const value = figure(node.argument as Expression);
    if (node.operator === '-') return -value;
    if (node.operator === '+') return value;
  }
  if (type === 'BinaryExpression') {
    const [a, b] = [figure(node.left as Expression), figure(node.right as Expression)];
    if (node.operator === '+') return a + b;
    if (node.operator === '-') return a - b;
    if (node.operator === '*') return a * b;
    if (node.operator === '/') return a / b;
  }
  return Number.NaN;
}

/**
 * The number that was typed, or what a small sum comes to: `120/2`, `3*40+8`. A comma counts as a point.
 * @returns nothing when it is no number
 */
export function readNumber(text: string): number | undefined {
  try {
    const value = figure(jsep(text.trim().replace(',', '.')));
    return Number.isFinite(value) ? value : undefined;
  } catch {
    return undefined;
  }
}
