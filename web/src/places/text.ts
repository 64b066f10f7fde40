export const plural = (n: number, one: string) => `${n} ${one}${n === 1 ? "" : "s"}`;

/** Whether a size follows from no others: somebody gave it, or it is suggested. */
export const standsByItself = (size: { standing: string }) =>
  size.standing === "given" || size.standing === "suggested";
