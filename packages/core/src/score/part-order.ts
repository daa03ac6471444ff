/** More parts than that are no tune. */
const mostParts = 400;

export type PartOrder = { readonly kind: 'order'; readonly labels: readonly string[] } | { readonly kind: 'fault'; readonly problem: string };

/**
 * Reads the order of the parts in the head of a tune.
 * "A2(BC)2" is A A B C B C.
 */
export function partOrder(text: string): PartOrder {
  const stack: string[][] = [[]];
  let last: readonly string[] = [];
  for (const [piece] of text.matchAll(/[A-Za-z]|\(|\)|\d+|\S/g)) {
    const open = stack[stack.length - 1];
    if (piece === '(') stack.push([]);
    else if (piece === ')') {
      if (stack.length === 1) return { kind: 'fault', problem: 'A bracket is closed that was never opened.' };
      last = stack.pop() as string[];
      stack[stack.length - 1].push(...last);
    } else if (/\d/.test(piece)) {
      const times = Number(piece);
      if (times < 1 || (times - 1) * last.length + open.length > mostParts)
        return { kind: 'fault', problem: `The parts are played more than ${mostParts} times.` };
      for (let time = 1; time < times; time += 1) open.push(...last);
    } else if (/[A-Za-z]/.test(piece)) {
      last = [piece];
      open.push(piece);
    } else if (!'.*+,-'.includes(piece)) return { kind: 'fault', problem: `“${piece}” means nothing in an order of parts.` };
    if (stack[stack.length - 1].length > mostParts || stack.length > 20)
      return { kind: 'fault', problem: `The parts are played more than ${mostParts} times.` };
  }
  if (stack.length > 1) return { kind: 'fault', problem: 'A bracket is opened and never closed.' };
  return { kind: 'order', labels: stack[0] };
}
