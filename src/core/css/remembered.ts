/** A reading of a value whose answers are kept: pages have few values, and rules ask for the same again and again. */
export function remembered<T>(read: (value: string) => T): (value: string) => T {
  const answers = new Map<string, T>();
  return (value) => {
    const known = answers.get(value);
    if (known !== undefined) return known;
    const answer = read(value);
    answers.set(value, answer);
    return answer;
  };
}
