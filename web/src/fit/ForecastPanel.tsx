import type { Act, Fit, FitLine, Problem, Workshop } from "../api/types";
import type { Held } from "../api/useDocument";
import { ControlField } from "../ui/ControlField";

type Props = {
  fit: Fit;
  held: Held<Fit>;
  workshop: Held<Workshop>;
  onProblem: (problem: Problem | null) => void;
};

/** How well it will close with this saw and this hand, joint by joint. */
export function ForecastSheet({ fit }: { fit: Fit }) {
  const { forecast } = fit;
  return (
    <section aria-labelledby="will-it" className="mt-2">
      <h2 id="will-it" className="text-[20px]" data-tone={forecast.tone}>
        {forecast.headline}
      </h2>
      {forecast.depends && <p className="text-[17px]">{forecast.depends}</p>}
      {forecast.needs && <p className="text-ink-2">{forecast.needs}</p>}
    </section>
  );
}

/** What it is reckoned from, and every joint's figure. */
export function ForecastPanel({ fit, held, workshop, onProblem }: Props) {
  const { forecast } = fit;
  const wish = (acts: Act[]) => held.act(acts);
  return (
    <>
      <h2 className="text-[20px]">The same every time, or scatter</h2>
      <Lines lines={forecast.apart} />
      <h2 className="mt-4 text-[20px]">Joint by joint</h2>
      <p className="text-[15px] text-ink-2">Nine in ten stay under this. The bar is to scale.</p>
      <Lines lines={forecast.rows} />
      <h2 className="mt-4 text-[20px]">How exactly you work</h2>
      <Lines lines={forecast.used} />
      {forecast.hand.map((control) => (
        <ControlField
          key={control.id}
          control={control}
          onAct={(acts) => workshop.act(acts)}
          onLook={async () => null}
          onProblem={onProblem}
        />
      ))}
      <h2 className="mt-4 text-[20px]">What you want to know</h2>
      {forecast.wishes.map((control) => (
        <ControlField
          key={control.id}
          control={control}
          onAct={wish}
          onLook={async () => null}
          onProblem={onProblem}
        />
      ))}
    </>
  );
}

/** Words, a figure, a bar where there is one. */
export function Lines({ lines }: { lines: FitLine[] }) {
  return (
    <ul className="fit-lines">
      {lines.map((line, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: lines have no name of their own and keep their order
        <li key={i} data-tone={line.tone}>
          <span className="flex items-baseline justify-between gap-3">
            <span>{line.text}</span>
            <span className="figure whitespace-nowrap text-[17px] font-semibold">{line.figure}</span>
          </span>
          {line.share != null && (
            <svg className="fit-bar" viewBox="0 0 100 6" preserveAspectRatio="none" aria-hidden="true">
              <rect x="0" y="0" height="6" width={Math.max(1, 100 * Math.abs(line.share))} />
            </svg>
          )}
          {line.note && <span className="block text-[15px] text-ink-2">{line.note}</span>}
        </li>
      ))}
    </ul>
  );
}
