import type { SessionAnswer } from "@bibliotope/wire";
import { type FormEvent, useState } from "react";
import { useChangePasswordMutation, useSignOutMutation, wordsOf } from "../state/api.ts";
import { Button } from "../ui/Button.tsx";
import { Sheet, SheetClose } from "../ui/Sheet.tsx";
import { TextField } from "../ui/TextField.tsx";
import { People } from "./People.tsx";
import { ROLE_WORDS } from "./roles.ts";

/** Who is signed in; opens what they can do about it. */
export function Account({ session }: { session: SessionAnswer }) {
  const [open, setOpen] = useState(false);
  const [signOut] = useSignOutMutation();
  return (
    <Sheet
      title={session.name}
      open={open}
      onOpenChange={setOpen}
      size={session.role === "manage" ? "large" : "small"}
      trigger={
        <button type="button" className="min-w-0 truncate text-quiet hover:text-ink max-[480px]:max-w-[7rem]">
          <span className="sr-only">Account: </span>
          {session.name}
        </button>
      }
    >
      <p className="mt-1 text-quiet">May {ROLE_WORDS[session.role].can}.</p>
      <Password hasPassword={session.hasPassword} />
      {session.role === "manage" ? <People own={session.id} /> : null}
      <div className="mt-5 flex gap-2 border-t border-rule pt-4">
        <Button onClick={() => void signOut()}>Sign out</Button>
        <SheetClose asChild>
          <Button className="ml-auto">Close</Button>
        </SheetClose>
      </div>
    </Sheet>
  );
}

function Password({ hasPassword }: { hasPassword: boolean }) {
  const [before, setBefore] = useState("");
  const [password, setPassword] = useState("");
  const [change, { error, isLoading, isSuccess }] = useChangePasswordMutation();
  const submit = (event: FormEvent) => {
    event.preventDefault();
    change({ ...(hasPassword ? { before } : {}), password })
      .unwrap()
      .then(
        () => {
          setBefore("");
          setPassword("");
        },
        () => undefined,
      );
  };
  return (
    <form onSubmit={submit} className="mt-4 flex flex-wrap items-end gap-3">
      {hasPassword ? (
        <div className="w-[12rem]">
          <TextField
            label="Password now"
            type="password"
            autoComplete="current-password"
            required
            value={before}
            change={setBefore}
          />
        </div>
      ) : null}
      <div className={hasPassword ? "w-[12rem]" : "w-[18rem]"}>
        <TextField
          label={hasPassword ? "New password" : "A password, to sign in without a link"}
          type="password"
          autoComplete="new-password"
          required
          minLength={10}
          maxLength={200}
          value={password}
          change={setPassword}
        />
      </div>
      <Button type="submit" disabled={isLoading}>
        {hasPassword ? "Change it" : "Set it"}
      </Button>
      <p role="status" className={error ? "w-full text-madder" : "w-full text-quiet empty:hidden"}>
        {error ? wordsOf(error) : isSuccess && !password ? "Changed. Other sessions have ended." : ""}
      </p>
    </form>
  );
}
