import { useSearchParams } from "react-router";

/** Shown instead of any view while nobody is signed in. */
export function SignInNeeded() {
  const used = useSearchParams()[0].get("link") === "used";
  return (
    <main className="mx-auto mt-24 max-w-lg px-5">
      <h1 className="font-serif text-2xl font-semibold">
        {used ? "This link was used already" : "Nobody is signed in here"}
      </h1>
      <p className="mt-3">
        {used ? "A sign-in link works once, within a day. " : ""}
        Open the newest link that <code className="font-mono text-[13px]">npm start</code> printed in its terminal. It
        also stands in <code className="font-mono text-[13px]">.bibliotope/ready.json</code>, under “signIn”.
      </p>
    </main>
  );
}
