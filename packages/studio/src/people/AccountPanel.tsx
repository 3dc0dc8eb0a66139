import type { SessionAnswer } from "@bibliotope/wire";
import { useForm } from "react-hook-form";
import {
  useChangePasswordMutation,
  useEndOtherSessionsMutation,
  useSessionsQuery,
  useSignOutMutation,
  wordsOf,
} from "../state/api.ts";
import { Alert } from "../ui/Alert.tsx";
import { Button } from "../ui/Button.tsx";
import { count } from "../ui/count.ts";
import { DialogClose } from "../ui/Dialog.tsx";
import { moment } from "../ui/moment.ts";
import { TextField } from "../ui/TextField.tsx";
import { browserWords } from "./browser-words.ts";
import { People } from "./People.tsx";
import { ROLE_WORDS } from "./roles.ts";
import { SecondFactor } from "./SecondFactor.tsx";

/** What somebody who is signed in can do about it. */
export default function AccountPanel({ session }: { session: SessionAnswer }) {
  const [signOut] = useSignOutMutation();
  return (
    <>
      <p className="mt-1 text-quiet">
        Your role, {ROLE_WORDS[session.role].name}: {ROLE_WORDS[session.role].can}.
      </p>
      <Password hasPassword={session.hasPassword} />
      <SecondFactor hasPassword={session.hasPassword} />
      <Sessions />
      {session.role === "manage" ? <People own={session.id} /> : null}
      <div className="mt-5 flex gap-2 border-t border-rule pt-4">
        <Button onClick={() => void signOut()}>Sign out</Button>
        <DialogClose asChild>
          <Button className="ml-auto">Close</Button>
        </DialogClose>
      </div>
    </>
  );
}

/** Sessions that are shown: this one, and the newest others. */
const SHOWN = 4;

/** Where one is signed in; and a way to end all but this. */
function Sessions() {
  const { data } = useSessionsQuery(undefined, { refetchOnMountOrArgChange: true });
  const [end, { error, isLoading }] = useEndOtherSessionsMutation();
  const others = data?.filter(({ isThis }) => !isThis).length ?? 0;
  const shown = data?.toSorted((a, b) => Number(b.isThis) - Number(a.isThis)).slice(0, SHOWN) ?? [];
  return (
    <section aria-label="Sessions" className="mt-5">
      <h3 className="font-semibold">Sessions</h3>
      <ul className="mt-1 border-y border-rule text-[13px]">
        {shown.map(({ madeAt, seenAt, agent, address, isThis }) => (
          <li key={`${madeAt} ${seenAt}`} className="border-b border-rule py-1.5 last:border-0">
            <span className="block break-words" title={agent}>
              {browserWords(agent)}
            </span>
            <span className="text-quiet">
              {[isThis ? "this session" : `used ${moment(seenAt)}`, `started ${moment(madeAt)}`, address]
                .filter(Boolean)
                .join(" · ")}
            </span>
          </li>
        ))}
        {data && data.length > SHOWN ? (
          <li className="py-1.5 text-quiet">and {count(data.length - SHOWN)} earlier sessions</li>
        ) : null}
      </ul>
      {others ? (
        <p className="mt-2">
          <Button disabled={isLoading} onClick={() => void end()}>
            {others === 1 ? "End the other session" : `End the other ${others} sessions`}
          </Button>
        </p>
      ) : null}
      <Alert error={error} className="mt-2 text-madder" />
    </section>
  );
}

function Password({ hasPassword }: { hasPassword: boolean }) {
  const { register, handleSubmit, reset, formState } = useForm({ defaultValues: { before: "", password: "" } });
  const [change, { error, isLoading, isSuccess }] = useChangePasswordMutation();
  const submit = handleSubmit(({ before, password }) =>
    change({ ...(hasPassword ? { before } : {}), password })
      .unwrap()
      .then(
        () => reset(),
        () => undefined,
      ),
  );
  return (
    <form onSubmit={submit} className="mt-4 flex flex-wrap items-end gap-3">
      {hasPassword ? (
        <div className="w-[12rem]">
          <TextField
            label="Current password"
            type="password"
            autoComplete="current-password"
            required
            {...register("before")}
          />
        </div>
      ) : null}
      <div className={hasPassword ? "w-[12rem]" : "w-[18rem]"}>
        <TextField
          label={hasPassword ? "New password" : "Set a password to sign in without a link"}
          type="password"
          autoComplete="new-password"
          required
          minLength={10}
          maxLength={200}
          {...register("password")}
        />
      </div>
      <Button type="submit" disabled={isLoading}>
        {hasPassword ? "Change password" : "Set password"}
      </Button>
      <p role="status" className={error ? "w-full text-madder" : "w-full text-quiet empty:hidden"}>
        {error ? wordsOf(error) : isSuccess && !formState.isDirty ? "Password changed. Other sessions have ended." : ""}
      </p>
    </form>
  );
}
