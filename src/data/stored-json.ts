/** Written for a number that JSON has no word for. */
const mark = '\u0000';

/** JSON that keeps the numbers JSON does not have: a figure that nobody recorded is not the same as none. */
export function toStored(value: unknown): string {
  return JSON.stringify(value, (_key, each: unknown) =>
    typeof each === 'number' && !Number.isFinite(each) ? `${mark}${each}` : each,
  );
}

/** The mark as it is written in JSON: most texts have none, and are read without looking at every value. */
const writtenMark = '\\u0000';

export function fromStored(text: string): unknown {
  if (!text.includes(writtenMark)) return JSON.parse(text);
  return JSON.parse(text, (_key, each: unknown) =>
    typeof each === 'string' && each.startsWith(mark) ? Number(each.slice(1)) : each,
  );
}
