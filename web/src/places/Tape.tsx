import { useEffect, useRef } from "react";
import { Link } from "react-router";
import { Mark } from "../ui/Mark";

/** The places of a project in the order of the work; a digit key goes to each. */
export const PLACES = [
  { path: "", name: "Shape" },
  { path: "boards", name: "Boards" },
  { path: "saw", name: "Saw" },
  { path: "bench", name: "Bench" },
  { path: "fit", name: "Fit" },
  { path: "finish", name: "Finish" },
  { path: "log", name: "Log" },
];

/** The tape that the places stand on. */
export function Tape({ id, place }: { id: string; place: string }) {
  const tape = useRef<HTMLElement>(null);
  // On a phone the tape is longer than the screen: where one is, is in sight.
  // biome-ignore lint/correctness/useExhaustiveDependencies: another place is another link
  useEffect(() => {
    const here = tape.current?.querySelector<HTMLElement>('[aria-current="page"]');
    if (here && tape.current) tape.current.scrollLeft = here.offsetLeft - tape.current.offsetLeft - 40;
  }, [place]);
  return (
    <>
      <Link to="/" className="flex items-center gap-2 py-2 pr-2" title="All projects">
        <Mark />
        <span className="text-[18px] font-semibold">Fennup</span>
      </Link>
      <nav
        ref={tape}
        aria-label="Places"
        className="tape flex min-w-0 max-w-full items-stretch overflow-x-auto"
      >
        {PLACES.map((p, i) => (
          <Link
            key={p.name}
            to={`/project/${id}/${p.path}`}
            aria-current={p.path === place ? "page" : undefined}
            className="flex items-center gap-1.5 whitespace-nowrap px-2.5 py-3 font-medium max-sm:gap-1.5 max-sm:px-2.5 aria-[current=page]:border-b-4 aria-[current=page]:border-ink aria-[current=page]:bg-film aria-[current=page]:pb-2"
          >
            <span className="figure flex h-6 w-6 items-center justify-center rounded-full border border-current text-[15px]">
              {i + 1}
            </span>
            {p.name}
          </Link>
        ))}
      </nav>
    </>
  );
}
