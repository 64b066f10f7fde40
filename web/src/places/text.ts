export const plural = (n: number, one: string) => `${n} ${one}${n === 1 ? "" : "s"}`;
