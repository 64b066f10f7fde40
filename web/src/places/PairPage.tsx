import { type FormEvent, useState } from "react";
import { Link } from "react-router";
import { answered, api } from "../api/call";
import { Mark } from "../ui/Mark";

/** A phone comes in: the code from the desk, and what it wants to be called. */
export function PairPage() {
  const [code, setCode] = useState(location.hash.slice(1).replace(/\D/g, ""));
  const [name, setName] = useState("");
  const [trouble, setTrouble] = useState("");
  const [inside, setInside] = useState("");
  const send = async (event: FormEvent) => {
    event.preventDefault();
    const answer = await answered(api.POST("/api/pair", { body: { code, name } }));
    setTrouble(answer.ok ? "" : answer.problem.detail);
    if (answer.ok) setInside(answer.data.name);
  };
  return (
    <main className="mx-auto max-w-md p-5 text-[19px]">
      <p className="mb-3 flex items-center gap-2 text-[20px] font-semibold">
        <Mark /> Fennup
      </p>
      {inside ? (
        <>
          <h1 className="text-[26px]">You are in, as {inside}.</h1>
          <Link to="/" className="bench-key mt-4 flex items-center justify-center">
            To the projects
          </Link>
        </>
      ) : (
        <form onSubmit={send}>
          <h1 className="text-[26px]">Come in from this device</h1>
          <label className="mt-4 block">
            The code that the desk shows
            <input
              className="bench-input mt-1"
              inputMode="numeric"
              autoComplete="one-time-code"
              maxLength={8}
              value={code}
              onChange={(event) => setCode(event.target.value)}
            />
          </label>
          <label className="mt-3 block">
            What this device is called
            <input
              className="mt-1 min-h-14 w-full border-2 border-ink bg-paper px-3"
              maxLength={40}
              placeholder="phone"
              value={name}
              onChange={(event) => setName(event.target.value)}
            />
          </label>
          {trouble && (
            <p role="alert" className="mt-3 font-medium text-warn">
              {trouble}
            </p>
          )}
          <button type="submit" className="bench-do mt-4 w-full" disabled={code.trim().length === 0}>
            Come in
          </button>
        </form>
      )}
      <section className="mt-8 border-t border-line pt-3 text-[17px]">
        <h2 className="text-[20px]">Make the warning go away</h2>
        <p className="mt-1">
          This phone does not know yet who answers here.{" "}
          <a className="underline" href="/api/share/certificate">
            Take the certificate
          </a>{" "}
          and install it: on Android under Settings, Security, Install a certificate, CA certificate; on an
          iPhone under Settings, Profile downloaded, then General, About, Certificate trust settings. It can
          speak for private addresses alone, and the desk shows its fingerprint. Then the bench works here
          without a connection.
        </p>
      </section>
    </main>
  );
}
