import { type FormEvent, useState } from "react";
import { useSearchParams } from "react-router";
import { useSignInMutation, wordsOf } from "../state/api.ts";
import { Button } from "../ui/Button.tsx";
import { TextField } from "../ui/TextField.tsx";

/** Shown instead of any view while nobody is signed in. */
export function SignInNeeded() {
  const used = useSearchParams()[0].get("link") === "used";
  const [name, setName] = useState("");
  const [password, setPassword] = useState("");
  const [signIn, { error, isLoading }] = useSignInMutation();
  const submit = (event: FormEvent) => {
    event.preventDefault();
    void signIn({ name, password });
  };
  return (
    <main className="mx-auto mt-16 w-full max-w-md px-5">
      <h1 className="font-serif text-2xl font-semibold">
        {used ? "This link was used already" : "Nobody is signed in here"}
      </h1>
      <p className="mt-3">
        {used ? "A sign-in link works once, within a day. " : ""}
        Open the newest link that <code className="font-mono text-[13px]">npm start</code> printed in its terminal; it
        also stands in <code className="font-mono text-[13px]">.bibliotope/ready.json</code>, under “signIn”. Or sign in
        by name and password, if you have one.
      </p>
      <form onSubmit={submit} className="mt-5 grid gap-3 rounded-md border border-rule bg-page p-5">
        <TextField label="Name" autoComplete="username" required value={name} change={setName} />
        <TextField
          label="Password"
          type="password"
          autoComplete="current-password"
          required
          value={password}
          change={setPassword}
        />
        {error ? (
          <p role="alert" className="text-madder">
            {wordsOf(error)}
          </p>
        ) : null}
        <Button strong type="submit" className="justify-self-start" disabled={isLoading}>
          Sign in
        </Button>
      </form>
    </main>
  );
}
