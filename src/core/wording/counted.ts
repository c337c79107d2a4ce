/** So many of something: "1 reading", "5 readings". */
export const counted = (count: number, one: string): string => `${count} ${one}${count === 1 ? '' : 's'}`;
