/** Names of grips, which the drawing has no words for. */
export function gripName(id: string): string {
  const [, whose, own] = id.split("/");
  if (own) return `${whose}: ${gripName(own)}`;
  const [what, which, place] = id.split(":");
  if (what === "pin") return id.split(":").slice(2).join(" ").replaceAll("_", " ");
  if (what === "piece") return `End of piece ${Number(place) + 1}`;
  if (what === "corner") return `Corner ${Number(which) + 1}`;
  if (what === "size") return `Size, ${which === "corner" ? "corner" : "side"} ${Number(place) + 1}`;
  if (what === "width") return "Rail width";
  if (what === "across") return which === "B" ? "Right side" : "Left side";
  if (what === "along") return which === "C" ? "Back side" : "Front side";
  return `${id.replace("_deg", "").replace("_", " to the ")} stop`;
}

export const plural = (n: number, one: string) => `${n} ${one}${n === 1 ? "" : "s"}`;
