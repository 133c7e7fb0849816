const TOKEN = /\s*(?:(\d+(?:[.,]\d*)?|[.,]\d+)|([-+*/()×÷−]))/y;
const SAME: Readonly<Record<string, string>> = { '×': '*', '÷': '/', '−': '-' };

/**
 * Reads a number or a sum such as '12.5+3', '(2+4)*0.5', '7/2'. A comma counts as the decimal point.
 * @returns undefined when it is none, or comes to no finite number
 */
export function numberOfSum(text: string): number | undefined {
  const tokens: string[] = [];
  TOKEN.lastIndex = 0;
  while (TOKEN.lastIndex < text.trimEnd().length) {
    const match = TOKEN.exec(text);
    if (!match) return undefined;
    tokens.push(match[1]?.replace(',', '.') ?? SAME[match[2]] ?? match[2]);
  }
  let at = 0;
  const factor = (): number => {
    const token = tokens[at++];
    if (token === '-') return -factor();
    if (token === '+') return factor();
    if (token !== '(') return token === undefined || /^[*/)]$/.test(token) ? NaN : Number(token);
    const inside = sum();
    return tokens[at++] === ')' ? inside : NaN;
  };
  const product = (): number => {
    let value = factor();
    while (tokens[at] === '*' || tokens[at] === '/') value = tokens[at++] === '*' ? value * factor() : value / factor();
    return value;
  };
  const sum = (): number => {
    let value = product();
    while (tokens[at] === '+' || tokens[at] === '-')
      value = tokens[at++] === '+' ? value + product() : value - product();
    return value;
  };
  const value = sum();
  return at === tokens.length && Number.isFinite(value) ? value : undefined;
}
